<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { Edit, Problem, Run } from '../../api/client'
import type { Field, Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { whenShown } from '../../stage/whenShown'
import { useJob } from '../../stores/job'
import { METALS } from '../circuits/circuitFields'

/** The circuit that a run carries, and where it starts: for a run that is there, or a new one. */
const props = defineProps<{
  run: Run | null
  nodes: { id: string; name: string }[]
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ added: [id: string] }>()
const store = useJob()
const shown = defineModel<boolean>({ required: true })

const blank = {
  name: '',
  circuit: '',
  start: '',
  volts: 120,
  breaker_a: 20,
  load_a: 8,
  wire_size: '12',
  material: 'cu',
  conductors: 2,
  neutral: true,
  gfci: false,
  nameplate: false,
}
const form = reactive({ ...blank })
const problem = ref<Problem | null>(null)
whenShown(shown, () => {
  problem.value = null
  Object.assign(form, blank, { start: props.nodes[0]?.id ?? '' })
  if (props.run)
    for (const key of Object.keys(blank) as (keyof typeof blank)[])
      (form as Record<string, unknown>)[key] = (props.run as unknown as Record<string, unknown>)[key]
})
const lists = computed(() => ({
  sizes: store.sizes,
  nodes: props.nodes.map((node) => ({ title: node.name, value: node.id })),
}))
const FIELDS: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'circuit', label: 'Circuit', usual: '14' },
  { name: 'start', label: 'Starts at', list: 'nodes' },
  { name: 'volts', label: 'Volts' },
  { name: 'breaker_a', label: 'Breaker, A' },
  { name: 'load_a', label: 'Load expected, A' },
  { name: 'wire_size', label: 'Wire', list: 'sizes' },
  { name: 'material', label: 'Of', titles: METALS },
  { name: 'conductors', label: 'Wires, no ground' },
  { name: 'neutral', label: 'One is a neutral' },
  { name: 'gfci', label: 'GFCI upstream' },
  { name: 'nameplate', label: 'Motor or air conditioner, by nameplate' },
]
const known = FIELDS.map((field) => field.name)
const elsewhere = computed(() => {
  const keys = problem.value?.key?.split('.') ?? []
  return problem.value && !known.some((key) => keys.includes(key)) ? problem.value.detail : ''
})
function set(values: Part) {
  Object.assign(form, values)
  return null
}

async function save() {
  const values = { ...form }
  const id = props.run?.id ?? `r${Date.now().toString(36)}`
  const edit: Edit = props.run
    ? { op: 'set', kind: 'run', id, set: values }
    : { op: 'add', kind: 'run', item: { id, ...values } }
  problem.value = await props.edit([edit], props.run ? `circuit of ${form.name}` : `new run ${form.name}`)
  if (problem.value) return
  shown.value = false
  if (!props.run) emit('added', id)
}

async function remove() {
  if (!props.run) return
  problem.value = await props.edit(
    [{ op: 'drop', kind: 'run', id: props.run.id }],
    `remove run ${props.run.name}`,
  )
  if (!problem.value) shown.value = false
}
</script>

<template>
  <v-dialog aria-label="Circuit and ends" v-model="shown">
    <v-card class="sheet" data-testid="run-form">
      <h2>{{ run ? 'Circuit and ends' : 'New run' }}</h2>
      <form @submit.prevent="save">
        <PartFields
          focused
          kind="run"
          :fields="FIELDS"
          :part="form"
          :set="set"
          :lists="lists"
          :refused="problem"
        />
        <p v-if="elsewhere" class="bad">{{ elsewhere }}</p>
        <div class="buttons">
          <v-btn v-if="run" variant="text" color="stop" @click="remove">Remove run</v-btn>
          <v-spacer />
          <v-btn variant="text" @click="shown = false">Leave it</v-btn>
          <v-btn type="submit" variant="flat" color="ink">{{ run ? 'Set' : 'Add run' }}</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 18px 20px;
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
