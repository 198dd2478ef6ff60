<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'

import type { DrawnBox, DrawnRoom } from '../api/client'
import { useJob } from '../stores/job'
import type { Picked } from '../stores/look'
import type { By } from '../stores/moving'
import PlanDrawing from './PlanDrawing.vue'
import SvgPicture from './picture/SvgPicture.vue'
import { keyOf, type Spot, type Steps, type Thing } from './picture/things'
import { boxed, corners, nearestWall, planScale, toward, type XY } from './planScale'
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
  move: [id: string, by: By]
  place: [to: Record<string, number>]
  lasso: [boxes: string[]]
}>()

/** Moves that are on their way are asked of the store here, so that nothing but the picture follows them. */
const store = useJob()
const host = ref<HTMLElement | null>(null)
const picture = useTemplateRef<InstanceType<typeof SvgPicture>>('picture')
const { width, height } = useSize(host, 720, 360)
const scale = computed(() =>
  planScale(corners(props.rooms), width.value, height.value, props.compact ? 16 : 46),
)
const path = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${scale.value.x(p[0] ?? 0)},${scale.value.y(p[1] ?? 0)}`).join(' ')
const current = computed(() => props.rooms.find((item) => item.id === props.room) ?? null)
const world = (at: Spot): XY => scale.value.back(at.x, at.y)

const isPicked = (kind: Picked['kind'], id: string, side?: number) =>
  props.picked?.kind === kind && props.picked.id === id && (side === undefined || props.picked.side === side)

/** What of the plan can be picked, by kind and id, with the room that it is in. */
const things = computed(() => {
  const found: (Thing & { room: DrawnRoom; side: number; start: number })[] = []
  const put = (
    kind: string,
    id: string,
    name: string,
    room: DrawnRoom,
    points: readonly (readonly number[])[],
    more: Partial<Thing & { side: number; start: number }> = {},
  ) =>
    found.push({
      kind,
      id,
      name,
      room,
      side: -1,
      start: 0,
      ...boxed(points, scale.value),
      points: path(points),
      ...more,
    })
  for (const room of props.rooms) {
    if (!props.compact)
      put('room', room.id, `${room.name}, ${room.size_text}`, room, room.corners, {
        picked: room.id === props.room,
        mark: room.id,
      })
    if (props.compact) continue
    for (const f of room.fixtures)
      put('fixture', f.id, `${f.kind.replace('_', ' ')} in ${room.name}`, room, f.quad, {
        picked: isPicked('fixture', f.id),
      })
  }
  if (props.walls && current.value)
    for (const wall of current.value.walls)
      put('wall', String(wall.side), `${wall.name} wall, ${wall.length_text}`, current.value, wall.quad, {
        side: wall.side,
        drags: true,
        picked: isPicked('wall', current.value.id, wall.side),
        mark: wall.name,
      })
  for (const room of props.compact ? [] : props.rooms)
    for (const o of room.openings)
      put('opening', o.id, `${o.kind.replace('_', ' ')} in ${room.name}`, room, o.quad, {
        side: o.side,
        start: o.at_in,
        drags: true,
        points: undefined,
        picked: isPicked('opening', o.id),
        mark: o.id,
      })
  for (const room of props.walls ? [] : props.rooms)
    for (const box of room.boxes) {
      const place = sideOf(room, box)
      const [x, y] = [scale.value.x(box.x), scale.value.y(box.y)]
      const kind = box.kind === 'panel' ? 'panel' : 'box'
      const picked = isPicked(kind, box.id) || !!props.held?.includes(box.id)
      const name = `${box.name}, ${box.kind}, ${room.name}`
      found.push({
        kind,
        id: box.id,
        name,
        room,
        ...place,
        x: x - 8,
        y: y - 8,
        w: 16,
        h: 16,
        drags: !props.compact,
        picked,
        mark: box.id,
      })
    }
  return found
})
type PlanThing = (typeof things.value)[number]

const { drag, grab, pull, drop, note, ghosts } = usePlanDrag({
  metric: () => props.metric,
  moving: () =>
    things.value.flatMap((one) => {
      const by = store.moving[one.kind === 'wall' ? `wall.${one.room.id}.${one.side}` : keyOf(one)]
      return by ? [{ ...one, by }] : []
    }),
  wall: (room, side, by) => emit('moveWall', room, side, by),
  move: (id, by) => emit('move', id, by),
})
const { loop, startLoop, endLoop, looped } = useLasso(
  () => props.rooms,
  (event) => world(picture.value?.at(event) ?? { x: 0, y: 0 }),
  (ids) => emit('lasso', ids),
)

function pick(thing: Thing) {
  const one = thing as PlanThing
  if (one.kind === 'room') {
    emit('pick', null)
    return emit('room', one.id)
  }
  emit('room', one.room.id)
  if (one.kind === 'wall') emit('pick', { kind: 'wall', id: one.room.id, side: one.side })
  else emit('pick', { kind: one.kind as Picked['kind'], id: one.id })
}

function tap(at: Spot, thing: Thing | null) {
  const here = (thing as PlanThing | null)?.room
  if (!props.placing) return emit('pick', null)
  if (!current.value || (here && here.id !== props.room)) return here && emit('room', here.id)
  const point = world(at)
  const ceiling = ['light', 'fan', 'smoke'].includes(props.placing)
  const wall = nearestWall(current.value, point, ceiling ? 5 : 30)
  if (wall) emit('place', { side: wall.side, at_in: Math.round(wall.at * 2) / 2 })
  else emit('place', { x_in: Math.round(point[0]), y_in: Math.round(point[1]) })
}

function sideOf(room: DrawnRoom, box: DrawnBox) {
  const found = box.on_wall ? nearestWall(room, [box.x, box.y], 14) : null
  return found ? { side: found.side, start: found.at } : { side: -1, start: 0 }
}

function take(thing: Thing, at: Spot) {
  const one = thing as PlanThing
  if (one.kind !== 'wall') pick(thing)
  grab(one.kind, one.id, one.room, one.side, world(at), one.start)
}

/** An inch that way, along the wall; a wall itself goes out or in. */
function nudge(thing: Thing, by: Steps) {
  const one = thing as PlanThing
  if (!one.drags) return
  if (one.side < 0) return emit('move', one.id, by.right ? { x_in: by.right } : { y_in: by.up })
  const { along, out } = toward(one.room, one.side, by)
  if (one.kind !== 'wall' && along) emit('move', one.id, { at_in: along })
  else if (one.kind === 'wall' && out) emit('moveWall', one.room.id, one.side, out)
}
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      ref="picture"
      label="The plan of this level, north up, to scale"
      testid="plan"
      :width="width"
      :height="height"
      :things="things"
      :placing="!!placing"
      relative
      @pick="pick"
      @tap="tap"
      @nudge="nudge"
      @grab="take"
      @pull="(_thing, at) => pull(world(at))"
      @drop="drop"
      @cancel="drag = null"
    >
      <PlanDrawing
        :rooms="rooms"
        :room="room"
        :picked="picked"
        :scale="scale"
        :walls="walls"
        :paths="paths"
        :held="held"
        :compact="compact"
      />
      <polyline
        v-for="(ghost, i) in ghosts"
        :key="i"
        :points="path(ghost)"
        class="ghost"
        data-testid="ghost"
      />
      <template #over>
        <rect
          v-if="lasso"
          :width="width"
          :height="height"
          class="net"
          data-testid="net"
          @pointerdown.stop="startLoop"
          @pointermove="loop && (loop.b = world(picture?.at($event) ?? { x: 0, y: 0 }))"
          @pointerup="endLoop"
        />
        <polygon v-if="looped" :points="path(looped)" class="loop" />
      </template>
    </SvgPicture>
    <p v-if="note" class="drag-note num" data-testid="drag-note">{{ note }}</p>
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
}
.net {
  fill: transparent;
  cursor: crosshair;
  touch-action: none;
}
.loop {
  fill: color-mix(in srgb, var(--chalk) 14%, transparent);
  stroke: var(--chalk);
  stroke-width: 1.6;
  stroke-dasharray: 6 4;
  pointer-events: none;
}
.ghost {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-dasharray: 7 5;
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
