<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SpanSection } from '../../api/client'
import { feetText } from '../../parts/planScale'
import { pathOf, type Points, sectionScale } from './section'
import SectionFrame from './SectionFrame.vue'

/** A span along its length: the ground, the wire as strung and on a hot day, how high it hangs over what is under it. */
const props = defineProps<{ section: SpanSection; title: string; metric: boolean }>()
const width = ref(740)
const PAD = { left: 90, top: 20 }
const scale = computed(() =>
  sectionScale(
    props.section.long_in,
    props.section.low_in,
    props.section.high_in,
    Math.max(width.value, 320),
    216,
    PAD,
  ),
)
const under = computed(() =>
  props.section.under.map((item) => {
    const x = scale.value.x(item.at_in)
    return {
      ...item,
      x,
      ground: scale.value.z(item.ground_in),
      wire: scale.value.z(item.ground_in + item.clear_in),
      need: scale.value.z(item.ground_in + item.needed_in),
      flip: x > width.value * 0.6,
    }
  }),
)
const ends = computed(() => {
  const hot = props.section.hot as Points
  const ground = props.section.ground as Points
  return [0, 1].map((i) => ({
    name: props.section.names[i] ?? '',
    x: scale.value.x(i ? props.section.long_in : 0),
    top: scale.value.z((i ? hot.at(-1) : hot[0])?.[1] ?? props.section.high_in),
    foot: scale.value.z((i ? ground.at(-1) : ground[0])?.[1] ?? 0),
    last: !!i,
  }))
})
const told = computed(() =>
  scale.value.times > 1
    ? `heights drawn ${scale.value.times} × the lengths`
    : scale.value.times
      ? 'true scale'
      : 'heights drawn less than the lengths',
)
</script>

<template>
  <SectionFrame :title="title" :told="told" @width="width = $event">
    <svg
      :width="Math.max(width, 320)"
      :height="scale.height + 30"
      role="img"
      data-testid="span"
      :aria-label="`Span of ${feetText(section.long_in, metric)}: ${under.map((u) => u.text).join(', ') || 'heights not said'}`"
    >
      <path :d="pathOf(section.ground as Points, scale)" class="grade" />
      <g v-for="end in ends" :key="end.x">
        <path :d="`M${end.x} ${end.top}V${end.foot}`" class="wall" />
        <text
          :x="end.last ? end.x + 10 : end.x - 10"
          :y="end.top + 6"
          :text-anchor="end.last ? 'start' : 'end'"
          class="word"
        >
          <tspan
            v-for="(part, i) in end.name.split(' ')"
            :key="i"
            :x="end.last ? end.x + 10 : end.x - 10"
            :dy="i ? 16 : 0"
          >
            {{ part }}
          </tspan>
        </text>
      </g>
      <path v-if="section.strung.length" :d="pathOf(section.strung as Points, scale)" class="strung" />
      <path v-if="section.hot.length" :d="pathOf(section.hot as Points, scale)" class="hot" />
      <g v-for="item in under" :key="item.text">
        <path :d="`M${item.x} ${item.wire}V${item.ground}`" class="tape" :class="{ bad: !item.fine }" />
        <path :d="`M${item.x - 9} ${item.need}h18`" class="need" />
        <text
          :x="item.flip ? item.x - 8 : item.x + 8"
          :y="(item.wire + item.ground) / 2 + (item.text.endsWith('ground') ? 16 : -4)"
          :text-anchor="item.flip ? 'end' : 'start'"
          class="word"
          :class="{ bad: !item.fine }"
        >
          {{ item.text }}
        </text>
      </g>
      <text
        v-if="!section.hot.length"
        :x="scale.x(section.long_in / 2)"
        :y="scale.height / 2"
        text-anchor="middle"
        class="word"
      >
        Say how high it is held at both ends, and it hangs here.
      </text>
      <text
        v-else
        :x="scale.x(section.long_in / 2)"
        :y="scale.height + 22"
        text-anchor="middle"
        class="light"
      >
        solid on a hot day, dashed as strung; the short line is what it must clear
      </text>
    </svg>
  </SectionFrame>
</template>

<style scoped>
.grade {
  fill: none;
  stroke: var(--fine);
  stroke-width: 3;
}
.wall {
  stroke: var(--ink);
  stroke-width: 5;
}
.hot,
.strung {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
}
.strung {
  stroke-dasharray: 6 5;
  stroke-width: 1.4;
}
.tape {
  stroke: var(--chalk);
  stroke-width: 1.6;
}
.tape.bad {
  stroke: var(--stop);
}
.need {
  stroke: var(--stop);
  stroke-width: 2.4;
}
.word,
.light {
  font-family: var(--num);
  font-size: 14px;
  font-weight: 600;
  fill: var(--ink);
}
.light {
  font-weight: 500;
  font-size: 13.5px;
}
.word.bad {
  fill: var(--stop);
}
</style>
