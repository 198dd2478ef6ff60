<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PullDrawing } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Thing } from '../../parts/picture/things'
import { useSize } from '../../parts/useSize'
import { labelsOf, rowsOf, scaleOf, thingsOf } from './sticks'

/**
 * Sticks as they lie on the horses: pencil marks from the left end of each piece, saw cuts, straps, what is left over;
 * under them the bends spent of 360°. To scale along the stick; its thickness is not.
 */
const props = defineProps<{ drawing: PullDrawing; picked: string | null }>()
const emit = defineEmits<{ pick: [key: string] }>()

const host = ref<HTMLElement | null>(null)
const { width } = useSize(host, 740)
const HIGH = 17
const rows = computed(() => {
  const list = rowsOf(props.drawing)
  const scale = scaleOf(list, width.value)
  let y = 6
  return list.map((row) => {
    const labels = labelsOf(row.stick, scale)
    const deep = Math.max(0, ...labels.map((label) => label.row + 1))
    y += 12 + deep * 16
    const at = y
    y += HIGH + 24
    return { ...row, y: at, labels, scale }
  })
})
const scale = computed(() => scaleOf(rowsOf(props.drawing), width.value))
const budgetY = computed(() => (rows.value.at(-1)?.y ?? 0) + HIGH + 40)
const height = computed(() => budgetY.value + 48)
const things = computed(() => thingsOf(rows.value, props.picked, HIGH))
const x = (inches: number) => scale.value.left + inches * scale.value.per
/** 360° are as wide as a ten-foot stick. */
const deg = (degrees: number) => degrees * ((scale.value.per * 120) / props.drawing.limit_deg)
const spent = computed(() => {
  let at = 0
  return props.drawing.spent.map((item) => {
    const from = at
    at += item.deg
    return { ...item, from, to: at }
  })
})
const total = computed(() => spent.value.at(-1)?.to ?? 0)
const left = computed(() => props.drawing.limit_deg - total.value)
const shown = (from: number, to: number) => {
  const [a, b] = [deg(from), Math.min(deg(to), width.value - scale.value.left - 8)]
  return { x: scale.value.left + a, w: Math.max(b - a, 0) }
}
/** The longest of some words that has room. */
const short = (wide: number, ...words: string[]) => words.find((text) => wide > text.length * 6.6 + 6) ?? ''
const feet = (length: number) => Array.from({ length: Math.floor(length / 12) - 1 }, (_, i) => (i + 1) * 12)
function pick(thing: Thing) {
  emit('pick', thing.mark ?? '')
}
</script>

