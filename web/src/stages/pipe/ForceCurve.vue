<script setup lang="ts">
import { computed, ref } from 'vue'

import type { HowPulled, PullDrawing } from '../../api/client'
import { useSize } from '../../parts/useSize'
import { feetText, poundText } from '../../parts/planScale'

/**
 * The pull at every point of the pipe, from the end where it is fed: a band for the friction that nobody knows, a line
 * for the usual one; beside it, dashed, the pull fed at the other end.
 */
const props = defineProps<{ how: HowPulled; drawing: PullDrawing | null; length: number; metric: boolean }>()

const host = ref<HTMLElement | null>(null)
const { width } = useSize(host, 740)
const HEIGHT = 214
const TOP = 26
const BASE = HEIGHT - 40
const LEFT = 52
const fed = computed(() => props.how.bands.find((band) => band.fed === props.how.feed))
const other = computed(() => props.how.bands.find((band) => band.fed !== props.how.feed))
const long = computed(() => Math.max(1, ...(fed.value?.points.map((point) => point.at_in) ?? [1])))
const right = computed(() => Math.max(width.value - 150, 240))
const hands = computed(() => props.how.limits.filter((limit) => limit.key.startsWith('hand')))
/** As high as the usual pulls, and the hand over them, ask; the band may run out of the picture, and says so. */
const top = computed(() => {
  const usual = Math.max(...props.how.bands.map((band) => band.usual_lb))
  const hand = hands.value.find((limit) => limit.limit >= usual)?.limit ?? usual
  const most = Math.max(usual * 1.6, Math.min(hand * 1.08, usual * 6), 5)
  const step = 10 ** Math.floor(Math.log10(most / 3))
  const nice = [1, 2, 5, 10].map((n) => n * step).find((n) => most / n <= 5) ?? step
  return { most: Math.ceil(most / nice) * nice, nice }
})
const lines = computed(() =>
  Array.from({ length: Math.round(top.value.most / top.value.nice) + 1 }, (_, i) => i * top.value.nice),
)
const x = (inches: number) => LEFT + (inches / long.value) * (right.value - LEFT)
const y = (lb: number) => BASE - (Math.min(lb, top.value.most * 1.02) / top.value.most) * (BASE - TOP)
type Key = 'low_lb' | 'usual_lb' | 'high_lb'
const path = (points: HowPulled['bands'][number]['points'], key: Key) =>
  points
    .map((point, i) => `${i ? 'L' : 'M'}${x(point.at_in).toFixed(1)} ${y(point[key]).toFixed(1)}`)
    .join('')
const band = computed(() => {
  if (!fed.value) return ''
  const back = [...fed.value.points].reverse()
  return `${path(fed.value.points, 'low_lb')}${path(back, 'high_lb').replace('M', 'L')}Z`
})
const corners = computed(() => props.drawing?.corners.slice(1, -1) ?? [])
const beyond = computed(() => (fed.value?.high_lb ?? 0) > top.value.most)
const at = (end: 'pulled_at' | 'fed_at', own: typeof fed.value) => own?.[end] ?? ''
const startName = computed(() => at(fed.value?.fed === 'start' ? 'fed_at' : 'pulled_at', fed.value))
const endName = computed(() => at(fed.value?.fed === 'start' ? 'pulled_at' : 'fed_at', fed.value))
/** Where the words of the two lines stand, so that they do not touch. */
const words = computed(() => {
  const own = y(fed.value?.usual_lb ?? 0)
  const them = y(other.value?.usual_lb ?? 0)
  const same = fed.value?.fed === 'start'
  let at = same && Math.abs(own - them) < 18 ? them + 18 : them + 4
  for (const limit of hands.value)
    if (!same && limit.limit <= top.value.most && Math.abs(y(limit.limit) + 4 - at) < 15)
      at = y(limit.limit) + 4 - 16
  return { own: own - 8, them: at }
})
</script>

