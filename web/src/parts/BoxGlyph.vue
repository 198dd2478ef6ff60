<script setup lang="ts">
import { computed } from 'vue'

/** A box on a plan, as building drawings show it: its kind by shape, drawn off the wall into the room. */
const props = defineProps<{
  kind: string
  ways: number
  x: number
  y: number
  look: [number, number]
  name: string
  picked?: boolean
  faint?: boolean
  small?: boolean
}>()

const OFF = 8
const at = computed(() => ({ x: props.x + props.look[0] * OFF, y: props.y - props.look[1] * OFF }))
const turn = computed(() => (Math.atan2(-props.look[1], props.look[0]) * 180) / Math.PI)
</script>

<template>
  <g class="glyph" :class="[kind, { picked, faint }]" :transform="`translate(${at.x} ${at.y})`">
    <title>{{ name }}</title>
    <circle :r="small ? 7 : 15" class="catch" />
    <circle v-if="small && kind !== 'panel'" r="3" />
    <g v-else-if="kind === 'panel'" :transform="`rotate(${turn})`">
      <rect x="-7" y="-15" width="10" height="30" class="solid" />
    </g>
    <g v-else-if="kind === 'switch'">
      <circle r="7.5" />
      <text y="4" text-anchor="middle">{{ ways > 2 ? ways : 'S' }}</text>
    </g>
    <g v-else-if="kind === 'light'">
      <circle r="7.5" />
      <path d="M-5.3-5.3L5.3 5.3M-5.3 5.3L5.3-5.3" />
    </g>
    <g v-else-if="kind === 'fan'">
      <circle r="7.5" />
      <path d="M0-7.5C5-3 5-3 0 0S-5 3 0 7.5M-7.5 0C-3 5-3 5 0 0S3-5 7.5 0" />
    </g>
    <g v-else-if="kind === 'smoke'">
      <circle r="7.5" />
      <circle r="3" class="solid" />
    </g>
    <g v-else-if="kind === 'receptacle' || kind === 'device'" :transform="`rotate(${turn})`">
      <circle r="6.5" />
      <path d="M-9-2.4H6M-9 2.4H6" />
    </g>
    <g v-else-if="kind === 'equipment'">
      <path d="M0-8L8 7H-8Z" class="shape" />
    </g>
    <g v-else>
      <rect x="-6" y="-6" width="12" height="12" class="shape" />
      <path v-if="kind === 'disconnect'" d="M-3 3L4-4" />
    </g>
  </g>
</template>

<style scoped>
.glyph {
  cursor: grab;
}
.catch {
  fill: transparent;
  stroke: none;
}
circle,
path,
.shape {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.5;
}
path {
  fill: none;
}
.shape {
  fill: var(--card);
}
.solid {
  fill: var(--ink);
  stroke: var(--ink);
}
text {
  font: 600 11px var(--num);
  fill: var(--ink);
}
.faint {
  opacity: 0.45;
}
.picked circle:not(.catch):not(.solid),
.picked path,
.picked .shape {
  stroke: var(--chalk);
  stroke-width: 2.6;
}
.picked .catch {
  fill: color-mix(in srgb, var(--chalk) 18%, transparent);
}
</style>
