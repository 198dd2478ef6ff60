<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DrawnBox, DrawnRoom } from '../api/client'
import type { Picked } from '../stores/job'
import BoxGlyph from './BoxGlyph.vue'
import { corners, nearestWall, planScale, wallOf, type XY } from './planScale'
import { useLasso } from './useLasso'
import { usePlanDrag } from './usePlanDrag'
import { useSize } from './useSize'

/** The plan of a level, north up, to scale. What is picked can be dragged; what is dragged shows its lengths. */
const props = defineProps<{
  rooms: DrawnRoom[]
  room: string | null
  picked: Picked | null
  metric: boolean
  walls?: boolean
  placing?: string | null
  paths?: { id: string; points: XY[]; tone: string }[]
  held?: string[]
  lasso?: boolean
  compact?: boolean
}>()
const emit = defineEmits<{
  room: [id: string]
  pick: [what: Picked | null]
  moveWall: [room: string, side: number, by: number]
  moveOpening: [id: string, at: number]
  moveBox: [id: string, to: Record<string, number>]
  place: [to: Record<string, number>]
  lasso: [boxes: string[]]
}>()

const host = ref<HTMLElement | null>(null)
const { width, height } = useSize(host, 720, 360)
const scale = computed(() =>
  planScale(corners(props.rooms), width.value, height.value, props.compact ? 16 : 46),
)
const path = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${scale.value.x(p[0] ?? 0)},${scale.value.y(p[1] ?? 0)}`).join(' ')
const current = computed(() => props.rooms.find((item) => item.id === props.room) ?? null)

const world = (event: PointerEvent | MouseEvent): XY => {
  const box = host.value?.getBoundingClientRect()
  return scale.value.back(event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0))
}

const { drag, grab, pull, drop, note, ghost } = usePlanDrag({
  resting: () => !!props.placing,
  metric: () => props.metric,
  per: () => scale.value.per,
  world,
  picked: (what) => emit('pick', what),
  wall: (room, side, by) => emit('moveWall', room, side, by),
  opening: (id, at) => emit('moveOpening', id, at),
  box: (id, to) => emit('moveBox', id, to),
})
const { loop, startLoop, endLoop, looped } = useLasso(
  () => props.rooms,
  world,
  (ids) => emit('lasso', ids),
)

function tapRoom(event: MouseEvent, id: string) {
  if (!props.placing || id !== props.room || !current.value) {
    emit('pick', null)
    return emit('room', id)
  }
  const at = world(event)
  const ceiling = ['light', 'fan', 'smoke'].includes(props.placing)
  const wall = nearestWall(current.value, at, ceiling ? 5 : 30)
  if (wall) emit('place', { side: wall.side, at_in: Math.round(wall.at * 2) / 2 })
  else emit('place', { x_in: Math.round(at[0]), y_in: Math.round(at[1]) })
}

function sideOf(room: DrawnRoom, box: DrawnBox) {
  if (!box.on_wall) return { side: -1, at: 0 }
  const found = nearestWall(room, [box.x, box.y], 14)
  return found ? { side: found.side, at: found.at } : { side: -1, at: 0 }
}
function grabBox(event: PointerEvent, room: DrawnRoom, box: DrawnBox) {
  const place = sideOf(room, box)
  grab(event, 'box', box.id, room, place.side, place.at)
}

const dims = computed(() =>
  (current.value?.walls ?? []).map((wall) => {
    const { a, along, out, length } = wallOf(current.value as DrawnRoom, wall.side)
    const mid: XY = [a[0] + (along[0] * length) / 2, a[1] + (along[1] * length) / 2]
    const inward = 25 / scale.value.per
    const upright = Math.abs(along[1]) > Math.abs(along[0])
    const x = scale.value.x(mid[0] - out[0] * inward)
    const y = scale.value.y(mid[1] - out[1] * inward)
    return { key: wall.side, x, y, text: wall.length_text, upright, room: length * scale.value.per > 58 }
  }),
)
/** The name stands clear of what hangs in the middle of the ceiling. */
const nameY = (room: DrawnRoom) => {
  const [x, y] = [scale.value.x(room.middle[0] ?? 0), scale.value.y(room.middle[1] ?? 0)]
  const hung = room.boxes.some(
    (box) =>
      !box.on_wall && Math.abs(scale.value.x(box.x) - x) < 42 && Math.abs(scale.value.y(box.y) - y) < 22,
  )
  return y + (hung ? 24 : 0)
}
const isPicked = (kind: Picked['kind'], id: string, side?: number) =>
  props.picked?.kind === kind && props.picked.id === id && (side === undefined || props.picked.side === side)
const fits = (room: DrawnRoom) => {
  const xs = room.corners.map((c) => c[0] ?? 0)
  return (Math.max(...xs) - Math.min(...xs)) * scale.value.per
}
const swing = (leaf: readonly (readonly number[])[]) => {
  const [h, tip, latch] = leaf.map((p) => [scale.value.x(p[0] ?? 0), scale.value.y(p[1] ?? 0)] as XY)
  if (!h || !tip || !latch) return ''
  const r = Math.hypot(tip[0] - h[0], tip[1] - h[1])
  const cross = (tip[0] - h[0]) * (latch[1] - h[1]) - (tip[1] - h[1]) * (latch[0] - h[0])
  return `M${h[0]} ${h[1]}L${tip[0]} ${tip[1]}A${r} ${r} 0 0 ${cross > 0 ? 1 : 0} ${latch[0]} ${latch[1]}`
}
</script>

<template>
  <div ref="host" class="host" :class="{ placing }">
    <svg
      :width="width"
      :height="height"
      role="img"
      aria-label="The plan of this level, north up, to scale"
      data-testid="plan"
      @pointermove="pull"
      @pointerup="drop"
      @pointercancel="drag = null"
      @click.self="emit('pick', null)"
    >
      <g
        v-for="item in rooms"
        :key="item.id"
        class="room"
        :class="[item.verdict, { here: item.id === room }]"
      >
        <polygon
          :points="path(item.corners)"
          class="floor"
          :data-room="item.id"
          @click="tapRoom($event, item.id)"
        />
        <polygon
          v-for="f in compact ? [] : item.fixtures"
          :key="f.id"
          :points="path(f.quad)"
          class="fixture"
          :class="{ picked: isPicked('fixture', f.id) }"
          @click.stop="(emit('room', item.id), emit('pick', { kind: 'fixture', id: f.id }))"
        />
      </g>
      <g v-for="item in rooms" :key="`w${item.id}`">
        <polygon
          v-for="wall in item.walls"
          :key="wall.side"
          :points="path(wall.quad)"
          class="wall"
          :class="{ open: wall.open, grab: walls && item.id === room }"
        />
      </g>
      <g v-if="walls && current">
        <polygon
          v-for="wall in current.walls"
          :key="wall.side"
          :points="path(wall.quad)"
          class="handle"
          :class="{ picked: isPicked('wall', current.id, wall.side) }"
          :data-wall="wall.name"
          @pointerdown="grab($event, 'wall', '', current, wall.side)"
        />
      </g>
      <g v-for="item in rooms" :key="`o${item.id}`">
        <g
          v-for="o in item.openings"
          :key="o.id"
          :class="['opening', o.kind, { picked: isPicked('opening', o.id) }]"
        >
          <polygon
            :points="path(o.quad)"
            :data-opening="o.id"
            @pointerdown="(emit('room', item.id), grab($event, 'opening', o.id, item, o.side, o.at_in))"
          />
          <path v-if="o.leaf.length && !compact" :d="swing(o.leaf)" />
        </g>
      </g>
      <g v-for="p in paths ?? []" :key="p.id" class="path">
        <polyline :points="path(p.points)" :class="p.tone" />
      </g>
      <g
        v-for="item in rooms"
        :key="`n${item.id}`"
        class="name"
        :class="{ mutedname: item.id !== room && room }"
      >
        <template v-if="fits(item) > 40 && !compact">
          <text :x="scale.x(item.middle[0])" :y="nameY(item)" text-anchor="middle">
            {{
              fits(item) > item.name.length * 7.5
                ? item.name
                : item.name.slice(0, Math.floor(fits(item) / 8)) + '…'
            }}
          </text>
          <text
            v-if="fits(item) > 92"
            :x="scale.x(item.middle[0])"
            :y="nameY(item) + 15"
            text-anchor="middle"
            class="sub"
          >
            {{ item.size_text }}
          </text>
        </template>
      </g>
      <g v-if="walls" class="dims">
        <text
          v-for="d in dims.filter((one) => one.room)"
          :key="d.key"
          :x="d.x"
          :y="d.y + 4"
          text-anchor="middle"
          :transform="d.upright ? `rotate(-90 ${d.x} ${d.y})` : undefined"
        >
          {{ d.text }}
        </text>
      </g>
      <g v-for="item in rooms" :key="`b${item.id}`" :class="{ inert: walls }">
        <BoxGlyph
          v-for="box in item.boxes"
          :key="box.id"
          :kind="box.kind"
          :ways="box.ways"
          :x="scale.x(box.x)"
          :y="scale.y(box.y)"
          :look="box.look as XY"
          :name="box.name"
          :picked="isPicked('box', box.id) || isPicked('panel', box.id) || !!held?.includes(box.id)"
          :small="compact && !held?.includes(box.id)"
          :faint="!!room && item.id !== room && !held?.includes(box.id) && !paths"
          :data-box="box.id"
          @pointerdown="(emit('room', item.id), grabBox($event, item, box))"
        />
      </g>
      <rect
        v-if="lasso"
        :width="width"
        :height="height"
        class="net"
        data-testid="net"
        @pointerdown="startLoop"
        @pointermove="loop && (loop.b = world($event))"
        @pointerup="endLoop"
      />
      <polygon v-if="looped" :points="path(looped)" class="loop" />
      <polyline v-if="ghost" :points="path(ghost)" class="ghost" />
      <g v-if="!compact" class="north">
        <path d="M16 34V14M11 20l5-7 5 7" />
        <text x="16" y="46" text-anchor="middle">N</text>
      </g>
    </svg>
    <p v-if="note" class="note num" data-testid="drag-note">{{ note }}</p>
    <p v-if="!rooms.length" class="none mute">
      No room on this level yet. Type one below, or bring in a drawing.
    </p>
  </div>
</template>

<style scoped>
.host {
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
  touch-action: pan-y;
}
svg {
  display: block;
  font-family: var(--num);
}
.floor {
  fill: var(--card);
  cursor: pointer;
}
.here .floor {
  fill: color-mix(in srgb, var(--lime) 20%, var(--card));
}
.placing .here .floor {
  cursor: crosshair;
}
.wall {
  fill: var(--ink);
  pointer-events: none;
}
.wall.open {
  fill: none;
  stroke: var(--rule);
  stroke-dasharray: 4 4;
}
.handle {
  stroke-linejoin: round;
  fill: transparent;
  stroke: transparent;
  stroke-width: 9;
  cursor: grab;
}
.handle:hover,
.handle.picked {
  fill: var(--chalk);
  stroke: var(--chalk);
  stroke-width: 2;
}
.fixture {
  fill: var(--note-wash);
  stroke: var(--mute);
  stroke-width: 1;
  cursor: pointer;
}
.fixture.picked {
  stroke: var(--chalk);
  stroke-width: 2.4;
}
.opening polygon {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1;
  cursor: grab;
}
.opening.window polygon {
  fill: color-mix(in srgb, var(--chalk) 24%, var(--card));
}
.opening path {
  fill: none;
  stroke: var(--mute);
  stroke-width: 1;
  pointer-events: none;
}
.opening.picked polygon {
  stroke: var(--chalk);
  stroke-width: 2.4;
}
text {
  fill: var(--ink);
  font-size: 14px;
  font-weight: 600;
  pointer-events: none;
}
.sub {
  font-weight: 500;
  font-size: 13px;
  fill: var(--mute);
}
.dims text {
  fill: var(--chalk);
  font-size: 13px;
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
}
.path polyline {
  fill: none;
  stroke-width: 3;
  stroke-linejoin: round;
  pointer-events: none;
}
.path .w14 {
  stroke: #a39c86;
}
.path .w12 {
  stroke: #e0b02a;
}
.path .w10 {
  stroke: #d9822b;
}
.path .w8,
.path .w6 {
  stroke: #4a4f52;
}
.net {
  fill: transparent;
  cursor: crosshair;
}
.loop {
  fill: color-mix(in srgb, var(--chalk) 14%, transparent);
  stroke: var(--chalk);
  stroke-width: 1.6;
  stroke-dasharray: 6 4;
  pointer-events: none;
}
.inert {
  pointer-events: none;
}
.ghost {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-dasharray: 7 5;
  pointer-events: none;
}
.north path {
  fill: none;
  stroke: var(--mute);
  stroke-width: 1.6;
}
.north text {
  fill: var(--mute);
  font-size: 12px;
}
.note {
  position: absolute;
  top: 8px;
  left: 50%;
  transform: translateX(-50%);
  margin: 0;
  padding: 3px 10px;
  background: var(--tape);
  color: #20262a;
  border: 1px solid #20262a;
  font-weight: 600;
  font-size: 15px;
}
.none {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  margin: 0;
  pointer-events: none;
}
</style>