<template>
  <div ref="host" class="curve">
    <svg
      :width="width"
      :height="HEIGHT"
      role="img"
      data-testid="curve"
      :aria-label="`Pull fed at ${fed?.fed_at}: ${poundText(fed?.usual_lb ?? 0)} lb, from ${poundText(fed?.low_lb ?? 0)} to ${poundText(fed?.high_lb ?? 0)}`"
    >
      <defs>
        <clipPath id="plot">
          <rect :x="LEFT" :y="TOP - 4" :width="right - LEFT" :height="BASE - TOP + 4" />
        </clipPath>
      </defs>
      <g v-for="value in lines" :key="value">
        <path :d="`M${LEFT} ${y(value)}H${right}`" class="grid" />
        <text :x="LEFT - 7" :y="y(value) + 4" text-anchor="end" class="small">{{ value }} lb</text>
      </g>
      <path v-for="(at, i) in corners" :key="i" :d="`M${x(at)} ${TOP - 4}V${BASE}`" class="corner" />
      <g v-for="limit in hands" :key="limit.key">
        <template v-if="limit.limit <= top.most">
          <path :d="`M${LEFT} ${y(limit.limit)}H${right}`" class="hand" />
          <text :x="right + 8" :y="y(limit.limit) + 4" class="hands">{{ limit.name }}</text>
        </template>
      </g>
      <g clip-path="url(#plot)">
        <path :d="band" class="band" />
        <path v-if="other" :d="path(other.points, 'usual_lb')" class="other" />
        <path v-if="fed" :d="path(fed.points, 'usual_lb')" class="own" />
      </g>
      <text
        v-if="fed"
        :x="fed.fed === 'start' ? right - 6 : LEFT + 6"
        :y="Math.max(words.own, TOP + 8)"
        :text-anchor="fed.fed === 'start' ? 'end' : 'start'"
        class="told"
      >
        fed at {{ fed.fed_at }}: {{ poundText(fed.usual_lb) }} lb
      </text>
      <text
        v-if="other && Math.abs(other.usual_lb - (fed?.usual_lb ?? 0)) > 0.2"
        :x="other.fed === 'start' ? right + 8 : LEFT + 6"
        :y="other.fed === 'start' ? Math.max(words.them, TOP + 8) : Math.max(words.them - 10, TOP + 8)"
        class="small"
      >
        {{ other.fed === 'start' ? '' : `fed at ${other.fed_at}: ` }}{{ poundText(other.usual_lb) }} lb
        {{ other.fed === 'start' ? 'the other way' : '' }}
      </text>
      <path :d="`M${LEFT} ${BASE}H${right}`" class="floor" />
      <text :x="LEFT" :y="BASE + 18" class="name">{{ startName }}</text>
      <text :x="right" :y="BASE + 18" text-anchor="end" class="name">{{ endName }}</text>
      <text :x="(LEFT + right) / 2" :y="BASE + 18" text-anchor="middle" class="small">
        {{ feetText(length, metric) }} of pipe
      </text>
      <text :x="LEFT" :y="BASE + 35" class="small">
        with friction from least to most: {{ poundText(fed?.low_lb ?? 0) }} to
        {{ poundText(fed?.high_lb ?? 0) }} lb{{ beyond ? ', out of the picture' : '' }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
.curve {
  min-height: 214px;
}
svg {
  display: block;
}
text {
  font-family: var(--num);
  font-size: 13px;
  fill: var(--ink);
}
.small {
  fill: var(--mute);
}
.name,
.told {
  font-weight: 600;
}
.told {
  fill: var(--chalk);
  font-size: 14px;
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 4px;
}
.grid {
  stroke: var(--rule);
}
.floor {
  stroke: var(--ink);
}
.corner {
  stroke: var(--mute);
  stroke-dasharray: 2 4;
}
.hand {
  stroke: var(--check-mark);
  stroke-width: 1.8;
  stroke-dasharray: 3 3;
}
.hands {
  fill: var(--check);
  font-weight: 600;
}
.band {
  fill: var(--chalk);
  opacity: 0.16;
}
.own {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 3;
}
.other {
  fill: none;
  stroke: var(--mute);
  stroke-width: 1.8;
  stroke-dasharray: 6 4;
}
</style>
