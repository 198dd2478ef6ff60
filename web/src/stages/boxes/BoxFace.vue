<script setup lang="ts">
import { computed } from 'vue'

import type { BoxPlan } from '../../api/client'

/** A box from the front: its device, and each cable at the edge where it enters. Power in at the bottom. */
const props = defineProps<{ box: BoxPlan; gangs: number }>()

const feeds = computed(() => props.box.entering.filter((item) => item.side === 'feed' && !item.inside))
const loads = computed(() => props.box.entering.filter((item) => item.side !== 'feed' && !item.inside))
const W = computed(() => 44 + 34 * (props.gangs - 1))
const left = computed(() => 140 - W.value / 2)
const JACKET: Record<string, string> = { '14': '#f4f2ec', '12': '#e0b02a', '10': '#d9822b' }
const tone = (size: string) => JACKET[size] ?? '#4a4f52'
const spread = (count: number, index: number) => left.value + (W.value / (count + 1)) * (index + 1)
const words = (item: { other: string; circuit: string; side: string }) =>
  `${item.side === 'feed' ? 'power in' : item.side === 'through' ? 'passes to' : 'to'} ${item.other}${item.circuit ? ` · ${item.circuit}` : ''}`
</script>

<template>
  <svg viewBox="0 0 280 148" role="img" :aria-label="`${box.name} from the front`" class="face">
    <g v-for="(item, i) in loads" :key="`l${i}`">
      <path :d="`M${spread(loads.length, i)} 40V8`" :stroke="tone(item.size)" class="cable" />
      <text
        :x="i % 2 ? spread(loads.length, i) - 9 : spread(loads.length, i) + 9"
        :y="14 + 13 * Math.floor(i / 2)"
        :text-anchor="i % 2 ? 'end' : 'start'"
      >
        {{ words(item) }}
      </text>
    </g>
    <g v-for="(item, i) in feeds" :key="`f${i}`">
      <path :d="`M${spread(feeds.length, i)} 108V140`" :stroke="tone(item.size)" class="cable" />
      <text
        :x="i % 2 ? spread(feeds.length, i) - 9 : spread(feeds.length, i) + 9"
        :y="140 - 13 * Math.floor(i / 2)"
        :text-anchor="i % 2 ? 'end' : 'start'"
      >
        {{ words(item) }}
      </text>
    </g>
    <rect :x="left" y="36" :width="W" height="76" rx="4" class="body" />
    <g v-for="n in gangs" :key="n" :transform="`translate(${left + 22 + 34 * (n - 1)} 74)`" class="device">
      <template v-if="box.kind === 'receptacle' || box.kind === 'device'">
        <g v-for="dy in [-16, 16]" :key="dy">
          <circle :cy="dy" r="11" />
          <path :d="`M-3.5 ${dy - 4}v6M3.5 ${dy - 4}v6`" />
        </g>
      </template>
      <template v-else-if="box.kind === 'switch'">
        <rect x="-6" y="-17" width="12" height="34" rx="2" />
        <path d="M-6 0H6" />
      </template>
      <template v-else-if="n === 1">
        <circle r="14" />
        <path v-if="box.kind === 'light'" d="M-10-10L10 10M-10 10L10-10" />
      </template>
    </g>
  </svg>
</template>

<style scoped>
.face {
  display: block;
  width: 100%;
  max-height: 158px;
  margin: 2px 0 6px;
}
.cable {
  stroke-width: 8;
  fill: none;
  paint-order: stroke;
}
.body,
.device circle,
.device rect {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.device path {
  stroke: var(--ink);
  stroke-width: 1.8;
  fill: none;
}
text {
  font: 600 13px var(--num);
  fill: var(--ink);
}
</style>
