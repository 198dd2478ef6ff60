<script setup lang="ts">
import { computed, ref } from 'vue'

import type { RoomSummary } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import PlanView from '../../parts/PlanView.vue'
import RoomList from '../../parts/RoomList.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useRoomStage } from '../../parts/useRoomStage'
import { useLook } from '../../stores/look'
import ApartBoxes from './ApartBoxes.vue'
import BoxPanel from './BoxPanel.vue'
import PoleDialog from './PoleDialog.vue'
import WalkRound from './WalkRound.vue'

const entry = ref<{ focus: () => void; start: (text: string) => void } | null>(null)
const stage = useRoomStage('boxes', 'set', entry)
const { store, rooms, act } = stage
const look = useLook()
const pole = look.dialogOpen('pole')
const exact = ref(false)
const placing = ref<string | null>(null)
const BUTTONS = ['receptacle', 'switch', 'light', 'fill']
const marked = (room: RoomSummary) => `${room.boxes}${room.boxes && room.marked === room.boxes ? ' ✓' : ''}`
const KINDS = ['receptacle', 'switch', 'light', 'fan', 'smoke', 'junction']

/** Nothing is drawn, but boxes stand there: a list of them instead of walls. */
const undrawn = computed(() => !store.view?.rooms?.length && !!store.view?.apart?.length)
const box = computed(() => store.job?.boxes.find((item) => item.id === store.picked?.id) ?? null)

async function place(to: Record<string, number>) {
  if (!placing.value || !store.roomId) return
  const before = new Set(store.job?.boxes.map((item) => item.id))
  const item = { kind: placing.value, room: store.roomId, ...to }
  const problem = await act([{ op: 'add', kind: 'box', item }], `set ${placing.value}`)
  const fresh = store.job?.boxes.find((one) => !before.has(one.id))
  if (!problem && fresh) store.picked = { kind: 'box', id: fresh.id }
}
const fill = () => store.roomId && act([{ op: 'fill_room', room: store.roomId }], 'place what is missing')

function nudge(by: number) {
  if (typeof box.value?.at_in === 'number') stage.move(box.value.id, { at_in: by })
}
function next(by: number) {
  const all = store.view?.room?.planned.boxes ?? []
  const at = all.findIndex((item) => item.id === store.picked?.id)
  const to = all[(at < 0 ? (by > 0 ? 0 : all.length - 1) : at + by + all.length) % all.length]
  if (to) store.picked = { kind: 'box', id: to.id }
}
function mark() {
  if (box.value)
    void act(
      [{ op: 'set', kind: 'box', id: box.value.id, set: { marked: !box.value.marked } }],
      `mark ${box.value.name}`,
    )
}
stage.keys({
  r: () => entry.value?.start('receptacle '),
  s: () => entry.value?.start('switch '),
  i: () => entry.value?.start('light '),
  f: () => void fill(),
  z: () => (exact.value = !exact.value),
  x: mark,
  ArrowRight: () => nudge(1),
  ArrowLeft: () => nudge(-1),
  ']': () => next(1),
  '[': () => next(-1),
  Escape: () => {
    placing.value = null
    store.picked = null
  },
})
</script>

<template>
  <StageFrame>
    <template #left>
      <RoomList
        :rooms="store.view?.rooms ?? []"
        :current="store.roomId"
        :count="marked"
        @look="store.lookRoom($event)"
      >
        <section v-if="undrawn">
          <h2 class="caps">Rooms</h2>
          <p class="mute none">None is drawn.</p>
        </section>
        <section v-else-if="store.view?.apart?.length" data-testid="in-no-room">
          <h2 class="caps">In no room</h2>
          <button
            v-for="row in store.view.apart"
            :key="row.id"
            type="button"
            class="plain side-row num"
            :class="{ here: row.id === store.picked?.id }"
            :data-apart="row.name"
            @click="store.picked = { kind: 'box', id: row.id }"
          >
            {{ row.name }}
          </button>
        </section>
      </RoomList>
    </template>
    <ApartBoxes
      v-if="undrawn"
      :boxes="store.view?.apart ?? []"
      :said="store.view?.said ?? []"
      :picked="store.picked?.id ?? null"
      @pick="store.picked = { kind: 'box', id: $event }"
    />
    <template v-else>
      <div class="plan">
        <PlanView
          :rooms="rooms"
          :room="store.roomId"
          :picked="store.picked"
          :metric="store.metric"
          :placing="placing"
          @room="store.lookRoom($event, store.picked)"
          @pick="store.picked = $event"
          @move="stage.move"
          @place="place"
        />
      </div>
      <div class="tools num no-print">
        <span class="mute">{{ placing ? `Tap where the ${placing} goes` : 'Tap to set' }}</span>
        <button
          v-for="kind in KINDS"
          :key="kind"
          type="button"
          class="plain key"
          :class="{ on: placing === kind }"
          :aria-pressed="placing === kind"
          @click="placing = placing === kind ? null : kind"
        >
          {{ kind }}
        </button>
        <span class="gap" />
        <button type="button" class="plain key" :aria-pressed="exact" @click="exact = !exact">
          {{ exact ? 'All walls' : 'True scale' }}
        </button>
        <button type="button" class="plain key" data-testid="open-pole" @click="pole = true">
          Story pole…
        </button>
        <router-link class="key" :to="`/jobs/${store.view?.id}/sheets/box-schedule`"
          >Box schedule</router-link
        >
      </div>
      <div class="round">
        <WalkRound
          v-if="store.view?.room?.round"
          :round="store.view.room.round"
          :inside="store.view.room.inside"
          :picked="store.picked"
          :metric="store.metric"
          :exact="exact"
          :placing="placing"
          @pick="store.picked = $event"
          @move="(id, by) => stage.move(id, { at_in: by })"
          @place="place"
          @pole="pole = true"
        />
        <EmptyStage
          v-else-if="!store.loading && store.viewOf('boxes')"
          title="No room yet"
          action="To Walls"
          @begin="look.go({}, 'walls')"
        >
          Here boxes are set along the walls of a room, unrolled. A job without a drawing needs none of it.
        </EmptyStage>
      </div>
    </template>
    <template #entry>
      <EntryLine
        ref="entry"
        verb="set"
        :placeholder="undrawn ? 'R-1 is outside, a gfci, 16&quot; high' : `receptacle south 7'6 at 16&quot;`"
        :buttons="undrawn ? [] : BUTTONS"
        :action="undrawn ? 'say it' : 'set box'"
        :suggest="stage.suggest"
        :submit="stage.say"
      />
    </template>
    <template #right>
      <BoxPanel :act="act" @remove="stage.remove" @fill="fill" />
    </template>
    <PoleDialog v-model="pole" />
  </StageFrame>
</template>

<style scoped>
.plan {
  flex: 1 1 260px;
  min-height: 230px;
  background: var(--card);
}
.round {
  flex: 1 1 300px;
  min-height: 280px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px 6px;
  padding: 5px 10px;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  font-size: 14px;
}
.gap {
  flex: 1;
}
.none {
  padding: 0 12px;
}
.key {
  cursor: pointer;
  text-decoration: none;
  padding: 5px 8px;
}
.key.on {
  background: var(--chalk);
  color: var(--card);
}
@media (max-width: 1000px) {
  .plan {
    height: 220px;
    min-height: 0;
    flex: none;
  }
  .round {
    height: 300px;
    flex: none;
  }
}
</style>
