<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SiteOutline } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Spot, Thing } from '../../parts/picture/things'
import { planScale, tapeText, type XY } from '../../parts/planScale'
import { useSize } from '../../parts/useSize'

/** All structures on the site with the yard between, to one scale. Drag one to where it stands. */
const props = defineProps<{ sites: SiteOutline[]; metric: boolean }>()
const emit = defineEmits<{ move: [id: string, x: number, y: number] }>()

const host = ref<HTMLElement | null>(null)
const { width, height } = useSize(host, 720, 400)
const outlines = computed(() =>
  props.sites.map((site) => {
    const points = site.rooms.flatMap((room) => room as XY[])
    const xs = points.length ? points.map((p) => p[0]) : [site.x_in, site.x_in + 120]
    const ys = points.length ? points.map((p) => p[1]) : [site.y_in, site.y_in + 96]
    return { site, x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) }
  }),
)
const scale = computed(() =>
  planScale(
    outlines.value.flatMap((o) => [[o.x0, o.y0] as XY, [o.x1, o.y1] as XY]),
    width.value,
    height.value,
    60,
  ),
)
const path = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${scale.value.x(p[0] ?? 0)},${scale.value.y(p[1] ?? 0)}`).join(' ')

const SNAP_IN = 6
const drag = ref<{ id: string; by: XY } | null>(null)
const shift = (id: string) => (drag.value?.id === id ? drag.value.by : ([0, 0] as XY))
const things = computed<Thing[]>(() =>
  outlines.value.map((o) => ({
    id: o.site.id,
    kind: 'building',
    name: `${o.site.name}, ${tapeText(o.x1 - o.x0, props.metric)} by ${tapeText(o.y1 - o.y0, props.metric)}`,
    x: scale.value.x(o.x0),
    y: scale.value.y(o.y1),
    w: (o.x1 - o.x0) * scale.value.per,
    h: (o.y1 - o.y0) * scale.value.per,
    drags: true,
    mark: o.site.id,
  })),
)
function pull(thing: Thing, to: Spot, from: Spot) {
  const steps = (px: number) => Math.round(px / scale.value.per / SNAP_IN) * SNAP_IN
  drag.value = { id: thing.id, by: [steps(to.x - from.x), steps(from.y - to.y)] }
}
function moved(id: string, by: XY) {
  const site = props.sites.find((one) => one.id === id)
  if (site && (by[0] || by[1])) emit('move', id, site.x_in + by[0], site.y_in + by[1])
}
function drop() {
  const now = drag.value
  drag.value = null
  if (now) moved(now.id, now.by)
}
/** Clear distance from each structure to its nearest neighbour. */
const yards = computed(() =>
  outlines.value.flatMap((a, i) => {
    let best: { d: number; a: XY; b: XY } | null = null
    for (const [j, b] of outlines.value.entries()) {
      if (i === j) continue
      const px = Math.min(Math.max((b.x0 + b.x1) / 2, a.x0), a.x1)
      const py = Math.min(Math.max((b.y0 + b.y1) / 2, a.y0), a.y1)
      const qx = Math.min(Math.max(px, b.x0), b.x1)
      const qy = Math.min(Math.max(py, b.y0), b.y1)
      const d = Math.hypot(px - qx, py - qy)
      if (!best || d < best.d) best = { d, a: [px, py], b: [qx, qy] }
    }
    return best && best.d > 12 ? [{ key: a.site.id, ...best }] : []
  }),
)
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      label="The site, to scale"
      testid="site"
      :width="width"
      :height="height"
      :things="things"
      @pull="pull"
      @drop="drop"
      @cancel="drag = null"
      @nudge="(thing, by) => moved(thing.id, [by.right * SNAP_IN, by.up * SNAP_IN])"
    >
      <g v-for="yard in yards" :key="`y${yard.key}`" class="yard">
        <path
          :d="`M${scale.x(yard.a[0])} ${scale.y(yard.a[1])}L${scale.x(yard.b[0])} ${scale.y(yard.b[1])}`"
        />
        <text
          :x="(scale.x(yard.a[0]) + scale.x(yard.b[0])) / 2 + 6"
          :y="(scale.y(yard.a[1]) + scale.y(yard.b[1])) / 2 - 4"
        >
          {{ tapeText(Math.round(yard.d), metric) }}
        </text>
      </g>
      <g
        v-for="o in outlines"
        :key="o.site.id"
        class="building"
        :data-site="o.site.id"
        :transform="`translate(${shift(o.site.id)[0] * scale.per} ${-shift(o.site.id)[1] * scale.per})`"
      >
        <polygon v-for="(room, i) in o.site.rooms" :key="i" :points="path(room as XY[])" />
        <rect
          v-if="!o.site.rooms.length"
          :x="scale.x(o.x0)"
          :y="scale.y(o.y1)"
          :width="120 * scale.per"
          :height="96 * scale.per"
          class="bare"
        />
        <text :x="scale.x((o.x0 + o.x1) / 2)" :y="scale.y(o.y1) - 8" text-anchor="middle">
          {{ o.site.name }}
        </text>
      </g>
      <text x="12" :y="height - 12" class="hint">Drag a structure to where it stands; it snaps to 6″.</text>
    </SvgPicture>
  </div>
</template>

<style scoped>
.host {
  width: 100%;
  height: 100%;
  background: color-mix(in srgb, var(--fine) 10%, var(--card));
}
polygon,
.bare {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 2;
}
.bare {
  stroke-dasharray: 5 4;
}
text {
  font-size: 14px;
  font-weight: 600;
  fill: var(--ink);
}
.yard path {
  stroke: var(--chalk);
  stroke-dasharray: 4 4;
}
.yard text {
  fill: var(--chalk);
  font-size: 13px;
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
}
.hint {
  fill: var(--mute);
  font-weight: 500;
  font-size: 13px;
}
</style>
