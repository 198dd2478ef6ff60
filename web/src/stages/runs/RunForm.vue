<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { whenShown } from '../../stage/whenShown'

import type { Edit, Problem, Run } from '../../api/client'

/** The circuit that a run carries, and where it starts: for a run that is there, or a new one. */
const props = defineProps<{
  run: Run | null
  nodes: { id: string; name: string }[]
  sizes: string[]
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ added: [id: string] }>()
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
const wrong = (key: string) =>
  problem.value?.key?.split('.').includes(key) ? problem.value.detail : undefined
const elsewhere = computed(() => {
  const keys = problem.value?.key?.split('.') ?? []
  return problem.value && !Object.keys(blank).some((key) => keys.includes(key)) ? problem.value.detail : ''
})

async function save() {
  const values = {
    ...form,
    breaker_a: Number(form.breaker_a),
    load_a: Number(form.load_a),
    conductors: Number(form.conductors),
  }
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
      <form class="grid" @submit.prevent="save">
        <v-text-field
          v-model="form.name"
          label="Name"
          autofocus
          class="wide"
          :error-messages="wrong('name')"
        />
        <v-text-field
          v-model="form.circuit"
          label="Circuit"
          placeholder="14"
          :error-messages="wrong('circuit')"
        />
        <v-select
          v-model="form.start"
          label="Starts at"
          :items="nodes"
          item-title="name"
          item-value="id"
          class="wide"
          :error-messages="wrong('start')"
        />
        <v-select v-model="form.volts" label="Volts" :items="[120, 208, 240]" />
        <v-text-field
          v-model="form.breaker_a"
          label="Breaker, A"
          inputmode="decimal"
          :error-messages="wrong('breaker_a')"
        />
        <v-text-field
          v-model="form.load_a"
          label="Load expected, A"
          inputmode="decimal"
          :error-messages="wrong('load_a')"
        />
        <v-select v-model="form.wire_size" label="Wire" :items="sizes" :error-messages="wrong('wire_size')" />
        <v-select
          v-model="form.material"
          label="Of"
          :items="[
            { title: 'copper', value: 'cu' },
            { title: 'aluminum', value: 'al' },
          ]"
        />
        <v-text-field
          v-model="form.conductors"
          label="Wires, no ground"
          inputmode="numeric"
          :error-messages="wrong('conductors')"
        />
        <div class="checks">
          <v-checkbox v-model="form.neutral" label="One is a neutral" />
          <v-checkbox v-model="form.gfci" label="GFCI upstream" />
          <v-checkbox v-model="form.nameplate" label="Motor or air conditioner, by nameplate" />
        </div>
        <p v-if="elsewhere" class="bad wide">{{ elsewhere }}</p>
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
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 12px 10px;
  margin-top: 14px;
}
.wide {
  grid-column: span 2;
}
.checks,
.buttons {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
}
.bad {
  color: var(--stop);
  margin: 0;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
