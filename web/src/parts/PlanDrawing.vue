<script setup lang="ts">
import { computed } from 'vue'

import type { DrawnRoom } from '../api/client'
import type { Picked } from '../stores/look'
import BoxGlyph from './BoxGlyph.vue'
import { roomName, wallLengths } from './planNames'
import { boxed, type PlanScale, type XY } from './planScale'

/** A level as drawn: rooms, walls, openings, what stands there. Nothing here is touched; see PlanView. */
const props = defineProps<{
  rooms: DrawnRoom[]
  room: string | null
  picked: Picked | null
  scale: PlanScale
  walls?: boolean
  paths?: { id: string; points: XY[]; tone: string }[]
  held?: string[]
  compact?: boolean
}>()

const path = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${props.scale.x(p[0] ?? 0)},${props.scale.y(p[1] ?? 0)}`).join(' ')
const current = computed(() => props.rooms.find((item) => item.id === props.room) ?? null)
const isPicked = (kind: Picked['kind'], id: string, side?: number) =>
  props.picked?.kind === kind && props.picked.id === id && (side === undefined || props.picked.side === side)
const leaves = computed(() =>
  props.rooms.flatMap((room) =>
    room.openings.filter((o) => o.leaf.length).map((o) => boxed(o.leaf, props.scale)),
  ),
)
const names = computed(() =>
  props.compact
    ? []
    : props.rooms.map((room) => ({
        id: room.id,
        ...roomName(room, props.scale, leaves.value),
        wide: boxed(room.corners, props.scale).w,
      })),
)
const dims = computed(() => {
  const room = current.value
  const name = names.value.find((one) => one.id === room?.id && one.wide > 40)
  return room ? wallLengths(room, props.scale, leaves.value, name) : []
})
const swing = (leaf: readonly (readonly number[])[]) => {
  const [h, tip, latch] = leaf.map((p) => [props.scale.x(p[0] ?? 0), props.scale.y(p[1] ?? 0)] as XY)
  if (!h || !tip || !latch) return ''
  const r = Math.hypot(tip[0] - h[0], tip[1] - h[1])
  const cross = (tip[0] - h[0]) * (latch[1] - h[1]) - (tip[1] - h[1]) * (latch[0] - h[0])
  return `M${h[0]} ${h[1]}L${tip[0]} ${tip[1]}A${r} ${r} 0 0 ${cross > 0 ? 1 : 0} ${latch[0]} ${latch[1]}`
}
/** The two panels of a sliding door, one behind the other. */
const sliding = (quad: readonly (readonly number[])[]) => {
  const [a, b, c, d] = quad.map((p) => [props.scale.x(p[0] ?? 0), props.scale.y(p[1] ?? 0)] as XY)
  if (!a || !b || !c || !d) return ''
  const at = (along: number, deep: number) =>
    [0, 1].map((i) => {
      const [near, far] = [
        (a[i] ?? 0) + along * ((b[i] ?? 0) - (a[i] ?? 0)),
        (d[i] ?? 0) + along * ((c[i] ?? 0) - (d[i] ?? 0)),
      ]
      return (near + deep * (far - near)).toFixed(1)
    })
  const line = (from: number, to: number, deep: number) =>
    `M${at(from, deep).join(' ')}L${at(to, deep).join(' ')}`
  return line(0, 0.54, 0.35) + line(0.46, 1, 0.65)
}
</script>

<template>
  <g>
    <g v-for="item in rooms" :key="item.id" class="room" :class="[item.verdict, { here: item.id === room }]">
      <polygon :points="path(item.corners)" class="floor" />
      <polygon
        v-for="f in compact ? [] : item.fixtures"
        :key="f.id"
        :points="path(f.quad)"
        class="fixture"
        :class="{ picked: isPicked('fixture', f.id) }"
      />
    </g>
    <g v-for="item in rooms" :key="`w${item.id}`">
      <polygon
        v-for="wall in item.walls"
        :key="wall.side"
        :points="path(wall.quad)"
        class="wall"
        :class="{ open: wall.open }"
      />
    </g>
    <g v-if="walls && current">
      <template v-for="wall in current.walls" :key="wall.side">
        <polygon v-if="isPicked('wall', current.id, wall.side)" :points="path(wall.quad)" class="handle" />
      </template>
    </g>
    <g v-for="item in rooms" :key="`o${item.id}`">
      <g
        v-for="o in item.openings"
        :key="o.id"
        :class="['opening', o.kind, { picked: isPicked('opening', o.id) }]"
      >
        <polygon :points="path(o.quad)" />
        <path v-if="o.leaf.length && !compact" :d="swing(o.leaf)" />
        <path v-if="o.kind === 'glass_door' && !compact" :d="sliding(o.quad)" class="glass" />
      </g>
    </g>
    <g v-for="p in paths ?? []" :key="p.id" class="path">
      <polyline :points="path(p.points)" :class="p.tone" />
    </g>
    <g v-for="n in names" :key="`n${n.id}`" class="name" :class="{ mutedname: n.id !== room && room }">
      <template v-if="n.wide > 40">
        <text :x="n.x" :y="n.y" text-anchor="middle">{{ n.text }}</text>
        <text v-if="n.sub" :x="n.x" :y="n.y + 15" text-anchor="middle" class="sub">{{ n.sub }}</text>
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
    <g v-for="item in rooms" :key="`b${item.id}`">
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
      />
    </g>
    <g v-if="!compact" class="north">
      <path d="M16 34V14M11 20l5-7 5 7" />
      <text x="16" y="46" text-anchor="middle">N</text>
    </g>
  </g>
</template>

<style scoped>
.floor {
  fill: var(--card);
}
.here .floor {
  fill: color-mix(in srgb, var(--lime) 20%, var(--card));
}
.wall {
  fill: var(--ink);
}
.wall.open {
  fill: none;
  stroke: var(--rule);
  stroke-dasharray: 4 4;
}
.handle {
  stroke-linejoin: round;
  fill: var(--chalk);
  stroke: var(--chalk);
  stroke-width: 2;
}
.fixture {
  fill: var(--note-wash);
  stroke: var(--mute);
  stroke-width: 1;
}
.fixture.picked {
  stroke: var(--chalk);
  stroke-width: 2.4;
}
.opening polygon {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1;
}
.opening.window polygon {
  fill: color-mix(in srgb, var(--chalk) 24%, var(--card));
}
.opening path {
  fill: none;
  stroke: var(--mute);
  stroke-width: 1;
}
.opening path.glass {
  stroke: var(--chalk);
  stroke-width: 2;
}
.opening.picked polygon {
  stroke: var(--chalk);
  stroke-width: 2.4;
}
text {
  fill: var(--ink);
  font-size: 14px;
  font-weight: 600;
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
  stroke: var(--jacket, #4a4f52);
  stroke-width: 3;
  stroke-linejoin: round;
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
</style>
