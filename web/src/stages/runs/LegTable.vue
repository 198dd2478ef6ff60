<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Leg, LegPlan, Problem, Vocabulary } from '../../api/client'
import EditGrid, { type Column } from '../../parts/EditGrid.vue'

/** The legs of a way, changed in place. */
const props = defineProps<{
  legs: LegPlan[]
  raw: readonly Leg[]
  leg: number | null
  wayId: string
  words: Vocabulary | null
  names: string[]
  edit: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ select: [leg: number | null]; insert: [before: number] }>()

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

function made(plan: LegPlan, at: number) {
  const leg = props.raw[at]
  const cable = props.words?.methods.find((m) => m.key === leg?.method)?.kind !== 'raceway'
  const name = cable ? `${leg?.size} ${plan.method_name}` : `${plan.method_name} ${leg?.size}`
  return leg?.sleeve ? `${name}, sleeve` : name
}
const columns = computed<Column<LegPlan>[]>(() => [
  {
    key: 'go',
    head: 'go',
    kind: 'choice',
    text: (_, at) => props.raw[at]?.go ?? '',
    at: (_, at) => props.raw[at]?.go,
    items: props.words?.go ?? [],
    width: '66px',
  },
  { key: 'tape', head: 'tape', kind: 'tape', text: (plan) => plan.length_text, width: '96px', strong: true },
  {
    key: 'where',
    head: 'where',
    kind: 'search',
    text: (plan) => plan.place_title,
    at: (_, at) => props.raw[at]?.place,
    items: places.value,
  },
  {
    key: 'in',
    head: 'in',
    kind: 'search',
    text: made,
    at: (_, at) => `${props.raw[at]?.method}|${props.raw[at]?.size}`,
    items: methods.value,
  },
  {
    key: 'depth',
    head: 'deep',
    kind: 'inches',
    text: (plan) => plan.depth_text,
    open: (plan, at) => buried.value.has(props.raw[at]?.place ?? '') || !!plan.depth_text,
    width: '70px',
  },
  {
    key: 'end',
    head: 'ends at',
    kind: 'words',
    text: (plan) => plan.end_name,
    items: ['', 'LB', 'body', 'coupling', ...props.names],
  },
])

/** How each column is said as a change of the leg. */
const SET: Record<string, (value: unknown) => Record<string, unknown>> = {
  go: (go) => ({ go }),
  tape: (length_in) => ({ length_in }),
  where: (place) => ({ place }),
  depth: (depth_in) => ({ depth_in }),
  in: (value) => {
    const [method, size] = String(value).split('|')
    return { method, size }
  },
}
function change(leg: number, column: string, value: unknown) {
  const way = props.wayId
  const set = SET[column]?.(value)
  return props.edit([set ? { op: 'set_leg', way, leg, set } : { op: 'end_leg', way, leg, to: value }])
}
const drop = (leg: number) => props.edit([{ op: 'drop_leg', way: props.wayId, leg }], `remove leg ${leg + 1}`)
</script>

<template>
  <EditGrid
    data-testid="legs"
    name="leg"
    :of="wayId"
    :rows="legs"
    :columns="columns"
    :current="leg"
    :change="change"
    @select="emit('select', $event)"
    @insert="emit('insert', $event)"
    @drop="drop"
  >
    <template #remark="{ row }">
      <span class="remark" :class="row.verdict">{{ row.remark }}</span>
    </template>
  </EditGrid>
</template>

<style scoped>
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