<template>
  <div ref="host" class="sticks">
    <SvgPicture
      label="Sticks with pencil marks"
      :width="width"
      :height="height"
      :things="things"
      testid="sticks"
      @pick="pick"
    >
      <g v-for="row in rows" :key="row.stick.number" :class="`pipe ${row.stick.method}`">
        <text :x="scale.left - 10" :y="row.y + 13" class="name" text-anchor="end">
          {{ row.times > 1 ? `${row.times} sticks` : `stick ${row.stick.number}` }}
        </text>
        <text :x="scale.left - 10" :y="row.y + 28" class="small" text-anchor="end">{{ row.stick.pipe }}</text>
        <rect
          :x="scale.left"
          :y="row.y"
          :width="row.stick.length_in * scale.per"
          :height="HIGH"
          class="stock"
        />
        <g v-for="piece in row.stick.pieces" :key="`${piece.pull}.${piece.number}`">
          <rect
            :x="x(piece.from_in)"
            :y="row.y"
            :width="(piece.to_in - piece.from_in) * scale.per"
            :height="HIGH"
            class="piece"
            :class="{ other: !piece.mine }"
          />
          <text
            v-if="!piece.marks.length || !piece.mine"
            :x="x((piece.from_in + piece.to_in) / 2)"
            :y="row.y + 12.5"
            class="inside"
            text-anchor="middle"
          >
            {{
              short(
                (piece.to_in - piece.from_in) * scale.per,
                piece.mine
                  ? row.stick.bell && row.stick.pieces.length === 1
                    ? `whole stick${row.times > 1 ? ' each' : ''}, bell ahead`
                    : `piece ${piece.number}: ${piece.length_text}`
                  : `for pull ${piece.pull + 1}: ${piece.length_text}`,
                piece.length_text,
                piece.mine ? `${piece.number}` : '',
              )
            }}
          </text>
          <path
            v-for="at in piece.straps"
            :key="at"
            :d="`M${x(piece.from_in + at)} ${row.y + HIGH}v5m-4 0h8`"
            class="strap"
          />
          <path
            v-if="piece.to_in < row.stick.length_in - 0.3 && !row.stick.bell"
            :d="`M${x(piece.to_in)} ${row.y - 4}v${HIGH + 8}`"
            class="saw"
          />
          <text
            v-if="piece.mine && piece.marks.length"
            :x="x(piece.to_in)"
            :y="row.y + HIGH + 18"
            class="small"
            text-anchor="end"
          >
            {{ piece.length_text }}
          </text>
          <text
            v-if="piece.mine && (piece.to_in - piece.from_in) * scale.per > 260"
            :x="x(piece.from_in)"
            :y="row.y + HIGH + 18"
            class="small"
          >
            {{ piece.left }}
          </text>
        </g>
        <path
          v-for="at in feet(row.stick.length_in)"
          :key="at"
          :d="`M${x(at)} ${row.y + HIGH}v-3`"
          class="tick"
        />
        <rect
          v-if="row.stick.bell"
          :x="x(row.stick.length_in) - 9"
          :y="row.y - 2"
          width="11"
          :height="HIGH + 4"
          class="bell"
        />
        <text
          v-if="row.stick.left_in > 0.5"
          :x="x(row.stick.length_in - row.stick.left_in / 2)"
          :y="row.y + 13"
          class="left"
          text-anchor="middle"
        >
          {{ short(row.stick.left_in * scale.per, `${row.stick.left_text} left over`, row.stick.left_text) }}
        </text>
        <g
          v-for="(mark, i) in row.labels"
          :key="i"
          class="mark"
          :class="{ here: picked === mark.key, assumed: mark.assumed }"
        >
          <rect
            v-if="mark.to !== null"
            :x="mark.x"
            :y="row.y"
            :width="mark.to - mark.x"
            :height="HIGH"
            class="heat"
          />
          <path :d="`M${mark.x} ${row.y}v${HIGH}`" class="line" />
          <path v-if="mark.row" :d="`M${mark.x} ${row.y - 8}v${-16 * mark.row + 4}`" class="lead" />
          <path
            v-if="mark.sign === 'arrow'"
            :d="
              mark.faces === 'left'
                ? `M${mark.x - 8} ${row.y - 4}h8m-8 0l4 -3m-4 3l4 3`
                : `M${mark.x} ${row.y - 4}h8l-4 -3m4 3l-4 3`
            "
            class="sign"
          />
          <path
            v-else-if="mark.sign === 'star'"
            :d="`M${mark.x - 4} ${row.y - 4}h8m-4 -4v8m-3 -7l6 6m0 -6l-6 6`"
            class="sign"
          />
          <path v-else-if="mark.sign === 'rim'" :d="`M${mark.x - 5} ${row.y - 7}l5 6l5 -6`" class="sign" />
          <text :x="mark.x" :y="row.y - 11 - 16 * mark.row" class="told" text-anchor="middle">
            {{ mark.text }}
          </text>
        </g>
      </g>
      <g class="budget">
        <text :x="scale.left - 10" :y="budgetY + 14" class="name" text-anchor="end">bends</text>
        <rect :x="scale.left" :y="budgetY" :width="deg(drawing.limit_deg)" height="19" class="whole" />
        <g v-for="(item, i) in spent" :key="i">
          <rect
            :x="shown(item.from, item.to).x"
            :y="budgetY"
            :width="shown(item.from, item.to).w"
            height="19"
            class="part"
            :class="{ over: item.to > drawing.limit_deg + 0.01 }"
          />
          <text
            :x="shown(item.from, item.to).x + shown(item.from, item.to).w / 2"
            :y="budgetY + 14"
            class="inside"
            text-anchor="middle"
          >
            {{ short(shown(item.from, item.to).w, item.text, `${item.deg}°`) }}
          </text>
        </g>
        <path :d="`M${scale.left + deg(drawing.limit_deg)} ${budgetY - 5}v29`" class="limit" />
        <text :x="scale.left" :y="budgetY + 36" class="small" :class="{ bad: left < 0 }">
          {{
            left < 0
              ? `${Number(total.toFixed(1))}° spent, ${Number((-left).toFixed(1))}° too much for one pull`
              : `${Number(total.toFixed(1))}° spent, ${Number(left.toFixed(1))}° left`
          }}
        </text>
        <text
          v-if="width > 560"
          :x="scale.left + deg(drawing.limit_deg)"
          :y="budgetY + 36"
          class="small"
          text-anchor="end"
        >
          {{ drawing.limit_deg }}° between pull points
        </text>
      </g>
    </SvgPicture>
  </div>
</template>

<style scoped>
.sticks {
  min-height: 120px;
}
text {
  font-family: var(--num);
  font-size: 13px;
  fill: var(--ink);
}
.name {
  font-weight: 600;
  font-size: 14.5px;
}
.small,
.left {
  fill: var(--mute);
}
.bad {
  fill: var(--stop);
  font-weight: 600;
}
.stock {
  fill: none;
  stroke: var(--mute);
  stroke-dasharray: 4 3;
}
.piece {
  fill: #dfe4e7;
  stroke: #20262a;
  stroke-width: 1.3;
}
.PVC40 .piece {
  fill: #c9ccca;
}
.PVC80 .piece {
  fill: #aeb4b3;
}
.RMC .piece,
.IMC .piece {
  fill: #bac3c9;
}
.piece.other {
  fill: none;
  stroke: var(--mute);
}
.inside {
  fill: #20262a;
}
.other + .inside {
  fill: var(--mute);
}
.bell {
  fill: #8f9697;
  stroke: #20262a;
}
.tick {
  stroke: #20262a;
  stroke-width: 1;
}
.strap {
  stroke: var(--mute);
  fill: none;
  stroke-width: 1.4;
}
.saw {
  stroke: var(--stop);
  stroke-width: 1.8;
  stroke-dasharray: 3 2;
}
.mark .line {
  stroke: #2b5c9e;
  stroke-width: 2;
}
.mark .sign,
.mark .lead {
  stroke: var(--chalk);
  fill: none;
  stroke-width: 1.6;
}
.mark .lead {
  stroke-width: 1;
  stroke-dasharray: 2 2;
}
.mark .told {
  fill: var(--chalk);
  font-weight: 600;
}
.mark.assumed .told {
  fill: var(--check);
}
.mark.assumed .line,
.mark.assumed .sign {
  stroke: var(--check-mark);
}
.mark .heat {
  fill: #c98508;
  opacity: 0.35;
}
.mark.here .line {
  stroke-width: 4;
}
.mark.here .told {
  text-decoration: underline;
}
.whole {
  fill: none;
  stroke: var(--ink);
}
.part {
  fill: var(--lime);
  stroke: #20262a;
}
.part.over {
  fill: #e0836f;
}
.limit {
  stroke: #c33b22;
  stroke-width: 2.4;
}
.budget .name,
.budget .small:not(.bad) {
  fill: var(--ink);
}
</style>
