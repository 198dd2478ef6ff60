<script setup lang="ts">
import { computed, ref } from 'vue'

import type { TrenchSection } from '../../api/client'
import { feetText, inchText } from '../../parts/planScale'
import { apart, between, pathOf, type Points, sectionScale } from './section'
import SectionFrame from './SectionFrame.vue'

/** A trench along its length: grade, what lies in it at its own depth, the cover it needs, readings, what crosses. */
const props = defineProps<{ section: TrenchSection; title: string; metric: boolean }>()

const width = ref(740)
const narrow = computed(() => width.value < 520)
const pad = computed(() => ({ left: narrow.value ? 78 : 84, top: 40 }))
/** A riser goes on up out of the picture. */
const RISE_IN = 12
const grade = computed(() => Math.max(...props.section.ground.map((p) => p[1])))
const low = computed(() =>
  Math.min(props.section.low_in, ...props.section.crossings.map((one) => (one.z_in ?? 0) - 6)),
)
const scale = computed(() =>
  sectionScale(
    props.section.long_in,
    low.value,
    grade.value + RISE_IN,
    Math.max(width.value, 320),
    214,
    pad.value,
  ),
)
const height = computed(() => scale.value.height + 26)
const ground = computed(() => props.section.ground as Points)
const bottom = computed(() => props.section.bottom as Points)
const earth = computed(
  () =>
    `${pathOf(ground.value, scale.value)}L${scale.value.x(props.section.long_in)} ${scale.value.height}L${scale.value.x(0)} ${scale.value.height}Z`,
)
const fill = computed(
  () =>
    `${pathOf(ground.value, scale.value)}${pathOf([...bottom.value].reverse(), scale.value).replace('M', 'L')}Z`,
)
const pipes = computed(() =>
  props.section.pipes.map((pipe) => {
    const top = pipe.top as Points
    const under = top.map(([at, up]) => [at, up - pipe.outer_in] as [number, number])
    return {
      ...pipe,
      body: `${pathOf(top, scale.value)}${pathOf(under.reverse(), scale.value).replace('M', 'L')}Z`,
      short: pipe.short.map(([a, b]) => pathOf(between(top, a, b), scale.value)),
    }
  }),
)
const marks = computed(() => {
  const xs = apart(props.section.marks.map((mark) => ({ at: scale.value.x(mark.at_in), wide: 40 })))
  return props.section.marks.map((mark, i) => ({
    ...mark,
    x: scale.value.x(mark.at_in),
    word: xs[i] ?? 0,
    top: scale.value.z(mark.ground_in) - 24,
    foot: scale.value.z(mark.top_in),
  }))
})
const bands = computed(() =>
  props.section.bands.map((band) => ({
    ...band,
    x: scale.value.x(band.start_in),
    w: scale.value.x(band.end_in) - scale.value.x(band.start_in),
  })),
)
/** The words of what it needs: one for each need, at the end of its last stretch. */
const needs = computed(() => {
  const needed = props.section.needed as Points
  return bands.value
    .filter((band, i) => band.needed_in !== bands.value[i + 1]?.needed_in)
    .map((band) => ({
      band,
      x: band.x + band.w - 6,
      y: scale.value.z(between(needed, band.start_in, band.end_in).at(-1)?.[1] ?? 0) - 5,
    }))
})
const crossings = computed(() =>
  props.section.crossings.map((one) => {
    const x = scale.value.x(one.at_in)
    const flip = x > width.value * 0.55
    return { ...one, x, y: one.z_in == null ? null : scale.value.z(one.z_in), flip }
  }),
)
/** Words in lines of up to ten letters. */
function wrapped(name: string): string[] {
  const lines: string[] = []
  for (const word of name.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length < 10) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}
const ends = computed(() =>
  props.section.ends.map((end) => ({
    ...end,
    words: [...wrapped(end.name), end.method],
    x: scale.value.x(end.at_in),
    foot: scale.value.z(end.foot_in),
    top: scale.value.z(Math.min(end.top_in, grade.value + RISE_IN)),
    cut: end.top_in > grade.value + RISE_IN,
  })),
)
const ribbonAt = computed(() => {
  const at = props.section.ribbon as Points
  const x = props.section.long_in * 0.03
  return at.length ? { x: scale.value.x(x), y: scale.value.z(between(at, x, x)[0]?.[1] ?? 0) + 17 } : null
})
const told = computed(() =>
  scale.value.times > 1
    ? `depth to the top · depths drawn ${scale.value.times} × the lengths`
    : scale.value.times
      ? 'depth to the top · true scale'
      : 'depth to the top · not to scale',
)
</script>

