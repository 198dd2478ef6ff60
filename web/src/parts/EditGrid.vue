<script setup lang="ts" generic="Row">
import { nextTick, ref, watch } from 'vue'

import type { Problem } from '../api/client'
import MeasureField from './MeasureField.vue'

/** A column: what a cell shows, and how it is changed. `at`: the value that stands in the choice. */
export interface Column<Row> {
  key: string
  head: string
  kind: 'choice' | 'search' | 'words' | 'tape' | 'inches'
  text: (row: Row, index: number) => string
  at?: (row: Row, index: number) => unknown
  items?: readonly unknown[]
  open?: (row: Row, index: number) => boolean
  width?: string
  strong?: boolean
}

/**
 * A table changed in place: arrows go from cell to cell, Enter opens one, Esc leaves it as it was, Delete takes a row
 * out, Insert asks for one before it. `of`: whose rows they are; another one closes what is open.
 */
const props = defineProps<{
  of: string
  name: string
  rows: readonly Row[]
  columns: Column<Row>[]
  current: number | null
  change: (row: number, column: string, value: unknown) => Promise<Problem | null>
}>()
const emit = defineEmits<{ select: [row: number | null]; insert: [before: number]; drop: [row: number] }>()

const open = ref<{ row: number; column: string } | null>(null)
const wrong = ref('')
const table = ref<HTMLElement | null>(null)
watch(
  () => props.of,
  () => (open.value = null),
)

function begin(row: number, column: string) {
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
const cell = (row: number, column: string) =>
  table.value?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)
const focus = (row: number, column: string) => cell(row, column)?.focus()

async function set(value: unknown) {
  const at = open.value
  if (!at) return
  const problem = await props.change(at.row, at.column, value)
  if (problem) wrong.value = problem.detail
  else await close()
}

/** To the next cell in that direction that there is; a row may lack some. */
function go(event: KeyboardEvent, row: number, at: number, down: number, right: number) {
  event.preventDefault()
  for (let [r, c] = [row + down, at + right]; ; r += down, c += right) {
    const name = props.columns[c]?.key
    if (r < 0 || r >= props.rows.length || !name) return
    if (!cell(r, name)) continue
    emit('select', r)
    return focus(r, name)
  }
}
function key(event: KeyboardEvent, row: number, at: number) {
  if (event.key === 'ArrowDown') go(event, row, at, 1, 0)
  else if (event.key === 'ArrowUp') go(event, row, at, -1, 0)
  else if (event.key === 'ArrowRight') go(event, row, at, 0, 1)
  else if (event.key === 'ArrowLeft') go(event, row, at, 0, -1)
  else if (event.key === 'Delete') {
    event.preventDefault()
    emit('drop', row)
  } else if (event.key === 'Insert') emit('insert', row)
  else if (event.key === 'F2') begin(row, props.columns[at]?.key ?? '')
}

const pickAll = (event: FocusEvent) => (event.target as HTMLInputElement).select?.()
const isOpen = (row: number, column: string) => open.value?.row === row && open.value.column === column
</script>

<template>
  <table ref="table" class="grid num">
    <thead>
      <tr>
        <th>
          <span class="unseen">{{ name }}</span>
        </th>
        <th v-for="column in columns" :key="column.key" :style="{ width: column.width }">
          {{ column.head }}
        </th>
        <th><span class="unseen">remarks</span></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(row, index) in rows"
        :key="index"
        :class="{ here: index === current }"
        :data-row="index"
        @click="emit('select', index)"
      >
        <td class="mute">{{ index + 1 }}</td>
        <td v-for="(column, at) in columns" :key="column.key" :class="column.key">
          <template v-if="isOpen(index, column.key)">
            <v-select
              v-if="column.kind === 'choice'"
              :model-value="column.at?.(row, index)"
              :items="column.items ?? []"
              autofocus
              menu
              :error-messages="wrong"
              @update:model-value="set"
              @keydown.esc.stop="close"
            />
            <MeasureField
              v-else-if="column.kind === 'tape' || column.kind === 'inches'"
              :text="column.text(row, index)"
              :bare="column.kind === 'inches' ? 'in' : undefined"
              focused
              :refused="wrong"
              @inches="set"
              @cancel="close"
            />
            <v-autocomplete
              v-else-if="column.kind === 'search'"
              :model-value="column.at?.(row, index)"
              :items="column.items ?? []"
              autofocus
              menu
              auto-select-first
              :error-messages="wrong"
              @focus="pickAll"
              @update:model-value="$event ? set($event) : close()"
              @keydown.esc.stop="close"
            />
            <v-combobox
              v-else
              :model-value="column.text(row, index)"
              :items="column.items ?? []"
              autofocus
              menu
              :error-messages="wrong"
              @update:model-value="set($event ?? '')"
              @keydown.esc.stop="close"
            />
          </template>
          <button
            v-else-if="column.open?.(row, index) ?? true"
            type="button"
            class="plain cell"
            :class="{ strong: column.strong }"
            :data-cell="`${index}-${column.key}`"
            :aria-label="`${name} ${index + 1} ${column.head}: ${column.text(row, index) || 'none'}`"
            @click.stop="index === current ? begin(index, column.key) : emit('select', index)"
            @dblclick.stop="begin(index, column.key)"
            @keydown="key($event, index, at)"
            @keydown.enter.prevent="begin(index, column.key)"
          >
            {{ column.text(row, index) || '·' }}
          </button>
        </td>
        <td><slot name="remark" :row="row" /></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.grid {
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
  min-height: 24px;
  padding: 2px 4px;
  border-radius: 3px;
}
.cell:hover {
  background: var(--note-wash);
}
.cell.strong {
  font-weight: 600;
  white-space: nowrap;
}
@media (max-width: 700px) {
  .grid {
    min-width: 620px;
  }
}
</style>
