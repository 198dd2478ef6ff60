<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Strip } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Thing } from '../../parts/picture/things'
import { useSize } from '../../parts/useSize'
import StripGround from './StripGround.vue'
import StripPath from './StripPath.vue'
import { CHAR, type Label, placeLabels, type Rect, scaleOf, type Spot } from './stripScale'

/** The way unrolled: tape along the top, places as bands, the way itself, what holds it and what it lacks. */
const props = defineProps<{ strip: Strip; leg: number | null; metric: boolean }>()
const emit = defineEmits<{ select: [leg: number | null] }>()

const host = ref<HTMLElement | null>(null)
const size = useSize(host)
const width = computed(() => Math.max(size.width.value, 620))
const height = computed(() => Math.max(size.height.value, 300))

const s = computed(() => scaleOf(props.strip, width.value, height.value, props.metric))
watch(
  () => [props.leg, s.value.width] as const,
  ([leg]) => {
    const at = props.strip.legs.find((item) => item.index === leg)
    const box = host.value
    if (at && box && box.scrollWidth > box.clientWidth)
      box.scrollTo({ left: s.value.x((at.x0 + at.x1) / 2) - box.clientWidth / 2, behavior: 'smooth' })
  },
  { flush: 'post' },
)
const feet = (inches: number) =>
  props.metric ? `${+(inches * 0.0254).toFixed(1)} m` : `${Math.round((inches / 12) * 10) / 10}′`

const titles = computed(() => {
  const ends: number[] = [0, 0]
  return props.strip.bands.flatMap((band, i) => {
    const first = i === 0 && band.x0 === band.x1
    const last = i === props.strip.bands.length - 1 && band.x0 === band.x1
    const middle = first ? s.value.left - 38 : last ? s.value.right + 20 : s.value.x((band.x0 + band.x1) / 2)
    if (band.x0 === band.x1 && !first && !last) return []
    const room = band.x0 === band.x1 ? 76 : s.value.x(band.x1) - s.value.x(band.x0)
    const wide = Math.max(band.title.length, band.subtitle.length) * CHAR
    const row = wide <= room + 8 ? 0 : 1
    const words = row === 0 || band.subtitle.length * CHAR <= room + 30 ? band.subtitle : ''
    const half = (Math.max(band.title.length, words.length) * CHAR) / 2
    const x = Math.min(Math.max(middle, half + 2), s.value.width - half - 2)
    if (x - half < (ends[0] ?? 0) + 6) return []
    ends[0] = x + half
    return [{ key: i, x, title: band.title, subtitle: words }]
  })
})

const labels = computed(() => {
  const { x, y } = s.value
  const wanted: Label[] = []
  const taken: Rect[] = props.strip.legs.map((leg) => ({
    x0: Math.min(x(leg.x0), x(leg.x1)) - 4,
    x1: Math.max(x(leg.x0), x(leg.x1)) + 4,
    y0: Math.min(y(leg.y0), y(leg.y1)) - 4,
    y1: Math.max(y(leg.y0), y(leg.y1)) + 4,
  }))
  for (const m of props.strip.marks)
    if (!['bend', 'fold', 'hole', 'staple', 'strap'].includes(m.kind))
      taken.push(
        m.kind === 'panel'
          ? { x0: x(m.x) - 14, x1: x(m.x) + 14, y0: y(m.y + m.tall_in) - 2, y1: y(m.y) + 2 }
          : { x0: x(m.x) - 8, x1: x(m.x) + 8, y0: y(m.y) - 8, y1: y(m.y) + 8 },
      )
  for (const f of props.strip.floors)
    if (f.kind !== 'soil') taken.push({ x0: x(f.x0), x1: x(f.x1), y0: y(f.y) - 1, y1: y(f.y) + 1 })
  for (const d of props.strip.depths) {
    const at = (x(d.x0) + x(d.x1)) / 2
    const long = Math.max(d.text.length, (d.short_text.length || 0) + 4) * CHAR
    taken.push({ x0: at - 4, x1: at + long + 12, y0: y(d.grade_y), y1: y(d.pipe_y) + 44 })
  }
  for (const [i, m] of props.strip.marks.entries()) {
    if (!m.label || m.kind === 'fold') continue
    const tone = m.kind === 'bend' ? 'bend' : m.kind === 'open' ? 'open' : 'node'
    const spots: Spot[] | undefined =
      m.kind === 'panel' ? ['right', 'left', 'above-right', 'above-left', 'above'] : undefined
    const lift = m.kind === 'panel' ? (y(m.y) - y(m.y + m.tall_in)) / 2 : 0
    const apart = m.kind === 'panel' ? 6 : 0
    wanted.push({ id: `${i}`, x: x(m.x), y: y(m.y) - lift, apart, text: m.label, tone, spots })
  }
  wanted.sort((a, b) => Number(a.tone === 'bend') - Number(b.tone === 'bend'))
  return placeLabels(wanted, taken, { x0: 2, y0: s.value.top - 8, x1: s.value.width - 2, y1: s.value.height })
})

