<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import type { Problem } from '../../api/client'
import BlankPick from './BlankPick.vue'
import { ranges } from './sentence'

/** The panel that a job starts from, in three ways: its taken spaces tapped or typed, or only how many are free. */
const props = defineProps<{ breakers: number[]; say: (text: string) => Promise<Problem | null> }>()
const said = reactive({ name: 'H', amps: '200', spaces: '30', building: 'house', free: '' })
const taken = ref<number[]>([])
const problem = ref<Problem | null>(null)
const pick = (values: (string | number)[], unit = '') =>
  values.map((value) => ({ title: `${value}${unit}`, value: `${value}` }))
const MAINS = [30, 60, 100, 125, 150, 200]
const mains = computed(() =>
  pick(
    props.breakers.filter((amps) => MAINS.includes(amps)),
    ' A',
  ),
)
const SPACES = pick([8, 12, 16, 20, 24, 30, 40, 42], ' spaces')
const BUILDINGS = ['house', 'shop', 'cabin', 'shed'].map((value) => ({ title: `the ${value}`, value }))
const FREE = [
  { title: 'I can see which are taken', value: '' },
  ...[0, 1, 2, 3, 4, 6, 8].map((n) => ({ title: `only that ${n} are free`, value: `${n}` })),
]
const grid = computed(() => Array.from({ length: Number(said.spaces) || 20 }, (_, i) => i + 1))
function toggle(space: number) {
  taken.value = taken.value.includes(space)
    ? taken.value.filter((one) => one !== space)
    : [...taken.value, space]
}
const line = computed(() => {
  const own = taken.value.filter((space) => space <= Number(said.spaces))
  const which = said.free !== '' ? `${said.free} free` : own.length ? `taken ${ranges(own)}` : ''
  const name = /^[\w-]+$/.test(said.name) ? said.name : `"${said.name}"`
  return `panel ${name} ${said.amps}a ${said.spaces} spaces in ${said.building} ${which}`.trim()
})
async function set() {
  problem.value = await props.say(line.value)
}
</script>

<template>
  <section class="panel-start">
    <p class="ask num">
      <BlankPick v-model="said.name" label="Panel" before="Panel" empty="name" free />
      <BlankPick v-model="said.amps" label="Main" before=" of" empty="amperes" :choices="mains" free />,
      <BlankPick v-model="said.spaces" label="Spaces" empty="spaces" :choices="SPACES" free />
      <BlankPick
        v-model="said.building"
        label="Building"
        before=" in"
        empty="a building"
        :choices="BUILDINGS"
      />:
      <BlankPick
        v-model="said.free"
        label="What is free"
        empty="I can see which are taken"
        :choices="FREE"
      />.
    </p>
    <div class="beside">
      <div v-if="said.free === ''" class="door" role="group" aria-label="Taken spaces, tapped">
        <button
          v-for="space in grid"
          :key="space"
          type="button"
          class="plain num space"
          :aria-pressed="taken.includes(space)"
          :aria-label="`space ${space}, ${taken.includes(space) ? 'taken' : 'free'}`"
          @click="toggle(space)"
        >
          {{ space }}
        </button>
      </div>
      <div class="set">
        <v-btn variant="flat" color="ink" data-testid="set-panel" @click="set">This is the panel</v-btn>
        <p v-if="problem" class="bad" role="alert">{{ problem.detail }}</p>
        <p class="mute">
          <template v-if="said.free === ''">Tap what is taken. </template>Open no cover that is live; the
          upper lugs stay hot with the main off.
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.panel-start {
  padding: 4px 22px 16px;
}
.ask {
  font-size: 21px;
  line-height: 1.7;
  margin: 6px 0 10px;
}
.door {
  display: grid;
  grid-template-columns: repeat(2, 64px);
  gap: 3px 4px;
  padding: 8px;
  background: #4a5257;
  width: max-content;
  border-radius: 3px;
}
.space {
  height: 26px;
  background: var(--card);
  color: var(--ink);
  text-align: center;
  border-radius: 2px;
}
.space[aria-pressed='true'] {
  background: #8d9499;
  color: #14181a;
  text-decoration: line-through;
}
.beside {
  display: flex;
  gap: 16px;
  align-items: flex-start;
}
.set {
  position: sticky;
  top: 8px;
  max-width: 300px;
}
.bad {
  color: var(--stop);
}
</style>
