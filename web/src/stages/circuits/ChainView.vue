<script setup lang="ts">
import { computed } from 'vue'

import type { ChainRow, CircuitPlan } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Thing } from '../../parts/picture/things'

/** A circuit's boxes in the order the cable goes, branches drawn aside, with each cable and the drop at each box. */
const props = defineProps<{ plan: CircuitPlan; panel: string }>()
const emit = defineEmits<{ pick: [row: ChainRow] }>()

const ROW = 34
/** Depth first, so that a branch stands under the box that it leaves; its column is how many branches it is in. */
const rows = computed(() => {
  const found: (ChainRow & { column: number; parent: number })[] = []
  const walk = (after: string | null, column: number, parent: number) => {
    const own = props.plan.chain.filter((row) => row.after === after)
    own.forEach((row, i) => {
      const at = found.length
      found.push({ ...row, column: column + (own.length > 1 && i < own.length - 1 ? 1 : 0), parent })
      walk(row.box, found[at]?.column ?? 0, at)
    })
  }
  walk(null, 0, -1)
  return found
})
const height = computed(() => (rows.value.length + 1) * ROW + 14)
/** How long the cable is; of one that nobody measured that it was there, or is not known. */
const cable = (row: { length_text: string; length_in?: number | null; cable: string }) =>
  row.length_in == null ? `${row.cable}, ${row.length_text}` : `${row.length_text} of ${row.cable}`
const y = (index: number) => 20 + (index + 1) * ROW
const x = (column: number) => 16 + column * 22
const things = computed<Thing[]>(() =>
  rows.value.map((row, i) => ({
    id: row.box,
    kind: 'row',
    name: `${row.name}, ${row.kind}, ${cable(row)}: ${row.words}, ground. ${
      row.drop_text ? `Drop ${row.drop_text}. ` : ''
    }Protected: ${row.protected || 'no'}`,
    x: x(row.column) - 10,
    y: y(i) - 15,
    w: 344 - x(row.column),
    h: ROW - 4,
    mark: row.name,
  })),
)
function pick(thing: Thing) {
  const row = rows.value.find((item) => item.box === thing.id)
  if (row) emit('pick', row)
}
const limit = 3
const bar = (percent: number) => Math.min(percent / limit, 1.25) * 84
const JACKET: Record<string, string> = { '14': '#b9b4a4', '12': '#e0b02a', '10': '#d9822b' }
const tone = (cable: string) => JACKET[cable.split('-')[0] ?? ''] ?? '#4a4f52'
</script>

<template>
  <SvgPicture
    class="chain"
    fluid
    :label="`Chain of ${plan.summary.name}`"
    testid="chain"
    :width="344"
    :height="height"
    :things="things"
    @pick="pick"
  >
    <text x="344" y="12" text-anchor="end" class="mute">drop as loaded, limit {{ limit }} %</text>
    <g>
      <rect x="7" y="11" width="18" height="18" rx="2" class="source" />
      <text x="34" y="25">{{ panel }}</text>
    </g>
    <g v-for="(row, i) in rows" :key="row.box">
      <path
        :d="`M${x(row.parent < 0 ? 0 : (rows[row.parent]?.column ?? 0))} ${row.parent < 0 ? 29 : y(row.parent) + 9}V${y(i)}H${x(row.column)}`"
        :stroke="tone(row.cable)"
        class="cable"
      />
    </g>
    <g v-for="(row, i) in rows" :key="`b${row.box}`" class="row" :data-chain="row.name">
      <rect
        :x="x(row.column) - 9"
        :y="y(i) - 9"
        width="18"
        height="18"
        rx="2"
        class="box"
        :class="{ over: row.over }"
      />
      <text :x="x(row.column) + 16" :y="y(i) - 1">
        {{ row.name }}
        <tspan class="mute" dx="6">{{ row.kind }}</tspan>
      </text>
      <text :x="x(row.column) + 16" :y="y(i) + 12" class="mute">
        {{ cable(row) }}{{ row.room ? ` · ${row.room}` : '' }}
      </text>
      <template v-if="row.drop_percent !== null">
        <rect x="222" :y="y(i) - 6" width="84" height="12" rx="6" class="tube" />
        <rect
          x="222"
          :y="y(i) - 6"
          :width="bar(row.drop_percent)"
          height="12"
          rx="6"
          class="fluid"
          :class="{ over: row.over }"
        />
        <path :d="`M306 ${y(i) - 8}v16`" class="line" />
        <text x="344" :y="y(i) + 4" text-anchor="end" :class="{ bad: row.over }">{{ row.drop_text }}</text>
      </template>
    </g>
    <text v-if="!rows.length" x="34" y="56" class="mute">
      No box on it yet: type `chain` and the boxes, or lasso them.
    </text>
  </SvgPicture>
</template>

<style scoped>
.chain {
  display: block;
  width: 100%;
}
text {
  font-size: 13.5px;
  font-weight: 600;
  fill: var(--ink);
}
.mute {
  fill: var(--mute);
  font-weight: 500;
  font-size: 12px;
}
.source {
  fill: #5d666c;
  stroke: var(--ink);
}
.cable {
  fill: none;
  stroke-width: 4;
}
.box {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.box.over {
  stroke: var(--stop);
}
.tube {
  fill: color-mix(in srgb, var(--lime) 25%, var(--card));
  stroke: var(--lime-deep);
}
.fluid {
  fill: var(--lime);
}
.fluid.over {
  fill: var(--stop);
}
.line {
  stroke: #c33b22;
  stroke-width: 2;
}
.bad {
  fill: var(--stop);
}
</style>