<template>
  <SectionFrame :title="title" :told="told" @width="width = $event">
    <svg
      :width="Math.max(width, 320)"
      :height="height"
      role="img"
      data-testid="section"
      :aria-label="`Long section, ${feetText(section.long_in, metric)}: ${section.marks.map((m) => m.text).join(', ') || 'nothing read yet'}`"
    >
      <path :d="earth" class="earth" />
      <path :d="fill" class="fill" />
      <g v-for="(band, i) in bands" :key="i">
        <path :d="pathOf(between(ground, band.start_in, band.end_in), scale)" :class="['grade', band.kind]" />
        <text
          v-if="band.w > 46 && bands.length > 1"
          :x="band.x + band.w / 2"
          :y="scale.height + 16"
          text-anchor="middle"
          class="small"
        >
          {{ band.text }}
        </text>
      </g>
      <path :d="pathOf(section.needed as Points, scale)" class="needed" />
      <g v-if="section.ribbon.length">
        <path :d="pathOf(section.ribbon as Points, scale)" class="ribbon" />
        <text v-if="ribbonAt && !narrow" :x="ribbonAt.x" :y="ribbonAt.y" class="small soilword">
          {{ section.ribbon_text }}
        </text>
      </g>
      <g v-for="pipe in pipes" :key="pipe.way">
        <path :d="pipe.body" class="body" />
        <path v-for="(d, i) in pipe.short" :key="i" :d="d" class="short" />
      </g>
      <g v-for="end in ends" :key="end.name + end.at_in">
        <rect
          :x="end.at_in ? end.x : end.x - 11"
          :y="end.top"
          width="11"
          :height="end.foot - end.top + 4"
          class="riser"
        />
        <path
          v-if="end.cut"
          :d="`M${end.at_in ? end.x - 4 : end.x - 15} ${end.top + 5}l5 -6 5 6 5 -6 5 6`"
          class="cut"
        />
        <text
          :x="end.at_in ? end.x + 16 : end.x - 16"
          :y="end.top + 14"
          :text-anchor="end.at_in ? 'start' : 'end'"
          class="endname"
        >
          <tspan
            v-for="(part, i) in end.words"
            :key="i"
            :x="end.at_in ? end.x + 16 : end.x - 16"
            :dy="i ? 15 : 0"
            :class="{ light: i === end.words.length - 1 }"
          >
            {{ part }}
          </tspan>
        </text>
      </g>
      <g v-for="(mark, i) in marks" :key="i">
        <rect
          v-if="mark.by === 'tube'"
          :x="mark.x - 2.5"
          :y="mark.top"
          width="5"
          :height="mark.foot - mark.top"
          class="tube"
        />
        <path v-else :d="`M${mark.x} ${mark.top}V${mark.foot}M${mark.x - 4} ${mark.foot}h8`" class="tape" />
        <text :x="mark.word" :y="mark.top - 6" text-anchor="middle" class="read" :class="{ bad: !mark.fine }">
          {{ mark.text }}
        </text>
      </g>
      <g v-for="(one, i) in crossings" :key="i">
        <circle v-if="one.y !== null" :cx="one.x" :cy="one.y" r="6.5" :class="['service', one.kind]" />
        <path v-else :d="`M${one.x} ${scale.z(grade)}V${scale.height}`" :class="['serviceline', one.kind]" />
        <text
          :x="one.flip ? one.x - 12 : one.x + 12"
          :y="(one.y ?? scale.height - 12) + 5"
          :text-anchor="one.flip ? 'end' : 'start'"
          class="small soilword"
        >
          {{ one.text }}
        </text>
      </g>
      <text
        v-for="(need, i) in needs"
        :key="`n${i}`"
        :x="need.x"
        :y="need.y"
        text-anchor="end"
        class="needword"
      >
        {{ inchText(need.band.needed_in, metric) }} needed
      </text>
    </svg>
  </SectionFrame>
</template>

<style scoped>
.earth {
  fill: color-mix(in srgb, var(--soil, #b79b77) 55%, var(--card));
}
.fill {
  fill: color-mix(in srgb, var(--lumber, #ebd9b4) 88%, var(--card));
}
.grade {
  fill: none;
  stroke: var(--fine);
  stroke-width: 3;
}
.grade.driveway,
.grade.street,
.grade.slab_4in {
  stroke: var(--mute);
  stroke-width: 7;
}
.grade.under_building {
  stroke: var(--ink);
  stroke-width: 7;
}
.needed {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-dasharray: 7 5;
}
.ribbon {
  fill: none;
  stroke: #c98508;
  stroke-width: 2.4;
  stroke-dasharray: 12 5;
}
.body {
  fill: #8f9498;
  stroke: #20262a;
  stroke-width: 1.2;
}
.short {
  fill: none;
  stroke: #c33b22;
  stroke-width: 5;
  stroke-linecap: butt;
}
.riser {
  fill: #8f9498;
  stroke: #20262a;
  stroke-width: 1.2;
}
.cut {
  fill: none;
  stroke: var(--card);
  stroke-width: 3;
}
.tube {
  fill: #fcfbf7;
  stroke: #20262a;
  stroke-width: 1.3;
}
.tape {
  fill: none;
  stroke: #20262a;
  stroke-width: 1.6;
}
.read {
  font-family: var(--num);
  font-size: 15.5px;
  font-weight: 700;
  fill: var(--fine-text, var(--fine));
}
.read.bad {
  fill: var(--stop);
}
.small,
.endname {
  font-family: var(--num);
  font-size: 13.5px;
  font-weight: 500;
  fill: var(--ink);
}
.endname {
  font-weight: 600;
}
.light {
  font-weight: 500;
}
.soilword,
.needword {
  fill: var(--ink);
}

.needword {
  paint-order: stroke;
  stroke: color-mix(in srgb, var(--lumber, #ebd9b4) 88%, var(--card));
  stroke-width: 3px;
  font-family: var(--num);
  font-size: 13.5px;
  font-weight: 600;
}
.service {
  fill: #6b7277;
  stroke: #20262a;
  stroke-width: 1.4;
}
.service.gas {
  fill: #d9a400;
}
.service.water {
  fill: #2b5c9e;
}
.service.power {
  fill: #c33b22;
}
.service.sewer {
  fill: #3f7a45;
}
.service.phone {
  fill: #b3561c;
}
.serviceline {
  stroke: #6b7277;
  stroke-dasharray: 4 4;
  stroke-width: 2;
}
</style>
