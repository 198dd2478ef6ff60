<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DrawnPanel } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Spot, Steps, Thing } from '../../parts/picture/things'
import { wrapped } from './breakerText'

/** A panel as it is: two columns of spaces, the leg that each meets, breakers that can be dragged to another space. */
const props = defineProps<{ panel: DrawnPanel; circuit: string | null }>()
const emit = defineEmits<{
  look: [id: string]
  put: [circuit: string, space: number, half: string]
  nudge: [by: number]
}>()

const ROW = 32
const W = 352
const SIDE_W = 151
const HANDLE = 34
const TOP = computed(() => (props.panel.main_at === 'top' ? 66 : 20))
const height = computed(
  () => TOP.value + props.panel.rows * ROW + 66 + (props.panel.main_at === 'top' ? 0 : 46),
)
const left = (side: string) => (side === 'left' ? 8 : W - 8 - SIDE_W)
const y = (row: number) => TOP.value + row * ROW
type Breaker = DrawnPanel['breakers'][number]
const half = (ROW - 3) / 2
const frame = (b: Breaker) => ({
  x: left(b.side),
  y: y(b.row) + 1 + (b.half === 'b' ? half : 0),
  width: SIDE_W,
  height: b.half ? half : b.rows * ROW - 3,
})
const legs = computed(() => {
  const most = Math.max(...props.panel.legs.map((leg) => leg.amps), props.panel.main_a ?? props.panel.bus_a)
  return props.panel.legs.map((leg, i) => ({
    ...leg,
    y: y(props.panel.rows) + 14 + i * 21,
    w: (leg.amps / most) * 190,
  }))
})
const mainY = computed(() => (props.panel.main_at === 'top' ? 14 : y(props.panel.rows) + 58))
const KINDS: Record<string, string> = { gfci: 'GF', afci: 'AF', dual: 'AF·GF' }
const PROTECTED: Record<string, string> = {
  gfci: ', ground-fault', afci: ', arc-fault', dual: ', arc-fault and ground-fault',
} // prettier-ignore
/** The name in its own room beside the handle, on as many lines as the breaker has. */
const drawn = computed(() =>
  props.panel.breakers.map((b) => {
    const box = frame(b)
    const text = wrapped(
      `${b.space}${b.half} ${b.name}`,
      SIDE_W - (b.half ? 14 : HANDLE + 12),
      b.half ? 1 : 2,
    )
    const middle = box.y + box.height / 2
    return {
      ...b,
      box,
      handle: b.side === 'left' ? box.x + SIDE_W - HANDLE - 2 : box.x + 2,
      textX: b.side === 'left' || b.half ? box.x + 9 : box.x + HANDLE + 8,
      lines: text.map((line, i) => ({ line, y: middle + 4.5 + (i - (text.length - 1) / 2) * 13 })),
      middle,
      kind: KINDS[b.protection] ?? '',
    }
  }),
)
const things = computed<Thing[]>(() =>
  drawn.value.map((b) => ({
    id: b.circuit,
    kind: 'breaker',
    name: `${b.label} ${b.name}, ${b.amps} A${PROTECTED[b.protection] ?? ''}${b.verdict === 'fine' ? '' : `, ${b.verdict}`}`,
    x: b.box.x,
    y: b.box.y,
    w: b.box.width,
    h: b.box.height,
    drags: true,
    picked: b.circuit === props.circuit,
    mark: b.label,
  })),
)

const space = ref<number | null>(null)
const dragged = ref('')
function pull(thing: Thing, to: Spot) {
  dragged.value = thing.id
  const row = Math.floor((to.y - TOP.value) / ROW)
  const found = row * 2 + (to.x < W / 2 ? 1 : 2)
  space.value = row >= 0 && found <= props.panel.spaces.length ? found : null
}
function drop(thing: Thing) {
  if (space.value !== null) emit('put', thing.id, space.value, '')
  space.value = null
}
function nudge(thing: Thing, by: Steps) {
  if (thing.id !== props.circuit) emit('look', thing.id)
  else emit('nudge', by.right - 2 * by.up)
}
const target = computed(() => {
  const found = props.panel.spaces.find((s) => s.space === space.value)
  return found ? { x: left(found.side), y: y(found.row) + 1 } : null
})
</script>

