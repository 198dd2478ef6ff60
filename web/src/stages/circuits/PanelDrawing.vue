<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DrawnPanel } from '../../api/client'

/** A panel as it is: two columns of spaces, the leg that each meets, breakers that can be dragged to another space. */
const props = defineProps<{ panel: DrawnPanel; circuit: string | null }>()
const emit = defineEmits<{ look: [id: string]; put: [circuit: string, space: number, half: string] }>()

const ROW = 27
const W = 352
const TOP = computed(() => (props.panel.main_at === 'top' ? 66 : 20))
const height = computed(
  () => TOP.value + props.panel.rows * ROW + 66 + (props.panel.main_at === 'top' ? 0 : 46),
)
const SIDE = { left: { x: 8, w: 140 }, right: { x: 204, w: 140 } }
const at = (side: string) => SIDE[side as 'left' | 'right']
const y = (row: number) => TOP.value + row * ROW
const legs = computed(() => {
  const most = Math.max(...props.panel.legs.map((leg) => leg.amps), props.panel.main_a ?? props.panel.bus_a)
  return props.panel.legs.map((leg, i) => ({
    ...leg,
    y: y(props.panel.rows) + 14 + i * 19,
    w: (leg.amps / most) * 190,
  }))
})
const mainY = computed(() => (props.panel.main_at === 'top' ? 14 : y(props.panel.rows) + 54))
const clip = (text: string, half: boolean) =>
  text.length > (half ? 17 : 16) ? `${text.slice(0, half ? 16 : 15)}…` : text

const host = ref<SVGSVGElement | null>(null)
const drag = ref<{ circuit: string; space: number | null; x: number; y: number; moved: boolean } | null>(null)
function spot(event: PointerEvent) {
  const box = host.value?.getBoundingClientRect()
  if (!box) return { x: 0, y: 0 }
  const scale = W / box.width
  return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale }
}
function grab(event: PointerEvent, circuit: string) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  drag.value = { circuit, space: null, ...spot(event), moved: false }
}
function pull(event: PointerEvent) {
  const now = drag.value
  if (!now) return
  const to = spot(event)
  if (!now.moved && Math.hypot(to.x - now.x, to.y - now.y) < 6) return
  now.moved = true
  const row = Math.floor((to.y - TOP.value) / ROW)
  const space = row * 2 + (to.x < W / 2 ? 1 : 2)
  now.space = row >= 0 && space <= props.panel.spaces.length ? space : null
}
function drop() {
  const now = drag.value
  drag.value = null
  if (!now) return
  if (!now.moved) emit('look', now.circuit)
  else if (now.space !== null) emit('put', now.circuit, now.space, '')
}
const target = computed(() => {
  const space = drag.value?.moved ? props.panel.spaces.find((s) => s.space === drag.value?.space) : null
  return space ? { ...at(space.side), y: y(space.row) } : null
})
</script>

