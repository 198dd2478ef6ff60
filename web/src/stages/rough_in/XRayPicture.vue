<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Behind, XBox, XCable, XRay } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Spot, Thing } from '../../parts/picture/things'
import { inchText, tapeText } from '../../parts/planScale'
import { useSize } from '../../parts/useSize'
import { laid, lifted, longest, type Point, xScale } from './record'
import XRayDrawing from './XRayDrawing.vue'

/**
 * A wall, ceiling or floor to true scale: a tap asks what is behind; a box or a cable is dragged to where it really
 * went, a photo to where it was taken.
 */
const props = defineProps<{
  shown: XRay
  node: string | null
  spot: Behind | null
  metric: boolean
  pinning: boolean
}>()
const emit = defineEmits<{
  pick: [node: string]
  photo: [id: string]
  ask: [at: number, height: number]
  box: [id: string, at: number, height: number]
  cable: [cable: XCable, points: Point[]]
  pin: [photo: string, at: number, height: number]
}>()

const host = ref<HTMLElement | null>(null)
const size = useSize(host, 740, 320)
const scale = computed(() => xScale(props.shown, Math.max(size.width.value, 240), 330))
const cables = computed(() => laid(props.shown, scale.value))
const drag = ref<{ thing: Thing; dx: number; dy: number } | null>(null)
const flat = computed(() => !/^\d/.test(props.shown.surface))

const boxThing = (box: XBox): Thing => ({
  id: box.id,
  kind: 'box',
  name: `${box.name}, ${box.readings}, ${{ made: 'made up', open: 'open', left_out: 'left out' }[box.state]}`,
  picked: box.id === props.node,
  drags: true,
  mark: box.name,
  x: scale.value.x(box.x0),
  y: scale.value.y(box.y1),
  w: (box.x1 - box.x0) * scale.value.per,
  h: (box.y1 - box.y0) * scale.value.per,
})
const things = computed<Thing[]>(() => [
  ...cables.value
    .filter((one) => one.cable.state !== 'left_out')
    .flatMap((one, i) => {
      const level = longest(one.points)
      if (!level) return []
      const x = Math.min(level[0][0], level[1][0])
      return {
        id: `${one.cable.circuit}.${one.cable.box}.${i}`,
        kind: 'cable',
        name: `cable ${one.cable.letter}, ${one.cable.name}`,
        drags: !flat.value,
        mark: one.cable.letter,
        x,
        y: level[0][1] - 4,
        w: Math.abs(level[1][0] - level[0][0]),
        h: 8,
      }
    }),
  ...props.shown.boxes.map(boxThing),
  ...props.shown.photos.map((p) => ({
    id: p.id,
    kind: 'photo',
    name: `photo ${p.number}, ${p.text}`,
    drags: true,
    mark: `photo ${p.number}`,
    x: scale.value.x(p.x) - 12,
    y: scale.value.y(p.y) - 9,
    w: 24,
    h: 18,
  })),
])

const inches = (x: number, y: number): Point => {
  const [at, up] = scale.value.back(x, y)
  const within = (value: number, most: number) => Math.min(Math.max(Math.round(value * 8) / 8, 0), most)
  return [within(at, props.shown.wide_in), within(up, props.shown.tall_in)]
}
function pull(thing: Thing, at: Spot, from: Spot) {
  drag.value = { thing, dx: thing.kind === 'cable' ? 0 : at.x - from.x, dy: at.y - from.y }
}
function drop(thing: Thing, at: Spot, from: Spot) {
  drag.value = null
  moved(thing, (at.x - from.x) / scale.value.per, (from.y - at.y) / scale.value.per)
}
function moved(thing: Thing, right: number, up: number) {
  if (thing.kind === 'cable') {
    const one = cables.value[Number(thing.id.split('.').at(-1))]
    if (!one) return
    const raw = one.cable.points.map((p) => [p[0] ?? 0, p[1] ?? 0] as Point)
    const to = lifted(raw, up, props.shown.tall_in)
    if (to.some((p, i) => p[1] !== raw[i]?.[1])) emit('cable', one.cable, to)
    return
  }
  const [x, y] = [
    thing.x + thing.w / 2 + right * scale.value.per,
    thing.y + thing.h / 2 - up * scale.value.per,
  ]
  const [at, height] = inches(x, y)
  if (thing.kind === 'photo') emit('pin', thing.id, at, height)
  else {
    const box = props.shown.boxes.find((item) => item.id === thing.id)
    emit('box', thing.id, at, box?.kind === 'panel' ? height - (box.y1 - box.y0) / 2 : height)
  }
}
function pick(thing: Thing) {
  if (thing.kind === 'photo') emit('photo', thing.id)
  else if (thing.kind === 'box') emit('pick', thing.id)
  else {
    const one = cables.value[Number(thing.id.split('.').at(-1))]
    if (one) emit('pick', one.cable.box)
  }
}
const tap = (at: Spot) => emit('ask', ...inches(at.x, at.y))
const note = computed(() => {
  const now = drag.value
  if (!now) return ''
  const [at, up] = inches(now.thing.x + now.thing.w / 2 + now.dx, now.thing.y + now.thing.h / 2 + now.dy)
  return now.thing.kind === 'cable'
    ? `${inchText(up, props.metric)} over the floor`
    : `${tapeText(at, props.metric)} · ${inchText(up, props.metric)}`
})
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      :label="shown.title"
      testid="xray"
      :width="scale.width"
      :height="scale.height"
      :things="things"
      :placing="pinning"
      @pick="pick"
      @tap="tap"
      @pull="pull"
      @drop="drop"
      @cancel="drag = null"
      @nudge="(thing, by) => moved(thing, by.right, by.up)"
    >
      <XRayDrawing
        :shown="shown"
        :scale="scale"
        :cables="cables"
        :node="node"
        :spot="spot"
        :metric="metric"
        :drag="drag"
      />
    </SvgPicture>
    <p v-if="note" class="drag-note num" data-testid="xray-note">{{ note }}</p>
  </div>
</template>

<style scoped>
.host {
  position: relative;
  width: 100%;
  background: var(--card);
  overflow: hidden;
}
.drag-note {
  position: absolute;
  left: 50%;
  top: 4px;
  transform: translateX(-50%);
  margin: 0;
  padding: 3px 10px;
  background: var(--tape);
  color: #20262a;
  border: 1px solid #20262a;
  font-weight: 600;
}
</style>
