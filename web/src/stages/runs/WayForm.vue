<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import type { CircuitPlan, Edit, Problem, Way } from '../../api/client'
import type { Field, Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { whenShown } from '../../stage/whenShown'
import { useJob } from '../../stores/job'

/** A way: its name, where it starts, and which hops of the circuit looked at take it. */
const props = defineProps<{
  way: Way | null
  circuit: CircuitPlan | null
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ added: [id: string] }>()
const store = useJob()
const shown = defineModel<boolean>({ required: true })

const form = reactive({ name: '', start: '', start_edge: '', end_edge: '' })
const taking = ref<string[]>([])
const problem = ref<Problem | null>(null)
const panel = computed(() => store.job?.circuits.find((c) => c.id === props.circuit?.summary.id)?.panel ?? '')
const nameOf = (id: string | null) => store.nodes.find((node) => node.id === (id ?? panel.value))?.name ?? ''
const hops = computed(() =>
  (props.circuit?.chain ?? []).map((row) => ({
    box: row.box,
    start: row.after ?? panel.value,
    path: row.path,
    words: `${nameOf(row.after)} to ${row.name}`,
  })),
)
whenShown(shown, () => {
  problem.value = null
  const next = hops.value.find((hop) => !hop.path.length)
  form.name = props.way?.name ?? (next && props.circuit ? props.circuit.summary.name : '')
  form.start_edge = props.way?.start_edge ?? ''
  form.end_edge = props.way?.legs.at(-1)?.end.edge ?? ''
  form.start = props.way?.start ?? next?.start ?? panel.value ?? store.nodes[0]?.id ?? ''
  taking.value = props.way
    ? hops.value.filter((hop) => hop.path.includes(props.way?.id ?? '')).map((hop) => hop.box)
    : next
      ? [next.box]
      : []
})
const FIELDS: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'start', label: 'Starts at', list: 'nodes', wide: true },
  { name: 'start_edge', label: 'Leaves by its', list: 'edges' },
  {
    name: 'end_edge',
    label: 'Comes in by its',
    list: 'edges',
    when: () => !!props.way?.legs.at(-1)?.end.node,
  },
]
const EDGES = ['', 'top', 'bottom', 'side', 'back'].map((value) => ({
  title: value || 'nearest edge',
  value,
}))
const lists = computed(() => ({
  nodes: store.nodes.map((node) => ({ title: node.name, value: node.id })),
  edges: EDGES,
}))
const elsewhere = computed(() => {
  const keys = problem.value?.key?.split('.') ?? []
  return problem.value && !['name', 'start'].some((key) => keys.includes(key)) ? problem.value.detail : ''
})
function set(values: Part) {
  Object.assign(form, values)
  return null
}

/** Which hops take the way, where that is not as it was; each keeps its other ways. */
function routes(id: string): Edit[] {
  const circuit = props.circuit?.summary.id
  if (!circuit) return []
  return hops.value.flatMap((hop) => {
    const takes = taking.value.includes(hop.box)
    if (takes === hop.path.includes(id)) return []
    const path = takes ? [...hop.path, id] : hop.path.filter((way) => way !== id)
    return [{ op: 'route', circuit, box: hop.box, path }] as Edit[]
  })
}

/** The edge of the panel or box at its end, where that is not as it was. */
function entered(id: string, edge: string): Edit[] {
  const last = props.way?.legs.at(-1)
  if (!props.way || !last?.end.node || last.end.edge === edge) return []
  const leg = props.way.legs.length - 1
  return [{ op: 'set_leg', way: id, leg, set: { end: { ...last.end, edge } } }] as Edit[]
}

async function save() {
  const id = props.way?.id ?? `w${Date.now().toString(36)}`
  const { end_edge, ...said } = form
  const own: Edit = props.way
    ? { op: 'set', kind: 'way', id, set: said }
    : { op: 'add', kind: 'way', item: { id, ...said } }
  problem.value = await props.edit(
    [own, ...entered(id, end_edge), ...routes(id)],
    props.way ? `way ${form.name}` : `new way ${form.name}`,
  )
  if (problem.value) return
  shown.value = false
  if (!props.way) emit('added', id)
}

async function remove() {
  if (!props.way) return
  problem.value = await props.edit(
    [{ op: 'drop', kind: 'way', id: props.way.id }],
    `remove way ${props.way.name}`,
  )
  if (!problem.value) shown.value = false
}
</script>

<template>
  <v-dialog aria-label="The way and what takes it" v-model="shown">
    <v-card class="sheet" data-testid="way-form">
      <h2>{{ way ? 'The way and what takes it' : 'New way' }}</h2>
      <form @submit.prevent="save">
        <PartFields
          focused
          kind="way"
          :fields="FIELDS"
          :part="form"
          :set="set"
          :lists="lists"
          :refused="problem"
        />
        <fieldset v-if="hops.length">
          <legend>{{ circuit?.summary.label }} {{ circuit?.summary.name }} takes it from</legend>
          <v-checkbox
            v-for="hop in hops"
            :key="hop.box"
            v-model="taking"
            :value="hop.box"
            :label="hop.words"
            density="compact"
            hide-details
          />
        </fieldset>
        <p v-else class="mute">No circuit takes it yet. It may stay a spare, or be taken later.</p>
        <p v-if="elsewhere" class="bad">{{ elsewhere }}</p>
        <div class="buttons">
          <v-btn v-if="way" variant="text" color="stop" @click="remove">Remove way</v-btn>
          <v-spacer />
          <v-btn variant="text" @click="shown = false">Leave it</v-btn>
          <v-btn type="submit" variant="flat" color="ink">{{ way ? 'Set' : 'Add way' }}</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 18px 20px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 8px 0 0;
  max-height: 40vh;
  overflow: auto;
}
legend {
  color: var(--mute);
  font-size: 14.5px;
}
.buttons {
  display: flex;
  gap: 0 14px;
  margin-top: 8px;
}
.bad {
  color: var(--stop);
  margin: 0;
}
</style>
