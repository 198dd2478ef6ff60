<script setup lang="ts">
import { computed } from 'vue'

import type { InTheWalls, WalkRound } from '../../api/client'
import type { Picked } from '../../stores/look'
import { covered, missingLabels, poleMarks, wallTitles } from './roundLabels'
import { LEAST, middle, POLE, type RoundScale, TOP } from './roundScale'

/** The unrolled walls as drawn: studs, openings, boxes, the hole line, what a 6 ft cord reaches. See WalkRound. */
const props = defineProps<{
  round: WalkRound
  inside: InTheWalls | null
  scale: RoundScale
  picked: Picked | null
  /** The box that is being dragged, and by how many inches. */
  moving: string
  by: number
}>()
const titles = computed(() => wallTitles(props.round, props.scale.per))
const marks = computed(() => poleMarks(props.round, props.scale.y))
const missing = computed(() => missingLabels(props.round, props.scale.x, POLE, props.scale.width))
</script>

<template>
  <g>
    <rect
      v-for="wall in round.walls"
      :key="wall.side"
      :x="scale.x(wall.x0)"
      :y="scale.y(round.height_in)"
      :width="(wall.x1 - wall.x0) * scale.per"
      :height="scale.room"
      class="wall"
      :class="[wall.stud, { out: wall.outside }]"
      :data-round-wall="wall.name"
    />
    <rect v-for="(s, i) in round.studs" :key="`s${i}`" v-bind="scale.rect(s)" class="stud" :class="s.kind" />
    <g v-for="o in round.openings" :key="`o${o.id}${o.side}`">
      <rect v-bind="scale.rect(o)" class="hole" :class="o.kind" />
      <text
        v-if="(o.x1 - o.x0) * scale.per > o.label.length * 6.2"
        :x="scale.x((o.x0 + o.x1) / 2)"
        :y="scale.y((o.y0 + o.y1) / 2) + 4"
        text-anchor="middle"
        class="faint"
      >
        {{ o.label }}
      </text>
    </g>
    <g v-for="f in round.fixtures" :key="f.id">
      <rect v-bind="scale.rect(f, f.kind === 'shower_valve' ? 8 : 0)" class="fixture" />
      <text
        v-if="(f.x1 - f.x0) * scale.per > f.label.length * 6.2 && !covered(round, f)"
        :x="scale.x((f.x0 + f.x1) / 2)"
        :y="scale.y(Math.min(f.y1, 60) / 2) + 4"
        text-anchor="middle"
        class="faint"
      >
        {{ f.label }}
      </text>
    </g>
    <g v-if="inside?.cables.length" class="inside" data-testid="in-the-walls">
      <polyline
        v-for="(one, i) in inside.cables"
        :key="`c${i}`"
        :points="one.points.map((p) => `${scale.x(p[0] ?? 0)},${scale.y(p[1] ?? 0)}`).join(' ')"
        :class="`w${one.wire}`"
      >
        <title>{{ one.name }}</title>
      </polyline>
      <path
        v-for="(p, i) in inside.staples"
        :key="`s${i}`"
        :d="`M${scale.x(p[0] ?? 0) - 4} ${scale.y(p[1] ?? 0)}h8`"
        class="staple"
      />
      <circle
        v-for="(h, i) in inside.holes"
        :key="`b${i}`"
        :cx="scale.x(h.x)"
        :cy="scale.y(h.y)"
        :r="h.count > 1 ? 3 : 2.4"
        :class="{ plate: h.plate }"
      />
    </g>
    <g v-for="h in inside?.cables.length ? [] : round.holes" :key="`h${h.x0}`" class="holes">
      <path :d="`M${scale.x(h.x0)} ${scale.y(round.hole_line_in)}H${scale.x(h.x1)}`" />
      <circle v-for="at in h.at" :key="at" :cx="scale.x(at)" :cy="scale.y(round.hole_line_in)" r="2.4" />
    </g>
    <g v-for="wall in round.walls" :key="`e${wall.side}`">
      <path :d="`M${scale.x(wall.x0)} ${TOP - 14}V${TOP + scale.room + 8}`" class="corner" />
    </g>
    <path :d="`M${scale.x(round.length_in)} ${TOP - 14}V${TOP + scale.room + 8}`" class="corner" />
    <g v-for="t in titles" :key="`t${t.side}`" text-anchor="middle">
      <text :x="scale.x((t.x0 + t.x1) / 2)" y="18">{{ t.name }}</text>
      <text :x="scale.x((t.x0 + t.x1) / 2)" y="34" class="faint">{{ t.sub }}</text>
    </g>
    <g
      v-for="box in round.boxes"
      :key="box.id"
      class="box"
      :class="[box.verdict, box.kind, { picked: picked?.id === box.id, outside: box.outdoors }]"
      :transform="box.id === moving ? `translate(${by * scale.per} 0)` : undefined"
      :data-round-box="box.name"
    >
      <rect
        v-bind="
          scale.rect({
            x0: box.x0 - 6 / scale.per,
            x1: box.x1 + 6 / scale.per,
            y0: box.y0 - 6 / scale.tall,
            y1: box.y1 + 6 / scale.tall,
          })
        "
        class="catch"
      />
      <rect v-bind="scale.rect(box, scale.exact ? 0 : LEAST)" rx="1.5" class="body" />
      <path
        v-if="box.marked && box.kind !== 'panel'"
        :d="`M${scale.x(middle(box)) - 3.5} ${scale.y((box.y0 + box.y1) / 2)}l2.6 3 4.6-6`"
        class="tick"
      />
      <text
        v-if="picked?.id === box.id || box.verdict !== 'fine' || box.kind === 'panel'"
        :x="scale.x(middle(box))"
        :y="scale.rect(box, scale.exact ? 0 : LEAST).y - 5"
        text-anchor="middle"
      >
        {{ box.name }}
      </text>
    </g>
    <g class="reach">
      <rect
        v-for="(r, i) in round.reach"
        :key="`r${i}`"
        :x="scale.x(r.x0)"
        :y="r.y ? scale.y(r.y) - 3 : TOP + scale.room + 12"
        :width="Math.max((r.x1 - r.x0) * scale.per, 2)"
        :height="r.y ? 4 : 7"
        :class="r.kind"
      />
      <text
        v-for="(m, i) in missing"
        :key="`m${i}`"
        :x="m.at"
        :y="TOP + scale.room + 34 + m.line * 14"
        text-anchor="middle"
        class="short"
      >
        {{ m.text }}
      </text>
    </g>
    <text x="4" :y="TOP + scale.room + 20" class="faint">6′ cord</text>
    <text :x="POLE" :y="scale.height - 3" class="faint">
      {{
        Math.abs(scale.stretch - 1) < 0.03
          ? 'to scale'
          : `heights drawn ${scale.stretch.toFixed(1)} × the lengths, boxes at least ${LEAST} px wide`
      }}
    </text>
    <g class="pole">
      <rect :x="POLE - 22" :y="TOP" width="9" :height="scale.room" />
      <g v-for="line in marks" :key="line.use">
        <path :d="`M${POLE - 26} ${line.at}h17`" :class="{ line: line.use === 'hole line' }" />
        <text v-if="line.shown" :x="POLE - 29" :y="line.at + 4" text-anchor="end">{{ line.text }}</text>
      </g>
      <text :x="POLE - 30" :y="TOP - 10" class="faint" text-anchor="end">pole</text>
    </g>
  </g>