const things = computed<Thing[]>(() =>
  props.strip.legs.map((leg) => {
    const { x, y } = s.value
    const [x0, x1] = [Math.min(x(leg.x0), x(leg.x1)), Math.max(x(leg.x0), x(leg.x1))]
    const [y0, y1] = [Math.min(y(leg.y0), y(leg.y1)), Math.max(y(leg.y0), y(leg.y1))]
    return {
      id: String(leg.index),
      kind: 'leg',
      name: `Leg ${leg.index + 1}`,
      x: x0 - 6,
      y: y0 - 6,
      w: x1 - x0 + 12,
      h: y1 - y0 + 12,
      picked: leg.index === props.leg,
      mark: String(leg.index + 1),
    }
  }),
)

const folds = computed(() => props.strip.marks.filter((m) => m.kind === 'fold'))
const pulls = computed(() => {
  const spans = props.strip.pulls.map((pull) => ({
    ...pull,
    x0: s.value.x(pull.x0),
    x1: Math.max(s.value.x(pull.x1), s.value.x(pull.x0) + 5),
  }))
  return spans.map((pull, i) => {
    const [before, after] = [spans[i - 1]?.x1 ?? 0, spans[i + 1]?.x0 ?? s.value.width]
    const room = Math.min((pull.x0 + pull.x1) / 2 - before, after - (pull.x0 + pull.x1) / 2) * 2 - 10
    const text =
      [pull.text, `pull ${pull.index + 1}`, `${pull.index + 1}`].find((t) => t.length * CHAR <= room) ?? ''
    const half = (text.length * CHAR) / 2
    const at = Math.min(Math.max((pull.x0 + pull.x1) / 2, half + 4), s.value.width - half - 4)
    return { ...pull, at, half, text }
  })
})
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      label="The way unrolled: length across, height up"
      testid="strip"
      :width="s.width"
      :height="s.height"
      :things="things"
      @pick="emit('select', Number($event.id))"
      @tap="emit('select', null)"
    >
      <g class="tape">
        <rect :x="s.left" y="6" :width="s.right - s.left" height="22" />
        <path v-for="at in s.minor" :key="`m${at}`" :d="`M${s.x(at)} 28v-4`" />
        <g v-for="at in s.tape" :key="at">
          <path :d="`M${s.x(at)} 28v-9`" />
          <text v-if="at" :x="s.x(at) - 4" y="18" text-anchor="end">{{ feet(at) }}</text>
        </g>
      </g>
      <g v-for="t in titles" :key="t.key" text-anchor="middle">
        <text :x="t.x" y="46" class="place">{{ t.title }}</text>
        <text :x="t.x" y="62" class="sub">{{ t.subtitle }}</text>
      </g>
      <StripGround :strip="strip" :scale="s" />
      <g class="heights">
        <g v-for="at in s.heights" :key="at">
          <path :d="`M${s.left - 80} ${s.y(at)}h6`" />
          <text :x="s.left - 71" :y="s.y(at) + 4">{{ feet(at) }}</text>
        </g>
      </g>
      <g v-for="pull in pulls" :key="pull.index" class="pull" :class="{ over: pull.over }">
        <path :d="`M${pull.x0 + 2} 92v-9H${Math.max(pull.x1 - 2, pull.x0 + 3)}v9`" />
        <template v-if="pull.text">
          <rect :x="pull.at - pull.half - 3" y="74" :width="pull.half * 2 + 6" height="18" />
          <text :x="pull.at" y="88" text-anchor="middle">{{ pull.text }}</text>
        </template>
      </g>
      <g v-for="(fold, i) in folds" :key="`f${i}`" class="fold">
        <path :d="`M${s.x(fold.x)} ${s.top}V${s.bottom}`" />
        <text :x="s.x(fold.x) + 5" :y="s.bottom - 5">{{ fold.label }}</text>
      </g>
      <StripPath :strip="strip" :scale="s" :leg="leg" />
      <text
        v-for="label in labels"
        :key="label.id"
        :x="label.px"
        :y="label.py"
        :text-anchor="label.anchor"
        :class="['label', label.tone]"
      >
        {{ label.text }}
      </text>
      <text x="4" :y="s.height - 4" class="scale">
        {{ s.stretch < 1.05 ? 'to scale' : `heights drawn ${s.stretch.toFixed(1)} × the lengths` }}
      </text>
    </SvgPicture>
  </div>
</template>

<style scoped>
.host {
  width: 100%;
  height: 100%;
  min-height: 300px;
  overflow-x: auto;
  overflow-y: hidden;
}
text {
  fill: var(--ink);
  font-size: 14px;
  font-weight: 500;
}
@media print {
  :deep(svg) {
    width: 100%;
    height: auto;
  }
}
.tape rect {
  fill: var(--tape);
  stroke: var(--ink);
}
.tape path,
.heights path {
  stroke: var(--ink);
}
.tape text {
  font-weight: 600;
  fill: #20262a;
}
.place {
  font-size: 15px;
  font-weight: 600;
}
.sub,
.heights text,
.scale {
  fill: var(--mute);
  font-size: 13px;
}
.pull path {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.6;
}
.pull rect {
  fill: var(--card);
}
.pull text {
  fill: var(--chalk);
  font-weight: 600;
}
.pull.over path {
  stroke: var(--stop);
}
.pull.over text {
  fill: var(--stop);
}
.fold path {
  stroke: var(--chalk);
  stroke-dasharray: 2 5;
}
.fold text {
  fill: var(--chalk);
  font-size: 13px;
}
.label {
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
  stroke-linejoin: round;
}
.label.bend {
  fill: var(--chalk);
}
.label.open {
  fill: var(--check);
}
</style>
