<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import { useJob } from '../../stores/job'
import {
  hitArea,
  keyOf,
  layered,
  neighbour,
  type Spot,
  STEP,
  type Steps,
  type Thing,
  type Way,
} from './things'

/**
 * The base of every picture: what is drawn stands in the slot; the things in it that can be picked lie over it as
 * areas of 24 px and more, each with a name. Arrows go from thing to thing, Enter picks, Shift and arrows move,
 * arrows alone what was clicked; steps gather while an answer is awaited. A pointer drags past a threshold, Escape
 * lets go; the wheel with Ctrl, two fingers, + and − zoom, 0 fits.
 */
const props = defineProps<{
  label: string
  width: number
  height: number
  things: Thing[]
  testid: string
  fluid?: boolean
  /** Nothing is picked or dragged: the next tap says where. */
  placing?: boolean
  /** What is moved by keys is moved from where it will stand: no step waits for an answer. */
  relative?: boolean
}>()
const emit = defineEmits<{
  pick: [thing: Thing]
  tap: [at: Spot, thing: Thing | null]
  nudge: [thing: Thing, by: Steps]
  grab: [thing: Thing, at: Spot]
  pull: [thing: Thing, at: Spot, from: Spot]
  drop: [thing: Thing, at: Spot, from: Spot]
  cancel: []
}>()

const LEAST = 24
const THRESHOLD = 5
const svg = useTemplateRef<SVGSVGElement>('svg')
const pane = useTemplateRef<SVGGElement>('pane')
const zoom = ref({ k: 1, x: 0, y: 0 })
const focused = ref('')
/** What a pointer took hold of last, until keys go elsewhere. */
let pointed = ''
const over = computed(() => layered(props.things))
const current = computed(
  () =>
    props.things.find((thing) => keyOf(thing) === focused.value) ??
    props.things.find((t) => t.picked) ??
    props.things[0],
)
/** Pixels of the screen in one unit of the picture. */
const scale = ref(1)
const least = computed(() => LEAST / (scale.value * zoom.value.k))

function measured() {
  const box = svg.value?.getBoundingClientRect()
  if (box?.width && props.width) scale.value = props.fluid ? box.width / props.width : 1
}
function at(event: { clientX: number; clientY: number }): Spot {
  const matrix = pane.value?.getScreenCTM()?.inverse()
  if (!matrix) return { x: 0, y: 0 }
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return { x: point.x, y: point.y }
}

interface Hold {
  thing: Thing | null
  from: Spot
  start: Spot
  moved: boolean
  pan: { x: number; y: number }
}
const hold = ref<Hold | null>(null)
const fingers = new Map<number, Spot>()
let pinch = 0

function down(event: PointerEvent, thing: Thing | null) {
  if (event.button > 1) return
  measured()
  fingers.set(event.pointerId, { x: event.clientX, y: event.clientY })
  if (fingers.size > 1) return letGo()
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  hold.value = {
    thing,
    from: at(event),
    start: { x: event.clientX, y: event.clientY },
    moved: false,
    pan: { x: zoom.value.x, y: zoom.value.y },
  }
  if (thing) focused.value = keyOf(thing)
  pointed = thing?.drags ? keyOf(thing) : ''
}

function move(event: PointerEvent) {
  if (fingers.has(event.pointerId)) fingers.set(event.pointerId, { x: event.clientX, y: event.clientY })
  if (fingers.size === 2) return pinched()
  const now = hold.value
  if (!now) return
  const [dx, dy] = [event.clientX - now.start.x, event.clientY - now.start.y]
  if (!now.moved && Math.hypot(dx, dy) < THRESHOLD) return
  if (!now.moved && now.thing?.drags && !props.placing) emit('grab', now.thing, now.from)
  now.moved = true
  if (now.thing?.drags && !props.placing) emit('pull', now.thing, at(event), now.from)
  else if (zoom.value.k > 1)
    zoom.value = { ...zoom.value, x: now.pan.x + dx / scale.value, y: now.pan.y + dy / scale.value }
}

function pinched() {
  const [a, b] = [...fingers.values()]
  if (!a || !b) return
  const apart = Math.hypot(a.x - b.x, a.y - b.y)
  if (pinch) zoomBy(apart / pinch, { clientX: (a.x + b.x) / 2, clientY: (a.y + b.y) / 2 })
  pinch = apart
}

function up(event: PointerEvent) {
  fingers.delete(event.pointerId)
  pinch = 0
  const now = hold.value
  hold.value = null
  if (!now) return
  if (now.moved) {
    if (now.thing?.drags && !props.placing) emit('drop', now.thing, at(event), now.from)
    return
  }
  if (now.thing && !props.placing) emit('pick', now.thing)
  else emit('tap', at(event), now.thing)
}

function letGo() {
  if (hold.value?.moved && hold.value.thing?.drags) emit('cancel')
  hold.value = null
}
function cancelled(event: PointerEvent) {
  fingers.delete(event.pointerId)
  letGo()
}

