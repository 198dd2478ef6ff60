<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import type { Problem, School } from '../../api/client'
import MeasureField from '../../parts/MeasureField.vue'
import { inchText } from '../../parts/planScale'
import { useBoxWords } from '../../stores/boxWords'
import { whenShown } from '../../stage/whenShown'
import { useJob } from '../../stores/job'

/** The story pole: all heights once. A school is one tap; any height may be typed. */
const store = useJob()
const words = useBoxWords()
const shown = defineModel<boolean>({ required: true })
const problem = ref<Problem | null>(null)
interface Mark {
  mark: 'bottom' | 'centre' | 'top'
  at_in: number
}
const pole = reactive<Record<string, Mark>>({})
const hole = ref(24)
const USES = ['receptacle', 'switch', 'counter', 'vanity', 'garage', 'outdoor', 'wall_light']
const schoolsOf = (use: string): School[] => words.schools.filter((item) => item.use === use)

whenShown(shown, () => {
  problem.value = null
  void words.load()
  const own = (store.job?.habits?.pole ?? {}) as Record<string, unknown>
  for (const use of USES) pole[use] = { ...(own[use] as Mark) }
  hole.value = own.hole_line_in as number
})
const current = (use: string, school: School) =>
  pole[use]?.mark === school.mark && pole[use]?.at_in === school.at_in
const others = computed(() => store.job?.boxes.filter((box) => box.fixed && box.room).length ?? 0)

/** Each height is set as it is picked, so that nothing picked is lost however the dialog is left; undo takes it back. */
async function set(use: string, mark: Partial<Mark>) {
  pole[use] = { mark: 'centre', at_in: 0, ...pole[use], ...mark }
  await save(use)
}
async function save(what: string) {
  const habits = { ...store.job?.habits, pole: { ...pole, hole_line_in: hole.value } }
  problem.value = await store.edit(
    [{ op: 'set_job', set: { habits } }],
    `story pole: ${what.replace('_', ' ')}`,
  )
}
function setHole(at: number) {
  hole.value = at
  void save('hole line')
}
</script>

<template>
  <v-dialog aria-label="Story pole" v-model="shown" max-width="640">
    <v-card class="pa-5" data-testid="pole">
      <h2>Story pole</h2>
      <p class="mute">
        Common practice, no source; electricians disagree. Every box follows{{
          others ? `, but ${others} that keep${others === 1 ? 's its' : ' their'} height` : ''
        }}.
      </p>
      <div v-for="use in USES" :key="use" class="use">
        <b class="num">{{ use.replace('_', ' ') }}</b>
        <span class="schools">
          <button
            v-for="school in schoolsOf(use)"
            :key="school.school"
            type="button"
            class="plain key"
            :class="{ on: current(use, school) }"
            :title="school.why"
            @click="set(use, { mark: school.mark as Mark['mark'], at_in: school.at_in })"
          >
            {{ school.school }}
          </button>
        </span>
        <v-select
          v-if="pole[use]"
          :model-value="pole[use].mark"
          :items="['bottom', 'centre', 'top']"
          :aria-label="`${use} mark`"
          class="mark"
          @update:model-value="set(use, { mark: $event })"
        />
        <MeasureField
          v-if="pole[use]"
          :text="inchText(pole[use].at_in, store.metric)"
          bare="in"
          :named="`${use.replace('_', ' ')}, height`"
          class="at"
          @inches="set(use, { at_in: $event })"
        />
      </div>
      <div class="use">
        <b class="num">hole line</b>
        <span class="mute">drill every stud at this height</span>
        <MeasureField
          :text="inchText(hole, store.metric)"
          bare="in"
          named="hole line, height"
          class="at"
          @inches="setHole"
        />
      </div>
      <p v-if="problem" class="bad" role="alert">{{ problem.detail }}</p>
      <div class="d-flex ga-2 justify-end mt-3">
        <v-btn variant="flat" color="ink" @click="shown = false">Done</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.use {
  display: grid;
  grid-template-columns: 92px 1fr 116px 104px;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.schools {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.key {
  cursor: pointer;
  padding: 6px 8px;
}
.key.on {
  background: var(--ink);
  color: var(--card);
}
.at {
  grid-column: -2;
}
.bad {
  color: var(--stop);
}
@media (max-width: 700px) {
  .use {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
