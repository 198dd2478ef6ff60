<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Edit, Problem } from '../api/client'
import type { Field, Part } from '../parts/fields/field'
import PartFields from '../parts/fields/PartFields.vue'
import { STRUCTURE_FIELDS } from '../stages/walls/wallFields'
import { useJob } from '../stores/job'

/** What stands where: structures, panels, boxes. Heights in inches over the structure's main floor. */
const store = useJob()
const shown = defineModel<boolean>({ required: true })
const problem = ref<Problem | null>(null)
const kind = ref<'structure' | 'panel' | 'box'>('box')
const form = ref<Part>({})

const structures = computed(() => (store.job?.structures ?? []).map((s) => ({ title: s.name, value: s.id })))
const rows = computed(() => {
  const named = new Map(structures.value.map((s) => [s.value, s.title]))
  return [
    ...(store.job?.structures ?? []).map((s) => ({
      kind: 'structure' as const,
      id: s.id,
      name: s.name,
      text: `${s.kind}, ground ${s.grade_in}″ from the floor`,
    })),
    ...(store.job?.panels ?? []).map((p) => ({
      kind: 'panel' as const,
      id: p.id,
      name: p.name,
      text: `in ${named.get(p.structure)}, lower edge ${p.height_in}″ up`,
    })),
    ...(store.job?.boxes ?? []).map((b) => ({
      kind: 'box' as const,
      id: b.id,
      name: b.name,
      text: `${b.kind} in ${named.get(b.structure)}, ${b.height_in}″ up${b.clamps ? '' : ', no clamps'}`,
    })),
  ]
})

watch(
  [shown, kind],
  () => {
    problem.value = null
    if (!structures.value.length) kind.value = 'structure'
    const home = structures.value[0]?.value
    form.value =
      kind.value === 'structure'
        ? { name: '', kind: 'house', grade_in: -18 }
        : kind.value === 'panel'
          ? { name: '', structure: home, height_in: 48 }
          : { name: '', structure: home, kind: 'junction', height_in: 16, clamps: true }
  },
  { immediate: true },
)
const HOME: Field[] = [
  { name: 'structure', label: 'In', list: 'structures' },
  { name: 'height_in', label: 'Height', as: 'inches' },
]
const NAME: Field = { name: 'name', label: 'Name' }
const FIELDS: Record<'structure' | 'panel' | 'box', Field[]> = {
  structure: STRUCTURE_FIELDS,
  panel: [NAME, ...HOME],
  box: [NAME, ...HOME, { name: 'kind', label: 'Kind' }, { name: 'clamps', label: 'Has clamps' }],
}
function set(values: Part) {
  form.value = { ...form.value, ...values }
  return null
}

async function add() {
  const item: Record<string, unknown> = { ...form.value, id: `${kind.value[0]}${Date.now().toString(36)}` }
  if (kind.value === 'structure') {
    item.levels = [{ id: `${item.id}-floor`, name: 'Main floor', kind: 'floor', height_in: 96 }]
  }
  const edit: Edit = { op: 'add', kind: kind.value, item }
  problem.value = await store.edit([edit], `add ${kind.value} ${item.name}`)
  if (!problem.value) form.value.name = ''
}

async function drop(row: { kind: string; id: string; name: string }) {
  problem.value = await store.edit([{ op: 'drop', kind: row.kind, id: row.id }], `remove ${row.name}`)
}
</script>

<template>
  <v-dialog aria-label="Structures, panels, boxes" v-model="shown" max-width="640">
    <v-card class="pa-5" data-testid="site">
      <h2>Structures, panels, boxes</h2>
      <ul>
        <li v-for="row in rows" :key="row.id">
          <b class="num">{{ row.name }}</b>
          <span class="mute">{{ row.text }}</span>
          <v-btn size="x-small" variant="text" :aria-label="`Remove ${row.name}`" @click="drop(row)"
            >Remove</v-btn
          >
        </li>
      </ul>
      <p v-if="problem" class="bad">{{ problem.detail }}</p>
      <form class="grid" @submit.prevent="add">
        <v-select
          v-model="kind"
          label="Add a"
          :items="structures.length ? ['structure', 'panel', 'box'] : ['structure']"
        />
        <PartFields
          :key="kind"
          class="all"
          :kind="kind"
          :fields="FIELDS[kind]"
          :part="form"
          :set="set"
          :lists="{ structures }"
          :refused="problem"
        />
        <v-btn type="submit" variant="flat" color="ink">Add</v-btn>
      </form>
      <div class="d-flex justify-end mt-3"><v-btn variant="text" @click="shown = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 10px 0;
  max-height: 300px;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 130px 1fr auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 3px 0;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.all {
  grid-column: 1 / -1;
}
.bad {
  color: var(--stop);
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr 1fr;
  }
  li {
    grid-template-columns: 90px 1fr auto;
  }
}
</style>