function zoomBy(factor: number, about?: { clientX: number; clientY: number }) {
  const k = Math.min(Math.max(zoom.value.k * factor, 1), 8)
  const centre = about ? at(about) : { x: props.width / 2, y: props.height / 2 }
  const grown = k - zoom.value.k
  zoom.value =
    k === 1
      ? { k: 1, x: 0, y: 0 }
      : { k, x: zoom.value.x - centre.x * grown, y: zoom.value.y - centre.y * grown }
}
const fit = () => (zoom.value = { k: 1, x: 0, y: 0 })

function wheel(event: WheelEvent) {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  zoomBy(event.deltaY < 0 ? 1.2 : 1 / 1.2, event)
}

const WAYS: Record<string, Way> = { ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' }
const store = useJob()
let gathered: { key: string; by: Steps } | null = null
/** Where a thing stands is known once what was done before is answered: until then its steps are gathered. */
function nudged(thing: Thing, by: Steps) {
  if (props.relative || !store.busy) return emit('nudge', thing, by)
  const had = gathered?.key === keyOf(thing) ? gathered.by : { right: 0, up: 0 }
  gathered = { key: keyOf(thing), by: { right: had.right + by.right, up: had.up + by.up } }
}
watch(
  () => store.busy,
  (busy) => {
    const held = gathered
    if (busy || !held) return
    gathered = null
    const thing = props.things.find((one) => keyOf(one) === held.key)
    if (thing && (held.by.right || held.by.up)) emit('nudge', thing, held.by)
  },
  { flush: 'post' },
)
async function go(thing: Thing | null | undefined) {
  if (!thing) return
  focused.value = keyOf(thing)
  pointed = ''
  await nextTick()
  svg.value?.querySelector<SVGElement>(`[data-key="${CSS.escape(keyOf(thing))}"]`)?.focus()
}
function key(event: KeyboardEvent) {
  const now = current.value
  const way = WAYS[event.key]
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Escape' && hold.value) letGo()
  else if (way && now && (event.shiftKey || pointed === keyOf(now))) nudged(now, STEP[way])
  else if (way && now) void go(neighbour(props.things, now, way))
  else if (event.key === 'Home') void go(props.things[0])
  else if (event.key === 'End') void go(props.things.at(-1))
  else if ((event.key === 'Enter' || event.key === ' ') && now) emit('pick', now)
  else if (event.key === '+' || event.key === '=') zoomBy(1.4)
  else if (event.key === '-') zoomBy(1 / 1.4)
  else if (event.key === '0') fit()
  else return
  event.preventDefault()
  event.stopPropagation()
}
defineExpose({ fit, at })
</script>

<template>
  <svg
    ref="svg"
    class="picture"
    :class="{ placing, zoomed: zoom.k > 1 }"
    :width="fluid ? undefined : width"
    :height="fluid ? undefined : height"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    :aria-label="label"
    :data-testid="testid"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="cancelled"
    @pointerdown.self="down($event, null)"
    @pointerenter="measured"
    @focusin="measured"
    @wheel="wheel"
    @keydown="key"
  >
    <rect class="ground" :width="width" :height="height" @pointerdown="down($event, null)" />
    <g ref="pane" :transform="`translate(${zoom.x} ${zoom.y}) scale(${zoom.k})`">
      <g class="drawn" aria-hidden="true"><slot :zoom="zoom.k" /></g>
      <component
        :is="thing.points ? 'polygon' : 'rect'"
        v-for="thing in over"
        :key="keyOf(thing)"
        class="hit"
        :class="[thing.kind, { drags: thing.drags }]"
        v-bind="thing.points ? { points: thing.points } : hitArea(thing, least)"
        role="button"
        :tabindex="thing === current ? 0 : -1"
        :aria-label="thing.name"
        :aria-pressed="thing.picked ? 'true' : undefined"
        :data-key="keyOf(thing)"
        :data-mark="thing.mark ?? thing.name"
        @pointerdown="down($event, thing)"
        @focus="focused = keyOf(thing)"
      />
      <slot name="over" />
    </g>
    <g
      v-if="zoom.k > 1"
      class="fit"
      role="button"
      tabindex="0"
      aria-label="Fit the picture again"
      :transform="`translate(${width - 62} ${height - 34})`"
      @click="fit"
      @keydown.enter.stop="fit"
    >
      <rect width="56" height="28" rx="4" />
      <text x="28" y="19" text-anchor="middle">fit (0)</text>
    </g>
  </svg>
</template>

<style scoped>
.picture {
  display: block;
  font-family: var(--num);
  overflow: hidden;
  touch-action: pan-x pan-y;
}
.picture.zoomed {
  touch-action: none;
}
.ground {
  fill: transparent;
}
.hit {
  fill: transparent;
  cursor: pointer;
  outline: none;
}
.hit.drags {
  cursor: grab;
  touch-action: none;
}
.placing .hit,
.placing .ground {
  cursor: crosshair;
}
.hit:focus-visible {
  stroke: var(--chalk);
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
}
.drawn {
  pointer-events: none;
}
.fit {
  cursor: pointer;
}
.fit rect {
  fill: var(--card);
  stroke: var(--ink);
}
.fit text {
  font-size: 14px;
  font-weight: 600;
  fill: var(--ink);
}
@media (forced-colors: active) {
  .hit:focus-visible {
    stroke: Highlight;
  }
}
</style>
