<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BendRow, Edit, Leg, Problem } from '../../api/client'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { inchText } from '../../parts/planScale'
import { CORNER, FRESH, LEG, SHAPE } from './bendFields'
import { bendKey } from './sticks'

/** The bends of a pull, and the one that is picked: its numbers, and what is said of it. */
const props = defineProps<{
  bends: BendRow[]
  legs: Leg[]
  first: number
  last: number
  way: string
  picked: string | null
  fixed: boolean
  metric: boolean
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ pick: [key: string | null] }>()

const here = computed(() => props.bends.find((row) => bendKey(row) === props.picked) ?? null)
const leg = computed(() => (here.value ? (props.legs[here.value.leg] ?? null) : null))
const shape = computed(() => {
  const at = here.value?.shape
  return at === null || at === undefined ? null : ((leg.value?.shapes?.[at] as Part | undefined) ?? null)
})
const set = (index: number, values: Part, label: string) =>
  props.edit([{ op: 'set_leg', way: props.way, leg: index, set: values }], label)

function change(values: Part) {
  const row = here.value
  if (!row || !leg.value) return null
  const shapes = (leg.value.shapes ?? []).map((item, i) => (i === row.shape ? { ...item, ...values } : item))
  return set(row.leg, { shapes }, `${row.title}`)
}
function remove() {
  const row = here.value
  if (!row || !leg.value) return
  const shapes = (leg.value.shapes ?? []).filter((_, i) => i !== row.shape)
  emit('pick', null)
  void set(row.leg, { shapes }, `no ${row.title}`)
}
const adding = ref(false)
const into = ref<number | null>(null)
const refused = ref<Problem | null>(null)
const target = computed(() => {
  const own = into.value
  return own !== null && own >= props.first && own <= props.last ? own : longest.value
})
const longest = computed(() => {
  const numbers = Array.from({ length: props.last - props.first + 1 }, (_, i) => props.first + i)
  const long = (n: number) => props.legs[n]?.length_in ?? 0
  return numbers.reduce((best, n) => (long(n) > long(best) ? n : best), props.first)
})
const legItems = computed(() =>
  Array.from({ length: props.last - props.first + 1 }, (_, i) => props.first + i).map((n) => ({
    title: `leg ${n + 1}, ${props.legs[n]?.go} ${inchText(props.legs[n]?.length_in ?? 0, props.metric)}`,
    value: n,
  })),
)
async function add(kind: string) {
  const index = target.value
  const shapes = [...(props.legs[index]?.shapes ?? []), FRESH[kind]]
  refused.value = await set(index, { shapes }, `${kind.replace('3', '')} in leg ${index + 1}`)
  if (refused.value) return
  adding.value = false
  emit('pick', bendKey({ leg: index, shape: shapes.length - 1, kind }))
}
</script>

<template>
  <section data-testid="bends">
    <h3>Bends as they are made</h3>
    <ul class="plainlist">
      <li v-for="row in bends" :key="bendKey(row) + row.title">
        <button
          type="button"
          class="plain row num"
          :class="{ here: bendKey(row) === picked, assumed: row.assumed }"
          :aria-pressed="bendKey(row) === picked"
          @click="emit('pick', bendKey(row) === picked ? null : bendKey(row))"
        >
          <b>{{ row.title }}</b>
          <span class="mute">{{ row.how }}, {{ inchText(row.radius_in, metric) }} radius</span>
          <span v-if="row.text" class="wide">{{ row.text }}</span>
          <span v-if="row.assumed" class="wide ask">as usual: say how far aside, and where</span>
        </button>
        <div v-if="here && bendKey(row) === picked && leg && !fixed" class="form">
          <template v-if="shape">
            <PartFields kind="shape" :fields="SHAPE" :part="shape" :set="change" />
            <p v-if="row.beside_in !== null" class="mute">
              The next pipe, 3″ beside it: its marks
              {{ inchText(Math.round((row.beside_in ?? 0) * 8) / 8, metric) }}
              farther on, so that both stay even.
            </p>
            <v-btn size="small" variant="text" color="stop" @click="remove">Take it out</v-btn>
          </template>
          <PartFields
            v-else-if="row.kind === 'corner'"
            kind="leg"
            :fields="CORNER"
            :part="leg"
            :set="(values: Part) => set(row.leg, values, 'radius of a bend')"
          />
          <PartFields
            kind="leg"
            :fields="LEG"
            :part="leg"
            :set="(values: Part) => set(row.leg, values, `leg ${row.leg + 1}`)"
          />
        </div>
      </li>
    </ul>
    <p v-if="!bends.length" class="mute">Straight through: no bend.</p>
    <div v-if="!fixed" class="adds no-print">
      <v-btn size="small" variant="outlined" data-testid="add-bend" @click="adding = !adding"
        >Add a bend…</v-btn
      >
      <template v-if="adding">
        <v-select
          label="In"
          :items="legItems"
          :model-value="target"
          class="into"
          @update:model-value="into = $event"
        />
        <v-btn v-for="(_, kind) in FRESH" :key="kind" size="small" variant="text" @click="add(String(kind))">
          {{
            {
              offset: 'offset',
              saddle3: 'saddle',
              kick: 'kick',
              box_offset: 'box offset',
              rolling: 'rolling',
            }[kind]
          }}
        </v-btn>
        <p v-if="refused" class="bad" role="alert">{{ refused.detail }}</p>
      </template>
    </div>
  </section>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
.plainlist {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  width: 100%;
  padding: 5px 6px;
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
}
.row:hover {
  background: var(--note-wash);
}
.row.here {
  background: color-mix(in srgb, var(--chalk) 12%, transparent);
}
.row b {
  font-weight: 600;
}
.wide {
  grid-column: 1 / -1;
  font-size: 13.5px;
  color: var(--mute);
}
.ask {
  color: var(--check);
}
.form {
  padding: 2px 6px 8px;
}
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  margin-top: 6px;
}
.into {
  flex: 1 1 100%;
}
.bad {
  color: var(--stop);
  flex: 1 1 100%;
  margin: 0;
  font-size: 14px;
}
p {
  margin: 4px 0;
  font-size: 13.5px;
}
</style>
