<script setup lang="ts">
import { computed, ref } from 'vue'

import type { YardDrawing } from '../../api/client'
import { tapeText } from '../../parts/planScale'
import type { Spot, Steps, Thing } from '../../parts/picture/things'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import { useSize } from '../../parts/useSize'
import {
  bandOf,
  buildingName,
  frameOf,
  inside,
  type Path,
  pathOf,
  sideOf,
  tagOf,
  type XY,
  yardScale,
} from './yardView'

/** The yard from above, north up: buildings as they stand, what covers the ground, services, trenches and spans. */
const props = defineProps<{ yard: YardDrawing; here: string | null; metric: boolean; fixed?: boolean }>()
const emit = defineEmits<{
  look: [id: string]
  move: [line: string, corner: number, at: [number, number]]
  shift: [kind: 'building' | 'part', id: string, by: [number, number]]
}>()

const host = ref<HTMLElement | null>(null)
const { width, height } = useSize(host, 760, 372)
/** On a phone only what is built, dug or strung has its name. */
const narrow = computed(() => width.value < 520)
const scale = computed(() => yardScale(props.yard.bounds, width.value, height.value))
const px = (at: readonly number[]) => scale.value.px(at)
const path = (points: Path, closed = false) => pathOf(points, scale.value, closed)
const areas = computed(() => props.yard.shapes.filter((s) => s.rings.length && s.kind !== 'building'))
const services = computed(() => props.yard.shapes.filter((s) => s.line.length))
const buildings = computed(() => props.yard.shapes.filter((s) => s.kind === 'building'))
const trenches = computed(() => props.yard.lines.filter((l) => l.kind === 'trench'))
const spans = computed(() => props.yard.lines.filter((l) => l.kind === 'span'))
const drag = ref<{ line: string; corner: number; at: XY } | null>(null)

function pointsOf(line: (typeof props.yard.lines)[number]): XY[] {
  const held = drag.value
  return line.points.map((p, i) => (held && held.line === line.id && held.corner === i ? held.at : (p as XY)))
}
/** Trenches are drawn at least so wide that they are seen; the picture says so. */
const wide = (inches: number) => Math.max(inches * scale.value.per, 7)
const buildingWords = computed(() => buildings.value.map((shape) => buildingName(shape, scale.value)))
const side = (at: readonly number[]) => sideOf(at, buildings.value, scale.value)
const shown = (at: readonly number[]) => inside(px(at), scale.value)
const tag = (line: Path) => tagOf(line, scale.value)
const middle = (points: XY[]): XY => {
  const at = points.map(px)
  return [at.reduce((s, p) => s + p[0], 0) / at.length, at.reduce((s, p) => s + p[1], 0) / at.length]
}
/** A thing of the yard is taken by its name. */
function dot(shape: (typeof props.yard.shapes)[number]) {
  const [x, y] = shape.line.length ? tag(shape.line) : px(shape.at)
  return { x: x - 14, y: y - 14, w: 28, h: 28 }
}
const things = computed<Thing[]>(() => {
  const found: Thing[] = props.yard.lines.map((line) => ({
    id: line.id,
    kind: line.kind,
    name: `${line.name}, ${line.text}`,
    ...frameOf(line.points, scale.value),
    points: bandOf(line.points, scale.value),
    picked: line.id === props.here,
    mark: line.name,
  }))
  if (!props.fixed)
    for (const shape of props.yard.shapes.filter((one) => one.kind !== 'street'))
      found.push({
        id: shape.id,
        kind: shape.kind === 'building' ? 'building' : 'part',
        name: shape.kind === 'building' ? `${shape.name}, building` : `${shape.name}, ${shape.kind}`,
        ...(shape.kind === 'building' ? frameOf(shape.rings.flat(), scale.value) : dot(shape)),
        drags: true,
      })
  const own = props.yard.lines.find((line) => line.id === props.here)
  if (own && !props.fixed)
    own.points.forEach((p, i) => {
      const [x, y] = px(p)
      found.push({
        id: `${own.id}.${i}`,
        kind: 'corner',
        name: `${i === 0 ? 'start' : i === own.points.length - 1 ? 'end' : `corner ${i}`} of ${own.name}`,
        x: x - 6,
        y: y - 6,
        w: 12,
        h: 12,
        drags: true,
      })
    })
  return found
})
function split(thing: Thing): [string, number] {
  const at = thing.id.lastIndexOf('.')
  return [thing.id.slice(0, at), Number(thing.id.slice(at + 1))]
}
const moved = ref<{ id: string; by: XY } | null>(null)
function pulled(thing: Thing, at: Spot, from: Spot) {
  if (thing.kind !== 'corner') {
    moved.value = { id: thing.id, by: [at.x - from.x, at.y - from.y] }
    return
  }
  const [line, corner] = split(thing)
  drag.value = { line, corner, at: scale.value.back(at.x, at.y) }
}
const kindOf = (thing: Thing) => (thing.kind === 'building' ? 'building' : 'part') as 'building' | 'part'
function drop(thing: Thing) {
  const [held, whole] = [drag.value, moved.value]
  drag.value = moved.value = null
  if (whole) {
    const by = whole.by.map((v, i) => Math.round(((i ? -v : v) / scale.value.per) * 4) / 4) as XY
    return emit('shift', kindOf(thing), thing.id, by)
  }
  if (held) emit('move', held.line, held.corner, held.at.map((v) => Math.round(v)) as XY)
}
function nudge(thing: Thing, by: Steps) {
  const [dx, dy] = [by.right * 12, by.up * 12]
  if (thing.kind === 'building' || thing.kind === 'part')
    return emit('shift', kindOf(thing), thing.id, [dx, dy])
  if (thing.kind !== 'corner') return
  const [line, corner] = split(thing)
  const at = props.yard.lines.find((l) => l.id === line)?.points[corner]
  if (at) emit('move', line, corner, [(at[0] ?? 0) + dx, (at[1] ?? 0) + dy])
}
const pushed = (id: string) =>
  moved.value?.id === id ? `translate(${moved.value.by[0]} ${moved.value.by[1]})` : undefined
