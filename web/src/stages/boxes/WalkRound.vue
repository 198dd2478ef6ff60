<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { RoundBox, WalkRound } from '../../api/client'
import { tapeText } from '../../parts/planScale'
import { covered, missingLabels, poleMarks, wallTitles } from './roundLabels'
import { useSize } from '../../parts/useSize'
import type { Picked } from '../../stores/look'

/**
 * All walls of the room unrolled, clockwise: studs, openings, boxes, the hole line, what a 6 ft cord reaches.
 * `exact` draws lengths and heights to one scale; otherwise all walls fit and the picture says how heights are drawn.
 */
const props = defineProps<{
  round: WalkRound
  picked: Picked | null
  metric: boolean
  exact: boolean
  placing: string | null
}>()
const emit = defineEmits<{
  pick: [what: Picked | null]
  move: [id: string, at: number]
  place: [to: Record<string, number>]
  pole: []
}>()

const POLE = 64
const TOP = 44
const FOOT = 58
const host = ref<HTMLElement | null>(null)
const size = useSize(host, 720, 330)
const room = computed(() => Math.max(size.height.value - TOP - FOOT, 130))
const tall = computed(() => room.value / props.round.height_in)
const per = computed(() =>
  props.exact
    ? tall.value
    : Math.max((Math.max(size.width.value, 560) - POLE - 16) / props.round.length_in, 0.2),
)
const width = computed(() => POLE + props.round.length_in * per.value + 16)
const height = computed(() => TOP + room.value + FOOT)
const x = (inches: number) => POLE + inches * per.value
const y = (inches: number) => TOP + (props.round.height_in - inches) * tall.value
const stretch = computed(() => tall.value / per.value)
const LEAST = 9

function rect(item: { x0: number; x1: number; y0: number; y1: number }, least = 0) {
  const wide = Math.max((item.x1 - item.x0) * per.value, least)
  const high = Math.max((item.y1 - item.y0) * tall.value, least ? least * 1.3 : 0)
  return {
    x: x((item.x0 + item.x1) / 2) - wide / 2,
    y: y((item.y0 + item.y1) / 2) - high / 2,
    width: wide,
    height: high,
  }
}

const drag = ref<{ box: RoundBox; from: number; by: number; moved: boolean } | null>(null)
const inches = (event: PointerEvent | MouseEvent) => {
  const svg = (event.currentTarget as Element).closest('svg') ?? (event.currentTarget as SVGElement)
  return (event.clientX - svg.getBoundingClientRect().left - POLE) / per.value
}
function grab(event: PointerEvent, box: RoundBox) {
  if (props.placing) return
  ;(event.target as Element).setPointerCapture(event.pointerId)
  drag.value = { box, from: inches(event), by: 0, moved: false }
  event.preventDefault()
}
const middle = (box: RoundBox) => (box.x0 + box.x1) / 2
const wallAt = (at: number) => props.round.walls.find((w) => at >= w.x0 && at <= w.x1)

/** A box caught by the nearest stud face within 3 in, else to the half inch. */
function snapped(at: number, half: number, side: number) {
  const wall = props.round.walls.find((w) => w.side === side)
  if (!wall) return at
  const spots = props.round.studs
    .filter((s) => s.side === side && s.y0 === 0)
    .flatMap((s) => [s.x0 - half, s.x1 + half])
  const near = spots.toSorted((a, b) => Math.abs(a - at) - Math.abs(b - at))[0]
  const found = near !== undefined && Math.abs(near - at) < 3 ? near : Math.round(at * 2) / 2
  return Math.min(Math.max(found, wall.x0 + half), wall.x1 - half)
}
function pull(event: PointerEvent) {
  const now = drag.value
  if (!now) return
  const shift = inches(event) - now.from
  if (!now.moved && Math.abs(shift * per.value) < 3) return
  now.moved = true
  const half = (now.box.x1 - now.box.x0) / 2
  now.by = snapped(middle(now.box) + shift, half, now.box.side) - middle(now.box)
}
function drop() {
  const now = drag.value
  drag.value = null
  if (!now) return
  const kind = now.box.kind === 'panel' ? 'panel' : 'box'
  if (!now.moved) return emit('pick', { kind, id: now.box.id })
  const wall = props.round.walls.find((w) => w.side === now.box.side)
  if (wall && now.by) emit('move', now.box.id, Math.round((middle(now.box) + now.by - wall.x0) * 16) / 16)
}
function tap(event: MouseEvent) {
  const at = inches(event)
  const wall = wallAt(at)
  if (!props.placing || !wall) return emit('pick', null)
  const spot = snapped(at, 1.125, wall.side)
  emit('place', { side: wall.side, at_in: Math.round((spot - wall.x0) * 16) / 16 })
}
const note = computed(() => {
  const now = drag.value
  if (!now?.moved) return ''
  const wall = props.round.walls.find((w) => w.side === now.box.side)
  return wall ? `${wall.name}, ${tapeText(middle(now.box) + now.by - wall.x0, props.metric)}` : ''
})
const shifted = (box: RoundBox) => (drag.value?.box.id === box.id ? drag.value.by * per.value : 0)

