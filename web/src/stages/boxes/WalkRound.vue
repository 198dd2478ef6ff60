<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { InTheWalls, RoundBox, WalkRound } from '../../api/client'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Spot, Steps, Thing } from '../../parts/picture/things'
import { tapeText } from '../../parts/planScale'
import { useSize } from '../../parts/useSize'
import type { Picked } from '../../stores/look'
import RoundDrawing from './RoundDrawing.vue'
import { LEAST, middle, POLE, roundScale, snapped, TOP, wallAt } from './roundScale'

/**
 * All walls of the room unrolled, clockwise. Boxes can be picked and dragged along their wall; a stud catches them.
 * `exact` draws lengths and heights to one scale; otherwise all walls fit and the picture says how heights are drawn.
 */
const props = defineProps<{
  round: WalkRound
  inside: InTheWalls | null
  picked: Picked | null
  metric: boolean
  exact: boolean
  placing: string | null
}>()
const emit = defineEmits<{
  pick: [what: Picked | null]
  move: [id: string, by: number]
  place: [to: Record<string, number>]
  pole: []
}>()

const host = ref<HTMLElement | null>(null)
const size = useSize(host, 720, 330)
const scale = computed(() => roundScale(props.round, size.width.value, size.height.value, props.exact))

const isPicked = (kind: Picked['kind'], id: string) => props.picked?.kind === kind && props.picked.id === id
const framed = (item: { x0: number; x1: number; y0: number; y1: number }, least = 0) => {
  const { x, y, width, height } = scale.value.rect(item, least)
  return { x, y, w: width, h: height }
}
const kindOf = (box: RoundBox) => (box.kind === 'panel' ? 'panel' : 'box')
const wallOf = (side: number) => props.round.walls.find((w) => w.side === side)
const readAt = (box: RoundBox, at = middle(box)) =>
  `${wallOf(box.side)?.name ?? ''} ${tapeText(at - (wallOf(box.side)?.x0 ?? 0), props.metric)}`

const things = computed<Thing[]>(() => [
  ...props.round.openings.map((o) => ({
    id: `${o.id}.${o.side}`,
    kind: 'opening',
    name: `${o.label}, ${wallOf(o.side)?.name ?? ''} wall`,
    picked: isPicked('opening', o.id),
    ...framed(o),
  })),
  ...props.round.fixtures.map((f) => ({
    id: f.id,
    kind: 'fixture',
    name: f.label,
    picked: isPicked('fixture', f.id),
    ...framed(f),
  })),
  ...props.round.boxes.map((box) => ({
    id: box.id,
    kind: kindOf(box),
    name: `${box.name}, ${readAt(box)}${box.verdict === 'fine' ? '' : `, ${box.verdict}`}`,
    picked: isPicked(kindOf(box), box.id),
    drags: true,
    mark: box.name,
    ...framed(box, props.exact ? 0 : LEAST),
  })),
  {
    id: 'pole',
    kind: 'pole',
    name: 'Story pole: heights of all boxes',
    x: POLE - 52,
    y: TOP,
    w: 42,
    h: scale.value.room,
  },
])

const drag = ref<{ box: RoundBox; by: number } | null>(null)
function pull(thing: Thing, at: Spot, from: Spot) {
  const box = props.round.boxes.find((item) => item.id === thing.id)
  if (!box) return
  const half = (box.x1 - box.x0) / 2
  const to = middle(box) + (at.x - from.x) / scale.value.per
  drag.value = { box, by: snapped(props.round, to, half, box.side) - middle(box) }
}
function moved(box: RoundBox, by: number) {
  if (by) emit('move', box.id, by)
}
function drop() {
  const now = drag.value
  drag.value = null
  if (now) moved(now.box, now.by)
}
function pick(thing: Thing) {
  if (thing.kind === 'pole') return emit('pole')
  emit('pick', { kind: thing.kind as Picked['kind'], id: thing.id.split('.')[0] ?? '' })
}
/** An inch along its wall. */
function nudge(thing: Thing, by: Steps) {
  const box = props.round.boxes.find((item) => item.id === thing.id)
  if (box) moved(box, by.right)
}
function tap(at: Spot) {
  const inches = scale.value.inches(at.x)
  const wall = wallAt(props.round, inches)
  if (!props.placing || !wall) return emit('pick', null)
  const spot = snapped(props.round, inches, 1.125, wall.side)
  emit('place', { side: wall.side, at_in: Math.round((spot - wall.x0) * 16) / 16 })
}
const note = computed(() =>
  drag.value ? readAt(drag.value.box, middle(drag.value.box) + drag.value.by) : '',
)

watch(
  () => [props.picked?.id, props.exact] as const,
  ([id]) => {
    const box = props.round.boxes.find((item) => item.id === id)
    if (box && host.value && host.value.scrollWidth > host.value.clientWidth)
      host.value.scrollTo({
        left: scale.value.x(middle(box)) - host.value.clientWidth / 2,
        behavior: 'smooth',
      })
  },
  { flush: 'post' },
)
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      label="The walls of the room unrolled, clockwise"
      testid="round"
      :width="scale.width"
      :height="scale.height"
      :things="things"
      :placing="!!placing"
      @pick="pick"
      @tap="tap"
      @pull="pull"
      @drop="drop"
      @cancel="drag = null"
      @nudge="nudge"
    >
      <RoundDrawing
        :round="round"
        :inside="inside"
        :scale="scale"
        :picked="picked"
        :moving="drag?.box.id ?? ''"
        :by="drag?.by ?? 0"
      />
    </SvgPicture>
    <p v-if="note" class="note num" data-testid="round-note">{{ note }}</p>
  </div>
</template>

<style scoped>
.host {
  position: relative;
  width: 100%;
  height: 100%;
  overflow-x: auto;
  overflow-y: hidden;
  background: var(--card);
}
.note {
  position: sticky;
  left: 40%;
  bottom: 60%;
  display: inline-block;
  margin: 0;
  padding: 3px 10px;
  background: var(--tape);
  color: #20262a;
  border: 1px solid #20262a;
  font-weight: 600;
}
</style>
