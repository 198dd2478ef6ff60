<script setup lang="ts">
import { computed } from 'vue'

import type { Section } from '../api/client'

/** A pipe cut through, its wires to scale as they lie. */
const props = defineProps<{ section: Section }>()
const R = computed(() => props.section.inner_in / 2)
const wall = computed(() => R.value * 0.14)
const box = computed(() => {
  const half = R.value + wall.value * 1.3
  return `${-half} ${-half} ${2 * half} ${2 * half}`
})
const FILL: Record<string, string> = {
  black: '#23282b',
  red: '#b8402c',
  blue: '#2b5c9e',
  brown: '#7a5230',
  white: '#f6f3ea',
  green: '#3f7a45',
}
</script>

<template>
  <svg class="section" :viewBox="box" role="img" :aria-label="`${section.title}, cut through, to scale`">
    <circle :r="R + wall" class="outer" />
    <circle :r="R" class="inner" />
    <circle
      v-for="(w, i) in section.wires"
      :key="i"
      :cx="w.x"
      :cy="-w.y"
      :r="w.r"
      :fill="FILL[w.colour]"
      :stroke-width="R * 0.02"
      class="wire"
    >
      <title>{{ w.label }}</title>
    </circle>
  </svg>
</template>

<style scoped>
.section {
  width: 92px;
  height: 92px;
  flex: none;
}
.outer {
  fill: var(--concrete);
  stroke: var(--ink);
  stroke-width: 0.012;
}
.inner {
  fill: #fff;
  stroke: var(--ink);
  stroke-width: 0.012;
}
.wire {
  stroke: #20262a;
}
</style>
