<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Behind, XRay } from '../../api/client'
import type { Thing } from '../../parts/picture/things'
import { inchText, tapeText } from '../../parts/planScale'
import type { Laid, XScale } from './record'

/** The x-ray as drawn: framing, openings, cables in their jackets with their letters, boxes, what was found, photos. */
const props = defineProps<{
  shown: XRay
  scale: XScale
  cables: Laid[]
  node: string | null
  spot: Behind | null
  metric: boolean
  drag: { thing: Thing; dx: number; dy: number } | null
}>()
const clip = useId()
const flat = computed(() => !/^\d/.test(props.shown.surface))
const rect = (item: { x0: number; x1: number; y0: number; y1: number }) => ({
  x: props.scale.x(item.x0),
  y: props.scale.y(item.y1),
  width: Math.max((item.x1 - item.x0) * props.scale.per, 1),
  height: Math.max((item.y1 - item.y0) * props.scale.per, 1),
})
const line = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${props.scale.x(p[0] ?? 0)},${props.scale.y(p[1] ?? 0)}`).join(' ')
const shift = (kind: string, id: string) => {
  const now = props.drag
  return now && now.thing.kind === kind && now.thing.id.startsWith(id)
    ? `translate(${now.dx} ${now.dy})`
    : undefined
}
const picked = computed(() => props.shown.boxes.find((box) => box.id === props.node))
/** The two readings that are drawn: of the spot that was asked for, else of the box looked at. */
const marked = computed(() => {
  if (props.spot) return { at: props.spot.at_in, up: props.spot.height_in }
  const box = picked.value
  if (!box) return null
  const up = box.kind === 'panel' ? box.y0 : (box.y0 + box.y1) / 2
  return { at: (box.x0 + box.x1) / 2, up }
})
/** A label steps up where another is near. */
const letters = computed(() => {
  const placed = props.shown.boxes.map((box) => ({
    x: props.scale.x((box.x0 + box.x1) / 2),
    y: props.scale.y(box.y1) - 5,
  }))
  return props.cables.map((one) => {
    const at = { x: one.label[0], y: one.label[1] - 6 }
    while (placed.some((p) => Math.abs(p.x - at.x) < 44 && Math.abs(p.y - at.y) < 14)) at.x += 46
    at.x = Math.min(Math.max(at.x, props.scale.left + 22), props.scale.width - props.scale.left - 22)
    placed.push(at)
    return at
  })
})
const readingX = computed(() => {
  const now = marked.value
  return now ? Math.max((props.scale.x(0) + props.scale.x(now.at)) / 2, props.scale.left + 26) : 0
})
</script>

<template>
  <g>
    <polygon :points="line(shown.outline)" class="wall" />
    <rect v-for="(f, i) in shown.framing" :key="`f${i}`" v-bind="rect(f)" class="wood" :class="f.kind" />
    <g v-for="o in shown.openings" :key="o.id">
      <rect v-bind="rect(o)" class="opening" :class="o.kind" />
      <text
        v-if="(o.x1 - o.x0) * scale.per > o.label.length * 7"
        :x="scale.x((o.x0 + o.x1) / 2)"
        :y="scale.y((o.y0 + o.y1) / 2) + 4"
        text-anchor="middle"
        class="faint"
      >
        {{ o.label }}
      </text>
    </g>
    <rect v-for="f in shown.fixtures" :key="f.id" v-bind="rect(f)" class="fixture" />
    <clipPath :id="clip"><polygon :points="line(shown.outline)" /></clipPath>
    <g :clip-path="`url(#${clip})`">
      <g v-for="(one, i) in cables" :key="`c${i}`" :class="['cable', one.cable.state, `w${one.cable.wire}`]">
        <g :transform="shift('cable', `${one.cable.circuit}.${one.cable.box}.${i}`)">
          <polyline :points="one.points.map((p) => p.join(',')).join(' ')" class="edge" />
          <polyline
            :points="one.points.map((p) => p.join(',')).join(' ')"
            class="jacket"
            :class="{ pipe: !one.cable.wire }"
          />
        </g>
      </g>
    </g>
    <circle
      v-for="(h, i) in shown.holes"
      :key="`h${i}`"
      :cx="scale.x(h.x)"
      :cy="scale.y(h.y)"
      :r="Math.max((h.bit_in / 2) * scale.per, 2.6)"
      class="bored"
    />
    <rect
      v-for="(h, i) in shown.holes.filter((item) => item.plate)"
      :key="`p${i}`"
      :x="scale.x(h.x) - 6"
      :y="scale.y(h.y) - 8"
      width="12"
      height="16"
      class="plate"
    />
    <path
      v-for="(s, i) in shown.staples"
      :key="`s${i}`"
      :d="`M${scale.x(s[0] ?? 0) - 5} ${scale.y(s[1] ?? 0)}h10`"
      class="staple"
    />
    <g v-for="e in shown.extras" :key="e.id" class="extra" :class="e.what">
      <polyline v-if="e.points.length > 1" :points="line(e.points)" />
      <circle v-else :cx="scale.x(e.points[0]?.[0] ?? 0)" :cy="scale.y(e.points[0]?.[1] ?? 0)" r="6" />
      <text :x="scale.x(e.points[0]?.[0] ?? 0) + 8" :y="scale.y(e.points[0]?.[1] ?? 0) - 6">{{
        e.text
      }}</text>
    </g>
    <g
      v-for="box in shown.boxes"
      :key="box.id"
      class="box"
      :class="[box.state, { picked: box.id === node, panel: box.kind === 'panel' }]"
      :transform="shift('box', box.id)"
      :data-xray-box="box.name"
    >
      <rect v-bind="rect(box)" rx="1.5" />
      <path
        v-if="box.state === 'made'"
        :d="`M${scale.x((box.x0 + box.x1) / 2) - 4} ${scale.y((box.y0 + box.y1) / 2)}l3 3.6 5.4-7`"
        class="made-mark"
      />
      <text :x="scale.x((box.x0 + box.x1) / 2)" :y="scale.y(box.y1) - 5" text-anchor="middle">
        {{ box.name }}{{ box.moved ? ' *' : '' }}
      </text>
    </g>
    <g v-for="(one, i) in cables" :key="`l${i}`" class="letter">
      <text :x="letters[i]?.x" :y="letters[i]?.y" text-anchor="middle">{{ one.cable.letter }}</text>
    </g>
    <g v-if="marked" class="reading">
      <path :d="`M${scale.x(0)} ${scale.y(0) - 12}H${scale.x(marked.at)}`" />
      <path :d="`M${scale.x(marked.at)} ${scale.y(0)}V${scale.y(marked.up)}`" />
      <text :x="readingX" :y="scale.y(0) - 17" text-anchor="middle">{{ tapeText(marked.at, metric) }}</text>
      <text
        :x="scale.x(marked.at) + (scale.x(marked.at) > scale.width - 90 ? -6 : 6)"
        :y="scale.y(marked.up / 2) + 4"
        :text-anchor="scale.x(marked.at) > scale.width - 90 ? 'end' : 'start'"
      >
        {{ flat ? tapeText(marked.up, metric) : inchText(marked.up, metric) }}
      </text>
    </g>
    <g v-for="p in shown.photos" :key="p.id" class="photo" :transform="shift('photo', p.id)">
      <rect :x="scale.x(p.x) - 12" :y="scale.y(p.y) - 9" width="24" height="18" rx="2" />
      <circle :cx="scale.x(p.x)" :cy="scale.y(p.y)" r="5" />
      <text :x="scale.x(p.x) + 16" :y="scale.y(p.y) + 4">{{ p.number }}</text>
    </g>
    <g v-if="spot" class="asked" :class="spot.verdict">
      <circle :cx="scale.x(spot.at_in)" :cy="scale.y(spot.height_in)" r="9" />
      <path
        :d="`M${scale.x(spot.at_in) - 14} ${scale.y(spot.height_in)}h28M${scale.x(spot.at_in)} ${scale.y(spot.height_in) - 14}v28`"
      />
    </g>
    <text :x="scale.left" :y="scale.height - 8" class="faint">
      to scale, {{ shown.edges }}{{ shown.boxes.some((b) => b.moved) ? ' · * moved from the plan' : '' }}
    </text>
  </g>
</template>

<style scoped>
text {
  font-size: 13px;
  font-weight: 600;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.faint {
  fill: var(--mute);
  font-weight: 500;
}
.wall {
  fill: color-mix(in srgb, var(--lumber) 26%, var(--card));
  stroke: var(--ink);
  stroke-width: 1.2;
}
.wood {
  fill: color-mix(in srgb, var(--soil) 60%, var(--card));
  stroke: color-mix(in srgb, var(--soil) 90%, var(--ink));
  stroke-width: 0.5;
}
.joist {
  opacity: 0.55;
}
.opening {
  fill: var(--card);
  stroke: var(--ink);
}
.opening.window,
.opening.glass_door {
  fill: color-mix(in srgb, var(--chalk) 14%, var(--card));
}
.fixture {
  fill: none;
  stroke: var(--mute);
  stroke-dasharray: 4 3;
}
.cable polyline {
  fill: none;
  stroke-linejoin: round;
}
.edge {
  stroke: #20262a;
  stroke-width: 5;
}
.jacket {
  stroke: var(--jacket, #4a4f52);
  stroke-width: 3.4;
}
.jacket.pipe {
  stroke: #9aa3a8;
}
.cable.moved .edge {
  stroke: var(--chalk);
  stroke-width: 7;
}
.cable.left_out {
  opacity: 0.35;
}
.cable.left_out .jacket {
  stroke-dasharray: 4 4;
}
.bored {
  fill: var(--card);
  stroke: #20262a;
  stroke-width: 1.2;
}
.plate {
  fill: #9aa3a8;
  stroke: #20262a;
  opacity: 0.85;
}
.staple {
  stroke: var(--ink);
  stroke-width: 2;
}
.extra polyline {
  fill: none;
  stroke: var(--check-mark);
  stroke-width: 5;
  stroke-dasharray: 8 3;
}
.extra.water polyline {
  stroke: var(--chalk);
}
.extra circle {
  fill: var(--check-mark);
}
.box rect {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.box.panel rect {
  fill: #5d666c;
}
.box.made rect {
  stroke: var(--fine);
  stroke-width: 2.2;
}
.box.left_out {
  opacity: 0.5;
}
.box.left_out rect {
  stroke-dasharray: 3 2;
}
.box.picked rect {
  stroke: var(--chalk);
  stroke-width: 3;
  fill: color-mix(in srgb, var(--chalk) 16%, var(--card));
}
.box.picked text {
  fill: var(--chalk);
}
.made-mark {
  fill: none;
  stroke: var(--fine);
  stroke-width: 2.4;
}
.letter text {
  font-size: 12.5px;
}
.reading path {
  stroke: var(--chalk);
  stroke-width: 1.4;
  fill: none;
}
.reading text {
  fill: var(--chalk);
}
.photo rect {
  fill: var(--card);
  stroke: #20262a;
  stroke-width: 1.4;
}
.photo circle {
  fill: none;
  stroke: #20262a;
  stroke-width: 1.4;
}
.asked circle {
  fill: none;
  stroke: var(--stop);
  stroke-width: 2.4;
}
.asked path {
  stroke: var(--stop);
  stroke-width: 1.4;
}
.asked.fine circle,
.asked.fine path {
  stroke: var(--fine);
}
.asked.check circle,
.asked.check path {
  stroke: var(--check-mark);
}
</style>
