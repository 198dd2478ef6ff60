<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { Edit, Leg, LegPlan, Problem, Vocabulary } from '../../api/client'
import MeasureField from '../../parts/MeasureField.vue'

/**
 * The legs, changed in place: arrows move between cells, Enter opens one, Esc leaves it as it was,
 * Delete takes a leg out, Insert asks for one before it.
 */
const props = defineProps<{
  legs: LegPlan[]
  raw: readonly Leg[]
  leg: number | null
  runId: string
  words: Vocabulary | null
  names: string[]
  edit: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ select: [leg: number | null]; insert: [before: number] }>()

const COLUMNS = ['go', 'tape', 'where', 'in', 'depth', 'end'] as const
type Column = (typeof COLUMNS)[number]
const open = ref<{ row: number; column: Column } | null>(null)
const wrong = ref('')
const table = ref<HTMLElement | null>(null)

watch(
  () => props.runId,
  () => (open.value = null),
)

const methods = computed(() =>
  (props.words?.methods ?? []).flatMap((m) =>
    m.sizes.map((size) => ({
      title: m.kind === 'raceway' ? `${m.name} ${size}` : `${size} ${m.name}`,
      value: `${m.key}|${size}`,
    })),
  ),
)
const places = computed(() => (props.words?.places ?? []).map((p) => ({ title: p.title, value: p.key })))
const buried = computed(() => new Set((props.words?.places ?? []).filter((p) => p.buried).map((p) => p.key)))
const ends = computed(() => ['', 'LB', 'body', 'coupling', ...props.names])

function text(row: number, column: Column): string {
  const [plan, leg] = [props.legs[row], props.raw[row]]
  if (!plan || !leg) return ''
  if (column === 'go') return leg.go
  if (column === 'tape') return plan.length_text
  if (column === 'where') return plan.place_title
  if (column === 'in') {
    const cable = props.words?.methods.find((m) => m.key === leg.method)?.kind !== 'raceway'
    const name = cable ? `${leg.size} ${plan.method_name}` : `${plan.method_name} ${leg.size}`
    return leg.sleeve ? `${name}, sleeve` : name
  }
  if (column === 'depth') return plan.depth_text
  return plan.end_name
}

function begin(row: number, column: Column) {
  wrong.value = ''
  emit('select', row)
  open.value = { row, column }
}

async function close() {
  const was = open.value
  open.value = null
  await nextTick()
  if (was) focus(was.row, was.column)
}

function focus(row: number, column: Column) {
  table.value?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)?.focus()
}

async function set(values: Record<string, unknown>) {
  const at = open.value
  if (!at) return
  const edits: Edit[] =
    at.column === 'end'
      ? [{ op: 'end_leg', run: props.runId, leg: at.row, to: values.to }]
      : [{ op: 'set_leg', run: props.runId, leg: at.row, set: values }]
  const problem = await props.edit(edits)
  if (problem) wrong.value = problem.detail
  else await close()
}

function setMethod(value: string | null) {
  if (!value) return close()
  const [method, size] = value.split('|')
  return set({ method, size })
}

function move(event: KeyboardEvent, row: number, column: Column) {
  const at = COLUMNS.indexOf(column)
  const to = (r: number, c: number) => {
    event.preventDefault()
    const [rows, name] = [props.legs.length, COLUMNS[c]]
    if (r >= 0 && r < rows && name) {
      emit('select', r)
      focus(r, name)
    }
  }
  if (event.key === 'ArrowDown') to(row + 1, at)
  else if (event.key === 'ArrowUp') to(row - 1, at)
  else if (event.key === 'ArrowRight') to(row, at + 1)
  else if (event.key === 'ArrowLeft') to(row, at - 1)
  else if (event.key === 'Delete') {
    event.preventDefault()
    void props.edit([{ op: 'drop_leg', run: props.runId, leg: row }], `remove leg ${row + 1}`)
  } else if (event.key === 'Insert') emit('insert', row)
  else if (event.key === 'F2') begin(row, column)
}