const titles = computed(() => wallTitles(props.round, per.value))
const marks = computed(() => poleMarks(props.round, y))
const missing = computed(() => missingLabels(props.round, x, POLE, width.value))
watch(
  () => [props.picked?.id, props.exact] as const,
  ([id]) => {
    const box = props.round.boxes.find((item) => item.id === id)
    if (box && host.value && host.value.scrollWidth > host.value.clientWidth)
      host.value.scrollTo({ left: x(middle(box)) - host.value.clientWidth / 2, behavior: 'smooth' })
  },
  { flush: 'post' },
)
</script>

<template>
  <div ref="host" class="host" :class="{ placing }">
    <svg
      :width="width"
      :height="height"
      role="img"
      aria-label="The walls of the room unrolled, clockwise"
      data-testid="round"
      @pointermove="pull"
      @pointerup="drop"
      @pointercancel="drag = null"
      @click.self="emit('pick', null)"
    >
      <rect
        v-for="wall in round.walls"
        :key="wall.side"
        :x="x(wall.x0)"
        :y="y(round.height_in)"
        :width="(wall.x1 - wall.x0) * per"
        :height="room"
        class="wall"
        :class="{ out: wall.outside }"
        :data-round-wall="wall.name"
        @click="tap"
      />
      <rect v-for="(s, i) in round.studs" :key="`s${i}`" v-bind="rect(s)" class="stud" :class="s.kind" />
      <g v-for="o in round.openings" :key="`o${o.id}${o.side}`">
        <rect
          v-bind="rect(o)"
          class="hole"
          :class="o.kind"
          @click="emit('pick', { kind: 'opening', id: o.id })"
        />
        <text
          v-if="(o.x1 - o.x0) * per > o.label.length * 6.2"
          :x="x((o.x0 + o.x1) / 2)"
          :y="y((o.y0 + o.y1) / 2) + 4"
          text-anchor="middle"
          class="faint"
        >
          {{ o.label }}
        </text>
      </g>
      <g v-for="f in round.fixtures" :key="f.id">
        <rect
          v-bind="rect(f, f.kind === 'shower_valve' ? 8 : 0)"
          class="fixture"
          @click="emit('pick', { kind: 'fixture', id: f.id })"
        />
        <text
          v-if="(f.x1 - f.x0) * per > f.label.length * 6.2 && !covered(round, f)"
          :x="x((f.x0 + f.x1) / 2)"
          :y="y(Math.min(f.y1, 60) / 2) + 4"
          text-anchor="middle"
          class="faint"
        >
          {{ f.label }}
        </text>
      </g>
      <g v-for="h in round.holes" :key="`h${h.x0}`" class="holes">
        <path :d="`M${x(h.x0)} ${y(round.hole_line_in)}H${x(h.x1)}`" />
        <circle v-for="at in h.at" :key="at" :cx="x(at)" :cy="y(round.hole_line_in)" r="2.4" />
      </g>
      <g v-for="wall in round.walls" :key="`e${wall.side}`">
        <path :d="`M${x(wall.x0)} ${TOP - 14}V${TOP + room + 8}`" class="corner" />
      </g>
      <path :d="`M${x(round.length_in)} ${TOP - 14}V${TOP + room + 8}`" class="corner" />
      <g v-for="t in titles" :key="`t${t.side}`" text-anchor="middle">
        <text :x="x((t.x0 + t.x1) / 2)" y="18">{{ t.name }}</text>
        <text :x="x((t.x0 + t.x1) / 2)" y="34" class="faint">{{ t.sub }}</text>
      </g>
      <g
        v-for="box in round.boxes"
        :key="box.id"
        class="box"
        :class="[box.verdict, box.kind, { picked: picked?.id === box.id, outside: box.outdoors }]"
        :transform="`translate(${shifted(box)} 0)`"
        :data-round-box="box.name"
        @pointerdown="grab($event, box)"
      >
        <rect
          v-bind="
            rect({ x0: box.x0 - 6 / per, x1: box.x1 + 6 / per, y0: box.y0 - 6 / tall, y1: box.y1 + 6 / tall })
          "
          class="catch"
        />
        <rect v-bind="rect(box, exact ? 0 : LEAST)" rx="1.5" class="body" />
        <path
          v-if="box.marked && box.kind !== 'panel'"
          :d="`M${x(middle(box)) - 3.5} ${y((box.y0 + box.y1) / 2)}l2.6 3 4.6-6`"
          class="tick"
        />
        <text
          v-if="picked?.id === box.id || box.verdict !== 'fine' || box.kind === 'panel'"
          :x="x(middle(box))"
          :y="rect(box, exact ? 0 : LEAST).y - 5"
          text-anchor="middle"
        >
          {{ box.name }}
        </text>
      </g>
      <g class="reach">
        <rect
          v-for="(r, i) in round.reach"
          :key="`r${i}`"
          :x="x(r.x0)"
          :y="r.y ? y(r.y) - 3 : TOP + room + 12"
          :width="Math.max((r.x1 - r.x0) * per, 2)"
          :height="r.y ? 4 : 7"
          :class="r.kind"
        />
        <text
          v-for="(m, i) in missing"
          :key="`m${i}`"
          :x="m.at"
          :y="TOP + room + 34 + m.line * 14"
          text-anchor="middle"
          class="short"
        >
          {{ m.text }}
        </text>
      </g>
      <text x="4" :y="TOP + room + 20" class="faint">6′ cord</text>
      <text :x="POLE" :y="height - 3" class="faint">
        {{
          Math.abs(stretch - 1) < 0.03
            ? 'to scale'
            : `heights drawn ${stretch.toFixed(1)} × the lengths, boxes at least ${LEAST} px wide`
        }}
      </text>
      <g
        class="pole"
        role="button"
        tabindex="0"
        aria-label="Story pole: heights of all boxes"
        @click="emit('pole')"
        @keydown.enter="emit('pole')"
      >
        <title>Story pole: tap to change all heights</title>
        <rect :x="POLE - 22" :y="TOP" width="9" :height="room" />
        <g v-for="line in marks" :key="line.use">
          <path :d="`M${POLE - 26} ${line.at}h17`" :class="{ line: line.use === 'hole line' }" />
          <text v-if="line.shown" :x="POLE - 29" :y="line.at + 4" text-anchor="end">{{ line.text }}</text>
        </g>
        <text :x="POLE - 30" :y="TOP - 10" class="faint" text-anchor="end">pole</text>
      </g>
    </svg>
    <p v-if="note" class="note num" data-testid="round-note">{{ note }}</p>
  </div>