/** A length for the scale bar: whole feet or metres, about a sixth of the picture. */
const bar = computed(() => {
  const unit = props.metric ? 39.37 : 12
  const want = width.value / scale.value.per / 7 / unit
  const step = [1, 2, 5, 10, 20, 50, 100, 200].findLast((n) => n <= want) ?? 1
  return { px: step * unit * scale.value.per, text: props.metric ? `${step} m` : `${step}′` }
})
const dragged = computed(() => {
  const held = drag.value
  if (!held) return ''
  const line = props.yard.lines.find((l) => l.id === held.line)
  if (!line) return ''
  const at = pointsOf(line)
  const long = at.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - at[i]![0], p[1] - at[i]![1]), 0)
  return tapeText(Math.round(long), props.metric)
})
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      label="The yard from above, north up"
      :width="width"
      :height="height"
      :things="things"
      testid="yard"
      @pick="(thing) => ['trench', 'span', 'building'].includes(thing.kind) && emit('look', thing.id)"
      @pull="pulled"
      @drop="drop"
      @cancel="drag = moved = null"
      @nudge="nudge"
    >
      <rect :width="width" :height="height" class="lawn" />
      <g v-for="shape in areas" :key="shape.id" :transform="pushed(shape.id)">
        <path v-for="(ring, i) in shape.rings" :key="i" :d="path(ring, true)" :class="['area', shape.kind]" />
        <text
          v-if="shape.kind !== 'street' && !(narrow && shape.kind !== 'drive')"
          :x="shown(shape.at)[0]"
          :y="shown(shape.at)[1] + 4"
          text-anchor="middle"
          class="small"
        >
          {{ shape.text }}
        </text>
      </g>
      <g v-for="line in trenches" :key="line.id">
        <path
          :d="path(pointsOf(line))"
          class="glow"
          :class="{ here: line.id === here }"
          :stroke-width="wide(line.width_in) + 9"
        />
        <path :d="path(pointsOf(line))" class="dug" :stroke-width="wide(line.width_in)" />
        <path :d="path(pointsOf(line))" class="pipe" :class="line.verdict" />
      </g>
      <g v-for="shape in services" :key="shape.id" :transform="pushed(shape.id)">
        <path :d="path(shape.line)" :class="['service', shape.kind]" />
        <text :x="tag(shape.line)[0]" :y="tag(shape.line)[1]" class="small halo">{{ shape.text }}</text>
      </g>
      <g v-for="shape in buildings" :key="shape.id" :transform="pushed(shape.id)">
        <path
          v-for="(ring, i) in shape.rings"
          :key="i"
          :d="path(ring, true)"
          class="building"
          :class="{ undrawn: !shape.drawn }"
        />
      </g>
      <g v-for="word in buildingWords" :key="word.id" :transform="pushed(word.id)">
        <text
          v-for="(part, i) in word.lines"
          :key="i"
          :x="word.x"
          :y="word.y + i * 16"
          text-anchor="middle"
          class="name"
          :class="{ halo: word.under }"
        >
          {{ part }}
        </text>
        <text
          v-if="word.text"
          :x="word.x"
          :y="word.y + word.lines.length * 16"
          text-anchor="middle"
          class="small"
        >
          {{ word.text }}
        </text>
      </g>
      <g v-for="line in spans" :key="line.id">
        <path :d="path(pointsOf(line))" class="wire" :class="[line.verdict, { here: line.id === here }]" />
        <text
          :x="Math.min(middle(pointsOf(line))[0] + 8, width - 94)"
          :y="middle(pointsOf(line))[1]"
          class="small halo"
        >
          overhead {{ line.text }}
        </text>
      </g>
      <g v-for="(mark, i) in yard.marks" :key="i">
        <template v-if="mark.kind === 'rod'">
          <circle :cx="px(mark.at)[0]" :cy="px(mark.at)[1]" r="4.5" class="rod" />
          <path :d="`M${px(mark.at)[0]} ${px(mark.at)[1] - 4.5}v9`" class="rodline" />
        </template>
        <template v-else-if="mark.kind === 'meter'">
          <rect :x="px(mark.at)[0] - 5" :y="px(mark.at)[1] - 5" width="10" height="10" class="rod" />
          <text
            v-if="!narrow"
            :x="px(mark.at)[0] - 8"
            :y="px(mark.at)[1] - 8"
            text-anchor="end"
            class="small halo"
          >
            {{ mark.text }}
          </text>
        </template>
        <template v-else>
          <circle :cx="px(mark.at)[0]" :cy="px(mark.at)[1]" r="5.5" class="tube" />
          <circle :cx="px(mark.at)[0]" :cy="px(mark.at)[1]" r="1.8" class="hole" />
          <text
            :x="px(mark.at)[0] + 11 * side(mark.at)"
            :y="px(mark.at)[1] + 4"
            :text-anchor="side(mark.at) > 0 ? 'start' : 'end'"
            class="read halo"
            :class="{ bad: !mark.fine }"
          >
            {{ mark.text }}
          </text>
        </template>
      </g>
      <g v-for="thing in things.filter((t) => t.kind === 'corner')" :key="thing.id">
        <rect :x="thing.x + 1" :y="thing.y + 1" width="10" height="10" class="handle" />
      </g>
      <g class="north" transform="translate(22 16)">
        <path d="M0 16V0M-4 5L0 0l4 5" />
        <text x="0" y="29" text-anchor="middle" class="small">N</text>
      </g>
      <g class="bar" :transform="`translate(14 ${height - 14})`">
        <path :d="`M0 -4v4h${bar.px}v-4`" />
        <text :x="bar.px + 7" y="2" class="small">{{ bar.text }}</text>
      </g>
      <text v-if="dragged" :x="width / 2" y="20" text-anchor="middle" class="read halo">{{ dragged }}</text>
    </SvgPicture>
  </div>
