<script setup lang="ts">
import { computed, ref, shallowRef, useTemplateRef } from 'vue'

import { api, ask, type Bent, type DrawnRoom, type Edit, type PlanCable } from '../../api/client'
import { corners, planScale, type XY } from '../../parts/planScale'
import SvgPicture from '../../parts/picture/SvgPicture.vue'
import type { Spot, Thing } from '../../parts/picture/things'
import PlanDrawing from '../../parts/PlanDrawing.vue'
import { useSize } from '../../parts/useSize'
import { useJob } from '../../stores/job'
import { cableThings, type CableThing } from './cableThings'

/**
 * The plan of a level with every cable that drew itself. A cable of the circuit looked at is dragged to another bay,
 * corner or level: it snaps to where cable can go and says its feet and dollars; Escape puts it back.
 */
const props = defineProps<{
  rooms: DrawnRoom[]
  level: string
  cables: PlanCable[]
  circuit: string | null
  way: string | null
}>()
const emit = defineEmits<{ pick: [way: string]; bend: [edits: Edit[]] }>()

const store = useJob()
const host = ref<HTMLElement | null>(null)
const picture = useTemplateRef<InstanceType<typeof SvgPicture>>('picture')
const { width, height } = useSize(host, 720, 320)
const scale = computed(() => planScale(corners(props.rooms), width.value, height.value, 30))
const path = (points: readonly (readonly number[])[]) =>
  points.map((p) => `${scale.value.x(p[0] ?? 0)},${scale.value.y(p[1] ?? 0)}`).join(' ')
const rank = (cable: PlanCable) => (cable.way === props.way ? 2 : cable.circuit === props.circuit ? 1 : 0)
const drawn = computed(() => props.cables.toSorted((a, b) => rank(a) - rank(b)))
const held = computed(
  () => new Set(props.cables.filter((one) => one.circuit === props.circuit).map((one) => one.box)),
)
const things = computed<Thing[]>(() => cableThings(drawn.value, scale.value, props.circuit, props.way))

const dragged = shallowRef<CableThing | null>(null)
const bent = shallowRef<Bent | null>(null)
const refused = ref('')
let wanted: Spot | null = null
/** The answers on their way: one question at a time, and only the newest place is asked next. */
let asking: Promise<void> | null = null

function grab(thing: Thing) {
  dragged.value = thing as CableThing
  bent.value = null
  refused.value = ''
}
function pull(at: Spot) {
  wanted = at
  return (asking ??= answered().finally(() => (asking = null)))
}
async function answered() {
  while (wanted && dragged.value) {
    const here: Spot = wanted
    wanted = null
    const one = dragged.value.cable
    const [x, y] = scale.value.back(here.x, here.y) as XY
    const params = {
      path: { job_id: store.view?.id ?? '', circuit_id: one.circuit, box: one.box },
      query: { level: props.level, x, y, at: one.at },
    }
    const { data, problem } = await ask(
      api.GET('/api/jobs/{job_id}/circuits/{circuit_id}/hops/{box}/bent', { params }),
    )
    if (!dragged.value) break
    bent.value = (data as Bent | undefined) ?? null
    refused.value = problem?.detail ?? ''
  }
}
async function drop(at: Spot) {
  await pull(at)
  const edits = bent.value?.edits as Edit[] | undefined
  letGo()
  if (edits) emit('bend', edits)
}
function letGo() {
  dragged.value = bent.value = null
  refused.value = ''
}
</script>

<template>
  <div ref="host" class="host">
    <SvgPicture
      ref="picture"
      label="The plan of this level with its cables, north up, to scale"
      testid="cable-plan"
      :width="width"
      :height="height"
      :things="things"
      @pick="emit('pick', ($event as CableThing).cable.way)"
      @grab="grab"
      @pull="(_thing, at) => pull(at)"
      @drop="(_thing, at) => drop(at)"
      @cancel="letGo"
    >
      <PlanDrawing :rooms="rooms" :room="null" :picked="null" :scale="scale" :held="[...held]" :paths="[]" />
      <g class="cables">
        <polyline
          v-for="(one, i) in drawn"
          :key="`${one.way}${i}`"
          :points="path(one.points)"
          :class="[
            `w${one.wire}`,
            one.at,
            { own: rank(one) > 0, here: rank(one) > 1, away: dragged && rank(one) > 1 },
          ]"
        />
        <polyline
          v-for="(one, i) in bent?.cables ?? []"
          :key="`b${i}`"
          :points="path(one.points)"
          class="bent"
          :class="one.at"
        />
      </g>
    </SvgPicture>
    <p v-if="dragged" class="drag-note num" :class="{ no: refused }" data-testid="bend-note">
      {{ refused || bent?.text || 'Drag it to a wall, a ceiling, another bay' }}
    </p>
    <p class="key num mute no-print">
      <span><i class="wall" />in a wall</span><span><i class="over" />in the joists over</span
      ><span><i class="under" />under the floor</span>
    </p>
  </div>
</template>

<style scoped>
.host {
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
}
.cables polyline {
  fill: none;
  stroke: var(--jacket, #4a4f52);
  stroke-width: 1.6;
  stroke-linejoin: round;
  opacity: 0.5;
}
.cables .own {
  stroke-width: 3.2;
  opacity: 1;
}
.cables .here {
  stroke-width: 5;
}
.cables .away {
  opacity: 0.35;
}
.cables .over {
  stroke-dasharray: 9 4;
}
.cables .under {
  stroke-dasharray: 2 4;
}
.cables polyline.bent {
  stroke: var(--chalk);
  stroke-width: 4;
  opacity: 1;
}
.drag-note.no {
  background: var(--keel);
  color: #fff;
}
.key {
  position: absolute;
  right: 10px;
  bottom: 4px;
  margin: 0;
  display: flex;
  gap: 14px;
  font-size: 13px;
}
.key i {
  display: inline-block;
  width: 26px;
  margin-right: 5px;
  vertical-align: 4px;
  border-top: 3px solid var(--mute);
}
.key .over {
  border-top-style: dashed;
}
.key .under {
  border-top-style: dotted;
}
</style>