<template>
  <svg
    ref="host"
    :viewBox="`0 0 ${W} ${height}`"
    class="panel"
    role="img"
    :aria-label="`${panel.name} with its spaces`"
    data-testid="panel-drawing"
    @pointermove="pull"
    @pointerup="drop"
    @pointercancel="drag = null"
  >
    <rect x="1" y="1" :width="W - 2" :height="height - 2" rx="7" class="cabinet" />
    <g class="main">
      <rect x="126" :y="mainY" width="100" height="32" rx="3" />
      <text x="176" :y="mainY + 21" text-anchor="middle">
        {{ panel.main_a ? `main ${panel.main_a} A` : `lugs, bus ${panel.bus_a} A` }}
      </text>
    </g>
    <text x="10" :y="mainY + 6" class="small">{{ panel.sub ? 'sub-panel' : 'main panel' }}</text>
    <text x="10" :y="mainY + 21" class="small" :class="{ bad: panel.bonded === panel.sub }">
      bonding screw {{ panel.bonded ? 'in' : 'out' }}
    </text>
    <text x="10" :y="mainY + 36" class="small">lugs to {{ panel.lug_max }}</text>
    <text
      :x="W - 10"
      :y="mainY + 6"
      text-anchor="end"
      class="small"
      :class="{ bad: panel.neutrals > panel.neutral_holes }"
    >
      {{ panel.neutrals }} neutrals,
    </text>
    <text :x="W - 10" :y="mainY + 21" text-anchor="end" class="small">{{ panel.neutral_holes }} holes</text>
    <text
      :x="W - 10"
      :y="mainY + 36"
      text-anchor="end"
      class="small"
      :class="{ bad: panel.sub && !panel.ground_bar }"
    >
      {{ panel.ground_bar ? 'own ground bar' : 'no ground bar' }}
    </text>
    <g v-for="s in panel.spaces" :key="s.space">
      <rect
        v-if="s.free"
        :x="at(s.side).x"
        :y="y(s.row) + 1"
        :width="at(s.side).w"
        :height="ROW - 3"
        rx="2"
        class="free"
      />
      <text
        v-if="s.free"
        :x="at(s.side).x + at(s.side).w / 2"
        :y="y(s.row) + 17"
        text-anchor="middle"
        class="small"
      >
        {{ s.space }} free{{ s.tandem ? ', tandem' : '' }}
      </text>
      <g v-if="s.side === 'left'">
        <rect x="148" :y="y(s.row) + 7" width="56" height="11" :class="`leg${s.leg}`" />
        <text x="176" :y="y(s.row) + 16" text-anchor="middle" class="leg">{{ s.leg }}</text>
      </g>
    </g>
    <g
      v-for="b in panel.breakers"
      :key="b.circuit"
      class="breaker"
      :class="[b.verdict, { here: b.circuit === circuit }]"
      :data-breaker="b.label"
      tabindex="0"
      role="button"
      :aria-label="`${b.label} ${b.name}, ${b.amps} ampere`"
      @pointerdown="grab($event, b.circuit)"
      @keydown.enter="emit('look', b.circuit)"
    >
      <rect
        :x="at(b.side).x"
        :y="y(b.row) + 1 + (b.half === 'b' ? (ROW - 3) / 2 : 0)"
        :width="at(b.side).w"
        :height="b.half ? (ROW - 3) / 2 : b.rows * ROW - 3"
        rx="2"
        class="body"
      />
      <rect
        :x="b.side === 'left' ? at(b.side).x : at(b.side).x + at(b.side).w - 4"
        :y="y(b.row) + 1 + (b.half === 'b' ? (ROW - 3) / 2 : 0)"
        width="4"
        :height="b.half ? (ROW - 3) / 2 : b.rows * ROW - 3"
        class="mark"
      />
      <template v-if="!b.half">
        <rect
          :x="b.side === 'left' ? at(b.side).x + 114 : at(b.side).x + 4"
          :y="y(b.row) + 4"
          width="23"
          :height="b.rows * ROW - 9"
          rx="2"
          class="handle"
        />
        <text
          :x="b.side === 'left' ? at(b.side).x + 125.5 : at(b.side).x + 15.5"
          :y="y(b.row) + (b.rows * ROW) / 2 + 4"
          text-anchor="middle"
          class="amps"
        >
          {{ b.amps }}
        </text>
      </template>
      <text
        :x="b.side === 'left' ? at(b.side).x + 9 : at(b.side).x + (b.half ? 9 : 32)"
        :y="y(b.row) + (b.half === 'b' ? 23 : b.half ? 11 : (b.rows * ROW) / 2 + 4)"
        :class="{ tiny: b.half }"
      >
        {{ clip(`${b.space}${b.half} ${b.name}`, !!b.half) }}
      </text>
      <text
        v-if="b.protection !== 'plain' && !b.half && b.rows === 1"
        :x="b.side === 'left' ? at(b.side).x + 110 : at(b.side).x + 134"
        :y="y(b.row) + 8.5"
        text-anchor="end"
        class="kind"
      >
        {{ { gfci: 'GF', afci: 'AF', dual: 'AF·GF' }[b.protection] }}
      </text>
    </g>
    <rect
      v-if="target"
      :x="target.x"
      :y="target.y + 1"
      :width="target.w"
      :height="ROW - 3"
      rx="2"
      class="target"
    />
    <g v-for="leg in legs" :key="leg.leg">
      <text x="10" :y="leg.y + 11" class="small">
        leg {{ leg.leg }}, {{ leg.amps.toFixed(0) }} A expected
      </text>
      <rect x="150" :y="leg.y" width="190" height="13" class="bar" />
      <rect x="150" :y="leg.y" :width="leg.w" height="13" :class="`leg${leg.leg}`" />
    </g>
  </svg>
</template>

<style scoped>
.panel {
  display: block;
  width: 100%;
  max-width: 400px;
  font-family: var(--num);
  touch-action: pan-y;
}
.cabinet {
  fill: color-mix(in srgb, var(--concrete) 62%, var(--card));
  stroke: var(--ink);
  stroke-width: 1.8;
}
.main rect,
.handle {
  fill: #20262a;
}
.main text,
.amps {
  fill: #fcfbf7;
  font-size: 13px;
  font-weight: 600;
}
text {
  fill: var(--ink);
  font-size: 12.5px;
  font-weight: 600;
  pointer-events: none;
}
.small {
  font-size: 11.5px;
  font-weight: 500;
}
.tiny {
  font-size: 10.5px;
}
.kind {
  font-size: 8.5px;
  fill: var(--mute);
}
.small.bad {
  fill: var(--stop);
  font-weight: 600;
}
.free {
  fill: none;
  stroke: var(--mute);
  stroke-dasharray: 4 3;
}
.legA {
  fill: #2b5c9e;
}
.legB {
  fill: #a8845c;
}
.leg {
  fill: #fff;
  font-size: 10px;
}
.bar {
  fill: none;
  stroke: var(--ink);
}
.breaker {
  cursor: grab;
}
.body {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.here .body {
  stroke: var(--chalk);
  stroke-width: 2.6;
}
.mark {
  fill: var(--fine);
}
.stop .mark {
  fill: var(--stop);
}
.check .mark {
  fill: var(--check-mark);
}
.target {
  fill: color-mix(in srgb, var(--chalk) 25%, transparent);
  stroke: var(--chalk);
  stroke-width: 2;
}
</style>
