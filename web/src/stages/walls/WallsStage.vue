<script setup lang="ts">
import { computed, ref } from 'vue'

import EntryLine from '../../parts/EntryLine.vue'
import LevelTabs from '../../parts/LevelTabs.vue'
import PlanView from '../../parts/PlanView.vue'
import RoomList from '../../parts/RoomList.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { dropReading, lastReading } from '../../parts/tape'
import { useRoomStage } from '../../parts/useRoomStage'
import DxfDialog from './DxfDialog.vue'
import SiteView from './SiteView.vue'
import WallPanel from './WallPanel.vue'

const entry = ref<{ focus: () => void; start: (text: string) => void } | null>(null)
const stage = useRoomStage('walls', 'room', entry)
const { store, rooms, drawn, act } = stage
const dxf = ref(false)
const site = ref(false)

const area = computed(() => {
  const total = rooms.value.reduce((sum, room) => sum + Number.parseFloat(room.area_text), 0)
  return total ? `${rooms.value.length} rooms, ${total} ft² inside the studs` : ''
})

function nudge(by: number) {
  const now = store.picked
  if (now?.kind === 'wall' && store.roomId) void stage.moveWall(store.roomId, now.side ?? 0, by)
  const opening = now?.kind === 'opening' ? store.job?.openings.find((item) => item.id === now.id) : null
  if (opening) void stage.moveOpening(opening.id, Math.max(opening.at_in + by, 0))
}
function wall(by: number) {
  const count = drawn.value?.walls.length ?? 0
  if (!count || !store.roomId) return
  const now = store.picked?.kind === 'wall' ? (store.picked.side ?? 0) : by > 0 ? -1 : 0
  store.picked = { kind: 'wall', id: store.roomId, side: (now + by + count) % count }
}
stage.keys({
  ArrowRight: () => nudge(1),
  ArrowUp: () => nudge(1),
  ArrowLeft: () => nudge(-1),
  ArrowDown: () => nudge(-1),
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
        :count="(room) => rooms.find((one) => one.id === room.id)?.area_text ?? ''"
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
        @move-opening="stage.moveOpening"
        @move-box="stage.moveBox"
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
