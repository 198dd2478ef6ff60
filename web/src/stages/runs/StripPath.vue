<script setup lang="ts">
import { computed } from 'vue'

import type { Strip } from '../../api/client'
import { CHAR, type Scale } from './stripScale'

/** The way itself: cable in its jacket colour, pipe by its wall, supports, boxes, cover against what is needed. */
const props = defineProps<{ strip: Strip; scale: Scale; leg: number | null }>()

const JACKET: Record<string, string> = {
  '14': '#f6f3ea',
  '12': '#e3ac1d',
  '10': '#dd7a2d',
  grey: '#8d9499',
}
const WALL: Record<string, string> = { thin: '#e6ebee', medium: '#c9ced1', thick: '#8f989d', flex: '#b9c3b4' }

const legs = computed(() =>
  props.strip.legs.map((leg) => {
    const [x0, y0, x1, y1] = [
      props.scale.x(leg.x0),
      props.scale.y(leg.y0),
      props.scale.x(leg.x1),
      props.scale.y(leg.y1),
    ]
    return {
      ...leg,
      d: `M${x0} ${y0}L${x1} ${y1}`,
      core: leg.look === 'pipe' ? (WALL[leg.wall] ?? '#ccc') : (JACKET[leg.jacket] ?? '#33393d'),
      frame: {
        x: Math.min(x0, x1) - 9,
        y: Math.min(y0, y1) - 9,
        width: Math.abs(x1 - x0) + 18,
        height: Math.abs(y1 - y0) + 18,
      },
    }
  }),
)
const climbs = computed(() =>
  props.strip.unsaid.map((climb) => {
    const [x, y0, y1] = [props.scale.x(climb.x), props.scale.y(climb.y0), props.scale.y(climb.y1)]
    const text = `${climb.text} not walked`
    const left = x + 10 + text.length * CHAR > props.scale.width
    return {
      key: `${climb.leg} ${climb.x}`,
      d: `M${x} ${y0}V${y1}`,
      text: Math.abs(y1 - y0) > 20 ? text : '',
      x: left ? x - 14 : x + 14,
      y: (y0 + y1) / 2 + 5,
      anchor: left ? ('end' as const) : ('start' as const),
    }
  }),
)
const picked = computed(() => legs.value.find((leg) => leg.index === props.leg))

const holds = computed(() => {
  const seen: Record<string, number> = {}
  return props.strip.marks
    .filter((m) => ['staple', 'strap', 'hole'].includes(m.kind))
    .map((m) => ({ ...m, px: props.scale.x(m.x), py: props.scale.y(m.y) }))
    .filter((m) => {
      const last = seen[`${m.leg}`]
      const at = m.vertical ? m.py : m.px
      if (m.kind === 'hole' && last !== undefined && Math.abs(at - last) < 9) return false
      seen[`${m.leg}`] = at
      return true
    })
})
const points = computed(() =>
  props.strip.marks
    .filter((m) =>
      ['panel', 'box', 'equipment', 'disconnect', 'lb', 'body', 'coupling', 'open', 'expansion'].includes(
        m.kind,
      ),
    )
    .map((m) => ({
      ...m,
      px: props.scale.x(m.x),
      py: props.scale.y(m.y),
      high: Math.max(props.scale.y(m.y) - props.scale.y(m.y + m.tall_in), 20),
    })),
)
const depths = computed(() => {
  let busy = 0
  return props.strip.depths.map((d) => {
    const [x0, x1] = [props.scale.x(d.x0), props.scale.x(d.x1)]
    const wide = d.text.length * CHAR
    const text = wide + 26 <= x1 - x0 ? d.text : d.taped_in == null ? '' : d.taped_text
    const at = Math.max(x0 + 8, Math.min((x0 + x1) / 2, x1 - text.length * CHAR - 18))
    const tag = d.short_text.length * CHAR + 16
    const asked = `${d.needed_text} cover needed`
    const tagX = Math.min((x0 + x1) / 2 + 8, props.scale.width - tag - 4)
    const tagged = d.short_text !== '' && tagX > busy
    const said = tagged && tagX - 18 - asked.length * CHAR > Math.max(busy, x0 - 20)
    if (tagged) busy = tagX + tag + 6
    return {
      ...d,
      px0: x0,
      px1: x1,
      at,
      grade: props.scale.y(d.grade_y),
      pipe: props.scale.y(d.pipe_y),
      need: d.needed_in == null ? null : props.scale.y(d.grade_y - d.needed_in),
      tag,
      tagX,
      tagged,
      asked: said ? asked : '',
      text,
      roomy: x1 - x0 > text.length * CHAR + 22,
    }
  })
})
</script>

