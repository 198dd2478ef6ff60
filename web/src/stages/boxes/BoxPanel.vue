<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Problem } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import VialGauge from '../../parts/VialGauge.vue'
import { useJob } from '../../stores/job'
import BoxFace from './BoxFace.vue'
import BoxFields from './BoxFields.vue'

/** The picked box: verdict, its face with its cables, margins, where it stands and why; else the room. */
const props = defineProps<{ act: (edits: Edit[], label?: string) => Promise<Problem | null> }>()
const emit = defineEmits<{ remove: []; fill: [] }>()
const store = useJob()

const planned = computed(() => store.view?.room?.planned ?? null)
const node = computed(() =>
  [...(store.job?.boxes ?? []), ...(store.job?.panels ?? [])].find((b) => b.id === store.picked?.id),
)
const box = computed(() => store.job?.boxes.find((item) => item.id === store.picked?.id) ?? null)
const boxPlan = computed(() => planned.value?.boxes.find((item) => item.id === store.picked?.id) ?? null)
/** A box that stands in no drawn room, as its row. */
const apart = computed(() => store.view?.apart?.find((row) => row.id === store.picked?.id) ?? null)
const own = computed(() =>
  [...(planned.value?.findings ?? []), ...(store.view?.said ?? [])].filter(
    (f) => f.subject === store.picked?.id,
  ),
)
const structure = computed(() =>
  (store.view?.level?.findings ?? []).filter((f) => f.about === 'structure' && f.room === store.roomId),
)
const ofRoom = computed(() => [
  ...(planned.value?.findings ?? []).filter((f) => f.about === 'room'),
  ...structure.value,
])
const ofBoxes = computed(() => (planned.value?.findings ?? []).filter((f) => f.about !== 'room'))
const building = computed(() =>
  store.job?.structures.find((item) => (item.levels ?? []).some((level) => level.id === store.room?.level)),
)
/** What is missing is asked until a room is laid out, and stops from then on. */
function layOut(done: boolean) {
  const room = store.room
  if (!room) return
  const name = done ? `${room.name} is laid out` : `${room.name} is not laid out`
  void props.act([{ op: 'set', kind: 'room', id: room.id, set: { laid_out: done } }], name)
}
const pick = (id: string, about: string) => (store.picked = { kind: about === 'panel' ? 'panel' : 'box', id })
</script>

<template>
  <template v-if="node">
    <header class="pick-head">
      <h2>{{ [node.name, apart ? apart.where : store.room?.name].filter(Boolean).join(', ') }}</h2>
      <span class="num mute">{{ box ? box.kind : 'panel' }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in own"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="store.mend($event)"
    />
    <template v-if="box && boxPlan">
      <BoxFace v-if="boxPlan.entering.length" :box="boxPlan" :gangs="box.gangs ?? 1" />
      <VialGauge v-for="figure in boxPlan.figures" :key="figure.key" :figure="figure" />
      <p v-if="!boxPlan.figures.length" class="mute">
        No cable is known to enter it yet: its fill is judged when a circuit does.
      </p>
      <p v-if="boxPlan.why" class="why">{{ boxPlan.why }}</p>
      <dl class="pick-facts num">
        <div v-for="line in boxPlan.lines" :key="line.label">
          <dt>{{ line.label }}</dt>
          <dd>{{ line.text }}</dd>
        </div>
      </dl>
    </template>
    <template v-else-if="apart">
      <VialGauge v-if="apart.figure" :figure="apart.figure" />
      <p v-else-if="apart.model && !apart.cables" class="mute">
        No cable is known to enter it yet: its fill is judged when a circuit does.
      </p>
      <dl v-if="apart.model" class="pick-facts num">
        <div>
          <dt>Box</dt>
          <dd>{{ apart.model }}</dd>
        </div>
      </dl>
    </template>
    <BoxFields :key="node.id" :kind="box ? 'box' : 'panel'" :part="node" />
    <div class="row no-print">
      <v-btn size="small" variant="text" color="stop" @click="emit('remove')">Remove it</v-btn>
      <v-btn size="small" variant="text" @click="store.picked = null">{{
        apart ? 'Close' : 'Whole room'
      }}</v-btn>
    </div>
    <p v-if="!apart" class="mute">
      Heights are this shop’s habit, not code. Change the pole once and every box follows.
    </p>
  </template>
  <template v-else-if="planned">
    <header class="pick-head">
      <h2>{{ planned.summary.name }}</h2>
      <span class="num mute">{{ planned.summary.boxes }} boxes</span>
    </header>
    <div class="row fill no-print">
      <v-btn size="small" variant="outlined" data-testid="fill" @click="emit('fill')"
        >Place what is missing</v-btn
      >
      <v-checkbox
        v-if="!building?.laid_out"
        :model-value="store.room?.laid_out"
        label="Laid out"
        density="compact"
        hide-details
        data-testid="laid-out"
        @update:model-value="layOut($event === true)"
      />
    </div>
    <FindingCard
      v-for="(f, i) in ofRoom"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="store.mend($event)"
    />
    <p v-if="!planned.findings.length && !ofRoom.length" class="fine num">Nothing is missing here.</p>
    <button
      v-for="(f, i) in ofBoxes"
      :key="`b${i}`"
      type="button"
      class="plain other"
      :class="f.severity"
      @click="pick(f.subject, f.about)"
    >
      {{ f.title }}
    </button>
    <h3 v-if="planned.boxes.length">Boxes, tick what is marked on the frame</h3>
    <table class="num">
      <tbody>
        <tr
          v-for="item in planned.boxes"
          :key="item.id"
          :data-box-row="item.name"
          @click="pick(item.id, 'box')"
        >
          <td class="mark" @click.stop>
            <v-checkbox
              :model-value="store.job?.boxes.find((b) => b.id === item.id)?.marked"
              :aria-label="`${item.name} marked on the frame`"
              @update:model-value="
                act([{ op: 'set', kind: 'box', id: item.id, set: { marked: $event } }], `mark ${item.name}`)
              "
            />
          </td>
          <td class="name">
            <b>{{ item.name }}</b>
          </td>
          <td class="mute">{{ item.kind }}</td>
          <td class="mute">{{ item.at }}</td>
        </tr>
      </tbody>
    </table>
  </template>
  <p v-else class="mute">
    {{
      store.view?.apart?.length
        ? 'Pick a box to see how full it is and to change it.'
        : 'Build a room in Walls first.'
    }}
  </p>
</template>

<style scoped>
.fill {
  margin-bottom: 8px;
}
.name {
  white-space: nowrap;
}
.why {
  margin: 6px 0;
}
.fine {
  color: var(--fine);
  font-weight: 600;
  margin: 0 0 8px;
}
h3 {
  margin: 14px 0 2px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
tr {
  cursor: pointer;
}
td {
  border-top: 1px solid var(--rule);
  padding: 0 6px 0 0;
}
.mark {
  width: 40px;
}
.other {
  display: block;
  width: 100%;
  padding: 5px 0 5px 9px;
  border-left: 4px solid var(--rule);
  margin: 6px 0 0;
  font-size: 14.5px;
}
.other.stop {
  border-color: var(--stop);
}
.other.check {
  border-color: var(--check-mark);
}
.row {
  display: flex;
  gap: 6px;
}
</style>