<template>
  <SvgPicture
    class="panel"
    fluid
    :label="`${panel.name} with its spaces`"
    testid="panel-drawing"
    :width="W"
    :height="height"
    :things="things"
    @pick="emit('look', $event.id)"
    @pull="pull"
    @drop="drop"
    @cancel="space = null"
    @nudge="nudge"
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
    <g text-anchor="end">
      <text :x="W - 10" :y="mainY + 6" class="small" :class="{ bad: panel.neutrals > panel.neutral_holes }">
        {{ panel.neutrals }} neutral{{ panel.neutrals === 1 ? '' : 's' }},
      </text>
      <text :x="W - 10" :y="mainY + 21" class="small">{{ panel.neutral_holes }} holes</text>
      <text :x="W - 10" :y="mainY + 36" class="small" :class="{ bad: panel.sub && !panel.ground_bar }">
        {{ panel.ground_bar ? 'own ground bar' : 'no ground bar' }}
      </text>
    </g>
    <g v-for="s in panel.spaces" :key="s.space">
      <template v-if="s.free">
        <rect :x="left(s.side)" :y="y(s.row) + 1" :width="SIDE_W" :height="ROW - 3" rx="2" class="free" />
        <text :x="left(s.side) + SIDE_W / 2" :y="y(s.row) + 20" text-anchor="middle" class="small">
          {{ s.space }} free{{ s.tandem ? ', tandem' : '' }}
        </text>
      </template>
      <template v-else-if="s.other">
        <rect :x="left(s.side)" :y="y(s.row) + 1" :width="SIDE_W" :height="ROW - 3" rx="2" class="other" />
        <text :x="left(s.side) + SIDE_W / 2" :y="y(s.row) + 20" text-anchor="middle" class="small">
          {{ s.space }} in use
        </text>
      </template>
      <g v-if="s.side === 'left'">
        <rect
          :x="8 + SIDE_W"
          :y="y(s.row) + 8"
          :width="W - 16 - SIDE_W * 2"
          height="14"
          :class="`leg${s.leg}`"
        />
        <text :x="W / 2" :y="y(s.row) + 19" text-anchor="middle" class="leg">{{ s.leg }}</text>
      </g>
    </g>
    <g
      v-for="b in drawn"
      :key="b.circuit"
      class="breaker"
      :class="[b.verdict, { here: b.circuit === circuit }]"
      :data-breaker="b.label"
    >
      <rect v-bind="b.box" rx="2" class="body" />
      <rect
        :x="b.side === 'left' ? b.box.x : b.box.x + SIDE_W - 4"
        :y="b.box.y"
        width="4"
        :height="b.box.height"
        class="mark"
      />
      <template v-if="!b.half">
        <rect
          :x="b.handle"
          :y="b.box.y + 2"
          :width="HANDLE"
          :height="b.box.height - 4"
          rx="2"
          class="handle"
        />
        <text
          :x="b.handle + HANDLE / 2"
          :y="b.middle + (b.kind ? -1 : 4.5)"
          text-anchor="middle"
          class="amps"
        >
          {{ b.amps }}
        </text>
        <text v-if="b.kind" :x="b.handle + HANDLE / 2" :y="b.middle + 11" text-anchor="middle" class="kind">
          {{ b.kind }}
        </text>
      </template>
      <text v-for="(line, i) in b.lines" :key="i" :x="b.textX" :y="line.y" :class="{ tiny: b.half }">
        {{ line.line }}
      </text>
    </g>
    <rect v-if="target" :x="target.x" :y="target.y" :width="SIDE_W" :height="ROW - 3" rx="2" class="target" />
    <g v-for="leg in legs" :key="leg.leg">
      <text x="10" :y="leg.y + 12" class="small"
        >leg {{ leg.leg }}, {{ leg.amps.toFixed(0) }} A expected</text
      >
      <rect x="150" :y="leg.y" width="190" height="14" class="bar" />
      <rect x="150" :y="leg.y" :width="leg.w" height="14" :class="`leg${leg.leg}`" />
    </g>
  </SvgPicture>
</template>

<style scoped>
.panel {
  display: block;
  width: 100%;
  max-width: 440px;
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
}
.small {
  font-size: 12.5px;
  font-weight: 500;
}
.tiny {
  font-size: 12px;
}
.kind {
  font-size: 11px;
  font-weight: 600;
  fill: #e6e8e0;
}
.small.bad {
  fill: var(--stop);
  font-weight: 600;
}
.other {
  fill: #c3c7c3;
  stroke: var(--mute);
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
  font-size: 12px;
  font-weight: 600;
}
.bar {
  fill: none;
  stroke: var(--ink);
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