const pickAll = (event: FocusEvent) => (event.target as HTMLInputElement).select?.()
const isOpen = (row: number, column: Column) => open.value?.row === row && open.value.column === column
</script>

<template>
  <table ref="table" class="legs num" data-testid="legs">
    <thead>
      <tr>
        <th><span class="unseen">leg</span></th>
        <th>go</th>
        <th>tape</th>
        <th>where</th>
        <th>in</th>
        <th>deep</th>
        <th>ends at</th>
        <th><span class="unseen">what holds it, what it lacks</span></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(plan, row) in legs"
        :key="row"
        :class="{ here: row === leg }"
        :data-leg="row"
        @click="emit('select', row)"
      >
        <td class="mute">{{ row + 1 }}</td>
        <td v-for="column in COLUMNS" :key="column" :class="column">
          <template v-if="isOpen(row, column)">
            <v-select
              v-if="column === 'go'"
              :model-value="raw[row]?.go"
              :items="words?.go ?? []"
              autofocus
              menu
              :error-messages="wrong"
              @update:model-value="set({ go: $event })"
              @keydown.esc.stop="close"
            />
            <MeasureField
              v-else-if="column === 'tape' || column === 'depth'"
              :text="column === 'tape' ? plan.length_text : plan.depth_text"
              :bare="column === 'depth' ? 'in' : undefined"
              focused
              @inches="set({ [column === 'tape' ? 'length_in' : 'depth_in']: $event })"
              @cancel="close"
            />
            <v-autocomplete
              v-else-if="column === 'where'"
              :model-value="raw[row]?.place"
              :items="places"
              autofocus
              menu
              auto-select-first
              @focus="pickAll"
              :error-messages="wrong"
              @update:model-value="set({ place: $event })"
              @keydown.esc.stop="close"
            />
            <v-autocomplete
              v-else-if="column === 'in'"
              :model-value="`${raw[row]?.method}|${raw[row]?.size}`"
              :items="methods"
              autofocus
              menu
              auto-select-first
              @focus="pickAll"
              :error-messages="wrong"
              @update:model-value="setMethod"
              @keydown.esc.stop="close"
            />
            <v-combobox
              v-else
              :model-value="plan.end_name"
              :items="ends"
              autofocus
              menu
              :error-messages="wrong"
              @update:model-value="set({ to: $event ?? '' })"
              @keydown.esc.stop="close"
            />
          </template>
          <button
            v-else-if="column !== 'depth' || buried.has(raw[row]?.place ?? '') || plan.depth_text"
            type="button"
            class="plain cell"
            :data-cell="`${row}-${column}`"
            :aria-label="`leg ${row + 1} ${column}: ${text(row, column) || 'none'}`"
            @click.stop="row === leg ? begin(row, column) : emit('select', row)"
            @dblclick.stop="begin(row, column)"
            @keydown="move($event, row, column)"
            @keydown.enter.prevent="begin(row, column)"
          >
            {{ text(row, column) || '·' }}
          </button>
        </td>
        <td class="remark" :class="plan.verdict">{{ plan.remark }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.legs {
  width: 100%;
  border-collapse: collapse;
  font-size: 15.5px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--mute);
  padding: 4px 6px 3px;
  font-size: 14px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 1px 3px;
  height: 27px;
}
tr.here td {
  background: var(--card);
}
.cell {
  display: block;
  width: 100%;
  min-height: 22px;
  padding: 2px 4px;
  border-radius: 3px;
}
.cell:hover {
  background: var(--note-wash);
}
.tape .cell,
.depth .cell {
  white-space: nowrap;
}
.tape .cell {
  font-weight: 600;
}
td.go {
  width: 66px;
}
td.tape {
  width: 96px;
}
td.depth {
  width: 70px;
}
@media (max-width: 700px) {
  .legs {
    min-width: 620px;
  }
}
.remark {
  color: var(--mute);
  font-size: 14.5px;
}
.remark.stop {
  color: var(--stop);
  font-weight: 600;
}
.remark.check {
  color: var(--check);
  font-weight: 600;
}
</style>