</template>

<style scoped>
.host {
  height: 100%;
  min-height: 260px;
}
.lawn {
  fill: color-mix(in srgb, var(--fine) 13%, var(--paper));
}
.area {
  fill: var(--concrete, #cfcfca);
  stroke: none;
}
.area.bed {
  fill: color-mix(in srgb, var(--fine) 26%, var(--paper));
}
.area.tree {
  fill: color-mix(in srgb, var(--fine) 34%, transparent);
}
.area.septic {
  fill: none;
  stroke: var(--mute);
  stroke-dasharray: 6 4;
}
.area.pool {
  fill: color-mix(in srgb, var(--chalk) 30%, var(--paper));
}
.area.spot {
  fill: var(--ink);
}
.glow {
  fill: none;
  stroke: none;
}
.glow.here {
  stroke: color-mix(in srgb, var(--chalk) 32%, transparent);
  stroke-linejoin: round;
}
.dug {
  fill: none;
  stroke: var(--soil, #b79b77);
  stroke-linejoin: round;
}
.pipe {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.pipe.stop {
  stroke: var(--stop);
}
.service {
  fill: none;
  stroke-width: 2.2;
  stroke-dasharray: 8 5;
  stroke: var(--mute);
}
.service.gas {
  stroke: #c98508;
}
.service.water {
  stroke: var(--chalk);
}
.service.power {
  stroke: var(--stop);
}
.service.sewer {
  stroke: var(--fine);
}
.service.phone {
  stroke: #b3561c;
}
.building {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 2.4;
}
.building.undrawn {
  stroke-dasharray: 6 4;
}
.name {
  font-size: 15px;
  font-weight: 600;
  fill: var(--ink);
}
.small {
  font-size: 13.5px;
  font-weight: 500;
  fill: var(--ink);
}
.halo {
  paint-order: stroke;
  stroke: color-mix(in srgb, var(--fine) 13%, var(--paper));
  stroke-width: 4px;
}
.wire {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.wire.stop {
  stroke: var(--stop);
}
.wire.here {
  stroke-width: 3.4;
  stroke: var(--chalk);
}
.rod {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.rodline,
.north path,
.bar path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.tube {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 2;
}
.hole {
  fill: var(--ink);
}
.read {
  font-size: 15px;
  font-weight: 700;
  fill: var(--ink);
}
.read.bad {
  fill: var(--stop);
}
.handle {
  fill: var(--card);
  stroke: var(--chalk);
  stroke-width: 2.4;
}
</style>
