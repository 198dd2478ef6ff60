<script setup lang="ts">
import { computed } from 'vue'

import type { Strip } from '../../api/client'
import type { Scale } from './stripScale'

/** What the way lies in: framing, block, earth to its true depth, floors and ceilings that are known. */
const props = defineProps<{ strip: Strip; scale: Scale }>()

const STUD_IN = 16

interface Zone {
  key: string
  look: string
  x: number
  w: number
  y: number
  h: number
  studs: number[]
  title: string
}

const floors = computed(() => props.strip.floors)

/** Height of a room at a place along the tape: floor to ceiling where known. */
function room(x0: number, x1: number, under: boolean): [number, number] | null {
  const covers = (f: { x0: number; x1: number }) => f.x0 <= x0 + 1 && f.x1 >= x1 - 1
  const find = (kind: string) => floors.value.find((f) => f.kind === kind && covers(f))?.y
  const [floor, ceiling, ground] = [find('floor'), find('ceiling'), find('ground')]
  if (under && floor !== undefined) return [ground ?? floor - 30, floor]
  if (floor !== undefined && ceiling !== undefined) return [floor, ceiling]
  return null
}

const zones = computed<Zone[]>(() => {
  const { x, y } = props.scale
  return props.strip.bands.flatMap((band, i) => {
    if (band.look === 'earth' || band.look === 'air') return []
    const own = props.strip.legs.filter((leg) => band.legs.includes(leg.index))
    const ys = own.flatMap((leg) => [leg.y0, leg.y1])
    const span = room(band.x0, band.x1, band.place === 'crawl_space')
    const [low, high] = [
      Math.min(span?.[0] ?? Infinity, band.foot_in ?? Infinity, ...ys) -
        (span || band.foot_in != null ? 0 : 6),
      Math.max(span?.[1] ?? -Infinity, ...ys) + (span ? 0 : 6),
    ]
    let [x0, x1] = [x(band.x0), x(band.x1)]
    if (band.x0 === band.x1) {
      if (i === 0) x0 -= 44
      else if (i === props.strip.bands.length - 1) x1 += 24
      else {
        x0 -= 5
        x1 += 5
      }
    }
    const studs: number[] = []
    const framed = ['stud_wall', 'ceiling_joists', 'crawl_space', 'attic'].includes(band.place)
    if (framed && x(STUD_IN) - x(0) > 3)
      for (let at = band.x0 + STUD_IN / 2; at < band.x1; at += STUD_IN) studs.push(x(at))
    return [
      {
        key: `${i}`,
        look: band.look,
        x: x0,
        w: x1 - x0,
        y: Math.max(y(high), props.scale.top - 6),
        h: y(low) - Math.max(y(high), props.scale.top - 6),
        studs,
        title: band.title,
      },
    ]
  })
})

const earth = computed(() =>
  props.strip.depths.map((d) => ({
    ...d,
    px: props.scale.x(d.x0),
    pw: props.scale.x(d.x1) - props.scale.x(d.x0),
    top: props.scale.y(d.grade_y),
  })),
)
const lines = computed(() =>
  floors.value.filter(
    (f) => f.kind !== 'grade' && f.kind !== 'soil' && props.scale.y(f.y) > props.scale.top - 8,
  ),
)
const soils = computed(() => floors.value.filter((f) => f.kind === 'soil'))
</script>

<template>
  <g>
    <g v-for="zone in zones" :key="zone.key">
      <rect :x="zone.x" :y="zone.y" :width="zone.w" :height="zone.h" :class="['zone', zone.look]">
        <title>{{ zone.title }}</title>
      </rect>
      <path v-for="at in zone.studs" :key="at" :d="`M${at} ${zone.y}v${zone.h}`" class="stud" />
    </g>
    <rect
      v-for="(soil, i) in soils"
      :key="`s${i}`"
      :x="scale.x(soil.x0)"
      :y="scale.y(soil.y)"
      :width="scale.x(soil.x1) - scale.x(soil.x0)"
      :height="Math.max(scale.bottom - scale.y(soil.y), 0)"
      class="earth"
    />
    <g v-for="d in earth" :key="`e${d.leg}`">
      <rect :x="d.px" :y="d.top" :width="d.pw" :height="scale.bottom - d.top" class="earth" />
      <path :d="`M${d.px} ${d.top}h${d.pw}`" class="grade" />
    </g>
    <g v-for="(line, i) in lines" :key="`l${i}`">
      <path :d="`M${scale.x(line.x0)} ${scale.y(line.y)}H${scale.x(line.x1)}`" :class="['floor', line.kind]">
        <title>{{ line.label }}</title>
      </path>
    </g>
  </g>
</template>

<style scoped>
.zone.lumber {
  fill: var(--lumber);
  opacity: 0.45;
}
.zone.concrete {
  fill: var(--concrete);
  opacity: 0.6;
}
.zone.wall {
  fill: var(--soil);
  opacity: 0.28;
}
.stud {
  stroke: var(--soil);
  stroke-width: 2;
  opacity: 0.35;
}
.earth {
  fill: var(--soil);
  opacity: 0.55;
}
.grade {
  stroke: #5f8f3a;
  stroke-width: 3;
}
.floor {
  stroke: var(--mute);
  stroke-width: 1.2;
}
.floor.ground {
  stroke: var(--soil);
  stroke-width: 2;
}
.floor.ceiling {
  stroke-dasharray: 5 4;
}
</style>