</template>

<style scoped>
text {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 600;
}
.faint {
  fill: var(--mute);
  font-weight: 500;
  font-size: 12.5px;
}
.wall {
  fill: color-mix(in srgb, var(--lumber) 36%, var(--card));
}
.wall.block,
.wall.metal {
  fill: color-mix(in srgb, var(--concrete) 46%, var(--card));
}
.wall.out {
  fill: color-mix(in srgb, var(--lumber) 62%, var(--card));
}
.wall.block.out {
  fill: color-mix(in srgb, var(--concrete) 80%, var(--card));
}
.stud {
  fill: color-mix(in srgb, var(--soil) 72%, var(--card));
}
.stud.end,
.stud.king {
  fill: var(--soil);
}
.hole {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1;
}
.hole.window,
.hole.glass_door {
  fill: color-mix(in srgb, var(--chalk) 14%, var(--card));
}
.fixture {
  fill: color-mix(in srgb, var(--concrete) 65%, transparent);
  stroke: var(--mute);
}
.holes path {
  stroke: var(--chalk);
  stroke-dasharray: 7 4;
  stroke-width: 1.3;
}
.holes circle {
  fill: var(--card);
  stroke: var(--chalk);
  stroke-width: 1.2;
}
.inside polyline {
  fill: none;
  stroke-width: 2.6;
  stroke-linejoin: round;
  stroke: var(--jacket, #4a4f52);
}
.inside .staple {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.inside circle {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1;
}
.inside .plate {
  stroke: var(--stop);
  stroke-width: 2;
}
.corner {
  stroke: var(--ink);
  stroke-dasharray: 5 4;
}
.catch {
  fill: transparent;
}
.body {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.panel .body {
  fill: #5d666c;
}
.outside .body {
  stroke-dasharray: 3 2;
}
.box.stop .body {
  stroke: var(--stop);
  stroke-width: 2.6;
}
.box.check .body {
  stroke: var(--check-mark);
  stroke-width: 2.6;
}
.box.stop text {
  fill: var(--stop);
}
.box.check text {
  fill: var(--check);
}
.box text {
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
}
.picked .catch {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.8;
  stroke-dasharray: 4 3;
}
.tick {
  fill: none;
  stroke: var(--fine);
  stroke-width: 2.2;
}
.reach .reached {
  fill: color-mix(in srgb, var(--fine) 45%, var(--card));
}
.reach .missing {
  fill: var(--stop);
}
.short {
  fill: var(--stop);
}
.pole rect {
  fill: var(--lumber);
  stroke: var(--ink);
}
.pole path {
  stroke: var(--stop);
  stroke-width: 1.8;
}
.pole .line {
  stroke: var(--chalk);
}
</style>