</template>

<style scoped>
.host {
  position: relative;
  width: 100%;
  height: 100%;
  overflow-x: auto;
  overflow-y: hidden;
  background: var(--card);
  touch-action: pan-x pan-y;
}
svg {
  display: block;
  font-family: var(--num);
}
text {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 600;
  pointer-events: none;
}
.faint {
  fill: var(--mute);
  font-weight: 500;
  font-size: 12.5px;
}
.wall {
  fill: color-mix(in srgb, var(--lumber) 36%, var(--card));
}
.wall.out {
  fill: color-mix(in srgb, var(--lumber) 62%, var(--card));
}
.placing .wall {
  cursor: crosshair;
}
.stud {
  fill: color-mix(in srgb, var(--soil) 72%, var(--card));
  pointer-events: none;
}
.stud.end,
.stud.king {
  fill: var(--soil);
}
.hole {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1;
}
.hole.window {
  fill: color-mix(in srgb, var(--chalk) 14%, var(--card));
}
.fixture {
  fill: color-mix(in srgb, var(--concrete) 65%, transparent);
  stroke: var(--mute);
}
.holes path {
  stroke: var(--chalk);
  stroke-dasharray: 7 4;
  stroke-width: 1.3;
}
.holes circle {
  fill: var(--card);
  stroke: var(--chalk);
  stroke-width: 1.2;
}
.corner {
  stroke: var(--ink);
  stroke-dasharray: 5 4;
}
.box {
  cursor: grab;
}
.catch {
  fill: transparent;
}
.body {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.panel .body {
  fill: #5d666c;
}
.outside .body {
  stroke-dasharray: 3 2;
}
.box.stop .body {
  stroke: var(--stop);
  stroke-width: 2.6;
}
.box.check .body {
  stroke: var(--check-mark);
  stroke-width: 2.6;
}
.box.stop text {
  fill: var(--stop);
}
.box.check text {
  fill: var(--check);
}
.box text {
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
}
.picked .catch {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.8;
  stroke-dasharray: 4 3;
}
.tick {
  fill: none;
  stroke: var(--fine);
  stroke-width: 2.2;
}
.reach .reached {
  fill: color-mix(in srgb, var(--fine) 45%, var(--card));
}
.reach .missing {
  fill: var(--stop);
}
.short {
  fill: var(--stop);
}
.pole {
  cursor: pointer;
}
.pole rect {
  fill: var(--lumber);
  stroke: var(--ink);
}
.pole path {
  stroke: var(--stop);
  stroke-width: 1.8;
}
.pole .line {
  stroke: var(--chalk);
}
.note {
  position: sticky;
  left: 40%;
  bottom: 60%;
  display: inline-block;
  margin: 0;
  padding: 3px 10px;
  background: var(--tape);
  color: #20262a;
  border: 1px solid #20262a;
  font-weight: 600;
}
</style>
