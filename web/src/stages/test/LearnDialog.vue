<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type Played, type PuzzleOut } from '../../api/client'
import { whenShown } from '../../stage/whenShown'

/** A fault is hidden in this circuit: find it with the fewest readings. The model answers truly; what is unsafe ends it. */
const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ job: string; of: string }>()
const puzzle = ref<PuzzleOut | null>(null)
const moves = ref<{ what: string; told: string }[]>([])
const last = ref<Played | null>(null)
const wrong = ref('')
const over = computed(() => last.value?.over ?? false)
const taken = computed(() => new Set(moves.value.map((move) => move.what)))

async function begin() {
  moves.value = []
  last.value = null
  wrong.value = ''
  const path = { job_id: props.job }
  const { data, problem } = await ask(
    api.POST('/api/jobs/{job_id}/learn', { params: { path }, body: { of: props.of } }),
  )
  puzzle.value = (data as PuzzleOut | undefined) ?? null
  if (problem) wrong.value = problem.detail
}
whenShown(shown, () => void begin())

type Move = { probe: string } | { fault: string } | { act: 'touch' | 'generator' | 'replace' }
async function move(body: Move, what: string) {
  if (!puzzle.value) return
  const path = { lesson: puzzle.value.lesson }
  const { data, problem } = await ask(
    api.POST('/api/learn/{lesson}', { params: { path }, body: body as never }),
  )
  if (problem) return (wrong.value = problem.detail)
  wrong.value = ''
  last.value = data
  moves.value = [...moves.value, { what, told: data.text }]
}
const score = computed(() => {
  const now = last.value
  if (!now?.over) return ''
  if (!now.right) return `It was: ${now.hidden}.`
  const used = `${now.used} ${now.used === 1 ? 'reading' : 'readings'}`
  const best = `the best order needs at most ${now.best}`
  return `${now.hidden}: found with ${used}; ${best}.`
})
</script>

<template>
  <v-dialog v-model="shown" aria-label="Find the hidden fault" max-width="980">
    <v-card class="pa-5 learn" data-testid="learn">
      <h2>Find the hidden fault{{ puzzle ? `: ${puzzle.name}` : '' }}</h2>
      <p v-if="puzzle" class="mute num">
        Simulated. {{ puzzle.faults.length }} faults may be hidden; at best {{ puzzle.best }} readings tell
        them apart. Readings so far: <b data-testid="used">{{ last?.used ?? 0 }}</b>
      </p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <template v-if="puzzle">
        <p v-if="over" class="end num" :class="{ right: last?.right }" data-testid="learn-end">
          <b>{{ last?.text }}</b> {{ score }}
        </p>
        <div class="cols">
          <div>
            <h3>Read</h3>
            <ul class="list num">
              <li v-for="[key, text] in puzzle.probes" :key="key">
                <button type="button" class="plain" :disabled="over" @click="move({ probe: key }, text)">
                  <span>{{ text }}</span>
                  <b v-if="taken.has(text)">{{ moves.find((one) => one.what === text)?.told }}</b>
                </button>
              </li>
            </ul>
          </div>
          <div>
            <h3>It is</h3>
            <ul class="list num">
              <li v-for="[key, text] in puzzle.faults" :key="key">
                <button type="button" class="plain" :disabled="over" @click="move({ fault: key }, text)">
                  {{ text }}
                </button>
              </li>
            </ul>
            <h3>Or do</h3>
            <ul class="list num">
              <li v-for="[key, text] in puzzle.acts" :key="key">
                <button
                  type="button"
                  class="plain"
                  :disabled="over"
                  @click="move({ act: key as 'touch' }, text)"
                >
                  {{ text }}
                </button>
              </li>
            </ul>
          </div>
        </div>
      </template>
      <div class="d-flex ga-2 justify-end">
        <v-btn variant="outlined" @click="begin">Hide another</v-btn>
        <v-btn variant="flat" color="ink" @click="shown = false">Done</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.learn {
  max-height: 90vh;
  overflow-y: auto;
}
p {
  margin: 4px 0 8px;
}
.cols {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 18px;
}
.list {
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
}
.list button {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  width: 100%;
  min-height: 34px;
  padding: 4px 8px;
  border-top: 1px solid var(--rule);
  text-align: left;
  font-size: 15px;
}
.list button:not(:disabled):hover {
  background: var(--note-wash);
}
.list b {
  white-space: nowrap;
}
.end {
  border-left: 5px solid var(--stop);
  background: var(--stop-wash);
  padding: 8px 12px;
}
.end.right {
  border-color: var(--fine);
  background: var(--note-wash);
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
  .list button {
    min-height: 42px;
  }
}
</style>