<template>
  <g>
    <g v-for="d in depths" :key="`d${d.leg}`">
      <template v-if="d.taped_in != null && d.roomy">
        <path :d="`M${d.at} ${d.grade + 2}V${d.pipe - 6}`" class="dim" />
        <text :x="d.at + 7" :y="(d.grade + d.pipe) / 2 + 4" class="depth">{{ d.text }}</text>
      </template>
      <text
        v-else-if="d.taped_in == null && d.roomy"
        :x="d.at"
        :y="d.pipe - 12"
        class="unknown"
        text-anchor="middle"
      >
        {{ d.text }}, {{ d.needed_text }} needed
      </text>
      <template v-if="d.short_text && d.need != null">
        <path :d="`M${d.px0} ${d.need}H${d.px1}`" class="need" />
        <text :x="d.tagX - 10" :y="Math.max(d.need, d.pipe) + 22" text-anchor="end" class="short">{{
          d.asked
        }}</text>
        <template v-if="d.tagged">
          <rect :x="d.tagX" :y="Math.max(d.need, d.pipe) + 8" :width="d.tag" height="20" class="tag" />
          <text :x="d.tagX + 8" :y="Math.max(d.need, d.pipe) + 22" class="tagtext">{{ d.short_text }}</text>
        </template>
      </template>
    </g>
    <g v-for="climb in climbs" :key="climb.key">
      <path :d="climb.d" class="climb" />
      <text :x="climb.x" :y="climb.y" :text-anchor="climb.anchor" class="unsaid">{{ climb.text }}</text>
    </g>
    <g v-for="leg in legs" :key="leg.index" class="leg">
      <path :d="leg.d" class="edge" :class="leg.look" />
      <path :d="leg.d" class="core" :class="leg.look" :style="{ stroke: leg.core }" />
      <path v-if="leg.verdict !== 'fine'" :d="leg.d" :class="['halo', leg.verdict]" />
    </g>
    <g v-for="(m, i) in holds" :key="`h${i}`" class="hold">
      <rect v-if="m.kind === 'hole'" :x="m.px - 2.5" :y="m.py - 7" width="5" height="14" class="hole" />
      <rect v-else-if="m.vertical" :x="m.px - 8" :y="m.py - 3.5" width="16" height="7" />
      <rect v-else :x="m.px - 3.5" :y="m.py - 8" width="7" height="16" />
    </g>
    <g v-for="(m, i) in points" :key="`p${i}`" class="point">
      <rect
        v-if="m.kind === 'panel'"
        :x="m.px - 13"
        :y="m.py - m.high"
        width="26"
        :height="m.high"
        class="panel"
      />
      <circle v-else-if="m.kind === 'equipment'" :cx="m.px" :cy="m.py" r="10" class="dark" />
      <rect
        v-else-if="m.kind === 'disconnect'"
        :x="m.px - 8"
        :y="m.py - 11"
        width="16"
        height="22"
        rx="2"
        class="dark"
      />
      <rect
        v-else-if="m.kind === 'lb' || m.kind === 'body'"
        :x="m.px - 8"
        :y="m.py - 7"
        width="16"
        height="14"
        rx="4"
        class="grey"
      />
      <rect
        v-else-if="m.kind === 'coupling'"
        :x="m.px - 5"
        :y="m.py - 6.5"
        width="10"
        height="13"
        class="grey"
      />
      <rect
        v-else-if="m.kind === 'expansion'"
        :x="m.px - 7"
        :y="m.py - 9"
        width="14"
        height="18"
        rx="2"
        class="grey"
      />
      <circle v-else-if="m.kind === 'open'" :cx="m.px" :cy="m.py" r="6" class="open" />
      <rect v-else :x="m.px - 7" :y="m.py - 7" width="14" height="14" rx="2" />
    </g>
    <rect v-if="picked" v-bind="picked.frame" rx="4" class="picked" />
  </g>
</template>

<style scoped>
text {
  font: 600 14px var(--num);
  fill: var(--ink);
}
.edge {
  stroke: var(--pipe-edge);
  stroke-linecap: square;
}
.edge.pipe {
  stroke-width: 8.5;
}
.core.pipe {
  stroke-width: 5.5;
  stroke-linecap: square;
}
.edge.cable {
  stroke-width: 5.6;
  opacity: 0.75;
}
.core.cable {
  stroke-width: 4;
  stroke-linecap: square;
}
.halo {
  stroke-width: 2.2;
  stroke-dasharray: 6 4;
}
.halo.stop {
  stroke: #c33b22;
}
.halo.check {
  stroke: #c98508;
}
.hold rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.hold .hole {
  fill: var(--card);
  stroke-width: 1.1;
}
.point rect,
.point circle {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.point .panel {
  fill: #5d656a;
}
.point .dark {
  fill: #5d656a;
}
.point .grey {
  fill: #8b9499;
}
.point .open {
  fill: var(--check-wash);
  stroke: var(--check-mark);
  stroke-dasharray: 3 2;
}
.climb {
  stroke: var(--mute);
  stroke-width: 2;
  stroke-dasharray: 3 5;
}
.unsaid {
  fill: var(--mute);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 2.5px;
}
.picked {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.8;
  stroke-dasharray: 5 3;
}
.dim {
  stroke: var(--ink);
}
.depth,
.short,
.unknown {
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 2.5px;
}
.unknown {
  fill: var(--check);
}
.need {
  stroke: #c33b22;
  stroke-width: 1.6;
  stroke-dasharray: 6 3;
}
.short {
  fill: var(--stop);
}
.tag {
  fill: #c33b22;
}
.tagtext {
  fill: #fff;
}
</style>
