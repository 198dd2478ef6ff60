<script setup lang="ts">
import { computed, ref } from 'vue'

import type { RoomSummary } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import LevelTabs from '../../parts/LevelTabs.vue'
import { STEP, type Way } from '../../parts/picture/things'
import { toward } from '../../parts/planScale'
import PlanView from '../../parts/PlanView.vue'
import RoomList from '../../parts/RoomList.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { dropReading, lastReading } from '../../parts/tape'
import { useRoomStage } from '../../parts/useRoomStage'
import { useLook } from '../../stores/look'
import DxfDialog from './DxfDialog.vue'
import SiteView from './SiteView.vue'
import WallPanel from './WallPanel.vue'

const entry = ref<{ focus: () => void; start: (text: string, example?: string) => void } | null>(null)
const stage = useRoomStage('walls', 'room', entry)
const { store, rooms, drawn, act } = stage
const dxf = useLook().dialogOpen('dxf')
const site = ref(false)

const area = computed(() => {
  const total = rooms.value.reduce((sum, room) => sum + room.area_ft2, 0)
  const text = store.metric ? `${(total * 0.09290304).toFixed(1)} m²` : `${Math.round(total)} ft²`
  const many = rooms.value.length
  return total ? `${many} ${many === 1 ? 'room' : 'rooms'}, ${text} inside the studs` : ''
})

const sized = (row: RoomSummary) => rooms.value.find((one) => one.id === row.id)?.area_text ?? ''

/** An inch that way on the plan: a wall goes out or in, an opening along its wall. */
function nudge(way: Way) {
  const now = store.picked
  if (now?.kind === 'wall' && drawn.value) {
    const { out } = toward(drawn.value, now.side ?? 0, STEP[way])
    if (out) stage.moveWall(drawn.value.id, now.side ?? 0, out)
  }
  if (now?.kind !== 'opening') return
  const room = rooms.value.find((one) => one.openings.some((item) => item.id === now.id))
  const opening = room?.openings.find((item) => item.id === now.id)
  const along = room && opening ? toward(room, opening.side, STEP[way]).along : 0
  if (along) stage.move(now.id, { at_in: along })
}
function wall(by: number) {
  const count = drawn.value?.walls.length ?? 0
  if (!count || !store.roomId) return
  const now = store.picked?.kind === 'wall' ? (store.picked.side ?? 0) : by > 0 ? -1 : 0
  store.picked = { kind: 'wall', id: store.roomId, side: (now + by + count) % count }
}
stage.keys({
  ArrowRight: () => nudge('right'),
  ArrowUp: () => nudge('up'),
  ArrowLeft: () => nudge('left'),
  ArrowDown: () => nudge('down'),
  ']': () => wall(1),
  '[': () => wall(-1),
})
async function look(level: string) {
  site.value = false
  await store.lookAt({ level, room: undefined })
}
</script>

<template>
  <StageFrame>
    <template #left>
      <RoomList
        :rooms="store.view?.rooms ?? []"
        :current="store.roomId"
        :count="sized"
        @look="((site = false), store.lookRoom($event))"
      >
        <div class="add num">
          <button type="button" class="plain side-add" @click="entry?.start('room ')">+ Room</button>
          <button type="button" class="plain side-add" @click="entry?.start('level ')">+ Level</button>
          <button type="button" class="plain side-add" @click="entry?.start('structure ')">
            + Structure
          </button>
        </div>
      </RoomList>
    </template>
    <LevelTabs :levels="stage.levels.value" :current="site ? null : store.levelId" @look="look">
      <button
        v-if="(store.job?.structures.length ?? 0) > 1"
        type="button"
        role="tab"
        class="plain"
        :class="{ here: site }"
        :aria-selected="site"
        data-testid="site-tab"
        @click="site = true"
      >
        Site
      </button>
    </LevelTabs>
    <div class="plan">
      <SiteView
        v-if="site"
        :sites="store.view?.site ?? []"
        :metric="store.metric"
        @move="
          (id, x, y) =>
            act([{ op: 'set', kind: 'structure', id, set: { x_in: x, y_in: y } }], 'move structure')
        "
      />
      <EmptyStage
        v-else-if="!store.loading && store.viewOf('walls') && !rooms.length && !store.job?.rooms.length"
        title="No room yet"
        action="Type the first room"
        @begin="entry?.start('room ', 'Kitchen 14\' x 12\'')"
      >
        Here rooms are built from tape readings. A single circuit needs no drawing: begin it with a sentence.
      </EmptyStage>
      <PlanView
        v-else
        :rooms="rooms"
        :room="store.roomId"
        :picked="store.picked"
        :metric="store.metric"
        walls
        @room="store.lookRoom($event, store.picked)"
        @pick="store.picked = $event"
        @move-wall="stage.moveWall"
        @move="stage.move"
      />
    </div>
    <template #entry>
      <EntryLine
        ref="entry"
        verb="room"
        placeholder="kitchen 14' x 12' east of common"
        :buttons="['wall', 'door', 'window', 'mark', 'frame', 'level']"
        action="build"
        :suggest="stage.suggest"
        :submit="stage.say"
      />
      <p class="tools mute no-print">
        <span>{{ area }}</span>
        <span class="gap" />
        <button
          type="button"
          class="plain"
          data-testid="tape"
          @mousedown.prevent
          title="T drops a reading too"
          @click="dropReading"
        >
          Laser tape, simulated{{ lastReading ? `: ${lastReading}` : '' }}
        </button>
        <button v-if="store.levelId" type="button" class="plain" data-testid="dxf" @click="dxf = true">
          Bring in DXF…
        </button>
        <a
          v-if="store.view && store.levelId"
          :href="`/api/jobs/${store.view.id}/levels/${store.levelId}/plan.dxf`"
          >Save as DXF</a
        >
      </p>
    </template>
    <template #right>
      <WallPanel :drawn="drawn" :act="act" @remove="stage.remove" />
    </template>
    <DxfDialog v-model="dxf" />
  </StageFrame>
</template>

<style scoped>
.plan {
  flex: 1 1 380px;
  min-height: 300px;
  background: var(--card);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 0;
  padding: 6px 4px 0;
  font-size: 14px;
}
.gap {
  flex: 1;
}
.tools button,
.tools a {
  color: var(--chalk);
  font-weight: 600;
  text-decoration: none;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 10px 12px;
}
.add button.side-add {
  margin: 0;
}
</style>
