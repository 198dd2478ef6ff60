<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'

import {
  api,
  ask,
  type Behind,
  type BoxCard,
  type Edit,
  type FaultRow,
  type HoldRow,
  type PanelCard,
  type SurfaceRow,
  type VisitRow,
  type WallPhoto,
  type XCable,
  type XRay,
} from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import FindingCard from '../../parts/FindingCard.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import { useOutbox } from '../../stores/outbox'
import HoldList from './HoldList.vue'
import MadeUp from './MadeUp.vue'
import PhotoDialog from './PhotoDialog.vue'
import { keyOf, type Point, today } from './record'
import OutboxNotes from './OutboxNotes.vue'
import RoughNav from './RoughNav.vue'
import { usePhotos } from './usePhotos'
import { useTicks } from './useTicks'
import WallPanel from './WallPanel.vue'
import XRayPicture from './XRayPicture.vue'

/** Rough-in: what is behind each wall, how its boxes are made up, what is held, what was seen. */
const store = useJob()
const look = useLook()
const notice = useNotice()
const outbox = useOutbox()
const entry = ref<{ focus: () => void } | null>(null)
const verdict = ref<{ close: () => void } | null>(null)

const view = computed(() => store.view)
const rows = computed(() => (view.value?.surfaces as SurfaceRow[] | undefined) ?? [])
const loose = computed(() => store.viewOf('rough_in')?.loose ?? [])
const wall = computed(() => (view.value?.wall as SurfaceRow | null | undefined) ?? null)
const shown = computed(() => (view.value?.xray as XRay | null | undefined) ?? null)
const card = computed(() => (view.value?.card as BoxCard | null | undefined) ?? null)
const panel = computed(() => (view.value?.panel_card as PanelCard | null | undefined) ?? null)
const holds = computed(() => (view.value?.holds as HoldRow[] | undefined) ?? [])
const photos = computed(() => (view.value?.photos as WallPhoto[] | undefined) ?? [])
const said = computed(() =>
  (view.value?.said ?? []).filter((f) => f.code !== 'closed-early' && f.code !== 'fault-open'),
)
const here = computed(() => (wall.value ? keyOf(wall.value) : null))
const node = computed(() => card.value?.node ?? panel.value?.node ?? null)
const structure = computed(
  () => wall.value?.structure ?? store.nodes.find((item) => item.id === node.value)?.structure ?? '',
)
const anything = computed(() => rows.value.length + loose.value.length > 0)

const about = () => ({
  room: wall.value?.room ?? null,
  level: null,
  panel: panel.value?.node ?? null,
  verb: 'tick',
})
const { suggest, act } = useEntry('rough_in', about)
const say = (text: string) => store.edit([{ op: 'say', text, ...about() }])

const lookAt = (key: string) => store.lookAt({ wall: key, node: undefined })
const lookNode = (id: string) => store.lookAt({ node: id, wall: undefined })
function step(by: number) {
  const keys = rows.value.map(keyOf)
  const next = keys[(keys.indexOf(here.value ?? '') + by + keys.length) % keys.length]
  if (next) void lookAt(next)
}
function stepBox(by: number) {
  const own = shown.value?.boxes ?? []
  const next = own[(own.findIndex((box) => box.id === node.value) + by + own.length) % own.length]
  if (next) void store.lookAt({ node: next.id })
}

const { tick, next, all, torque } = useTicks({ card, panel, here, act })

const behind = ref<Behind | null>(null)
watch(here, () => (behind.value = null))
async function whats(at: number, height: number) {
  if (!view.value || !wall.value) return
  const query = { room: wall.value.room, surface: wall.value.surface, at_in: at, height_in: height }
  const path = { job_id: view.value.id }
  const { data, problem } = await ask(api.GET('/api/jobs/{job_id}/behind', { params: { path, query } }))
  if (problem) notice.tell(problem.detail, 'stop')
  else behind.value = data
}
const moveBox = (id: string, at: number, height: number) =>
  act([{ op: 'built_box', node: id, at_in: at, height_in: height, on: today() }], 'where the box was built')
const moveCable = (cable: XCable, points: Point[]) =>
  wall.value &&
  act(
    [
      {
        op: 'built_cable',
        circuit: cable.circuit,
        box: cable.box,
        room: wall.value.room,
        surface: wall.value.surface,
        points,
        on: today(),
      },
    ],
    `where cable ${cable.letter} lies`,
  )

const opened = ref<string | null>(null)
const photo = computed(() => photos.value.find((item) => item.id === opened.value) ?? null)
const pin = (id: string, at: number, height: number) =>
  wall.value &&
  act(
    [
      {
        op: 'pin_photo',
        photo: id,
        room: wall.value.room,
        surface: wall.value.surface,
        at_in: at,
        height_in: height,
      },
    ],
    'pin the photo',
  )
const { file, chosen, dropped, trenchPhoto, choose } = usePhotos({ wall, shown, node, behind })

const boxesHere = computed(() => (shown.value?.boxes ?? []).map((box) => ({ id: box.id, name: box.name })))
const alone = computed(() => (wall.value ? null : (card.value ?? panel.value)))
const whereOf = (fault: FaultRow) => store.lookAt({ node: fault.node, wall: fault.wall || undefined })
const settle = (edits: Edit[], label?: string) => {
  if (here.value && !look.at.wall) look.go({ wall: here.value, node: node.value ?? undefined })
  return store.edit(edits, label)
}
const held = computed(() => ({
  holds: holds.value,
  visits: (view.value?.visits as VisitRow[] | undefined) ?? [],
  faults: (view.value?.faults as FaultRow[] | undefined) ?? [],
  structure: structure.value,
  job: view.value?.id ?? '',
  act: settle,
  boxes: boxesHere.value,
  onPhoto: trenchPhoto,
  onWait: (at: string, on: string) => store.lookAt({ node: at || undefined, wall: on || undefined }),
  onGo: whereOf,
}))
/** On a phone the box comes before the holds: it is what the thumb is for. */
const glass = window.matchMedia('(max-width: 1000px)')
const narrow = ref(glass.matches)
const turned = () => (narrow.value = glass.matches)
onMounted(() => {
  void outbox.load()
  glass.addEventListener('change', turned)
})
onBeforeUnmount(() => glass.removeEventListener('change', turned))
useKeys({
  '/': () => entry.value?.focus(),
  b: () => entry.value?.focus(),
  j: () => step(1),
  k: () => step(-1),
  '[': () => stepBox(-1),
  ']': () => stepBox(1),
  x: next,
  u: all,
  f: () => choose(),
  c: () => verdict.value?.close(),
  m: tapMend,
  Escape: () => (behind.value = null),
})
</script>

<template>
  <StageFrame>
    <template #left>
      <RoughNav :rows="rows" :loose="loose" :here="here" :node="node" @look="lookAt" @node="lookNode" />
    </template>
    <EmptyStage
      v-if="!anything && !store.loading && store.viewOf('rough_in')"
      title="Nothing is wired yet"
      action="Begin with a circuit"
      @begin="look.go({}, 'circuits')"
    >
      Every box that a circuit reaches is made up, photographed and seen here, before its wall is closed.
    </EmptyStage>
    <section v-if="shown && wall" class="wall" @dragover.prevent @drop.prevent="dropped">
      <header class="num headed">
        <h2>{{ shown.title }}</h2>
        <span class="mute">tap: what is behind a spot · drag: where it really went</span>
      </header>
      <XRayPicture
        :shown="shown"
        :node="node"
        :spot="behind"
        :metric="store.metric"
        :pinning="false"
        @pick="store.lookAt({ node: $event, wall: here ?? undefined })"
        @photo="opened = $event"
        @ask="whats"
        @box="moveBox"
        @cable="moveCable"
        @pin="pin"
      />
      <ul v-if="shown.marks.length" class="marks num">
        <li v-for="mark in shown.marks" :key="mark">On the floor, {{ mark }}</li>
      </ul>
    </section>
    <template v-if="anything" #under>
      <MadeUp :card="card" :panel="panel" @tick="tick" @torque="torque" />
      <HoldList v-if="view && narrow" class="below" v-bind="held" />
      <p class="foot num no-print">
        <router-link :to="`/jobs/${view?.id}/sheets/box-cards`">Box cards</router-link>
        <router-link :to="`/jobs/${view?.id}/sheets/photos`"
          >All {{ view?.all_photos ?? 0 }} photos</router-link
        >
        <router-link :to="`/jobs/${view?.id}/sheets/handover-book`">Handover book</router-link>
        <span v-if="view?.bare" class="mute">{{ view.bare }} walls without a photo</span>
      </p>
    </template>
    <template v-if="anything" #entry>
      <EntryLine
        ref="entry"
        verb="tick"
        called="rough-in"
        placeholder="R-10 is made up · the north wall is closed · behind north 4'2 at 40&quot;"
        :buttons="['made up', 'behind', 'left out', 'extra']"
        action="say it"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template v-if="anything" #right>
      <OutboxNotes />
      <WallPanel
        v-if="wall"
        ref="verdict"
        :wall="wall"
        :behind="behind"
        :act="settle"
        @node="store.lookAt({ node: $event, wall: here ?? undefined })"
        @photo="choose()"
        @forget="behind = null"
      />
      <article v-else-if="alone" class="alone" :class="{ made: alone.made }" data-testid="box-verdict">
        <b class="num">{{ alone.made ? `${alone.name} is made up` : `${alone.name} is not made up yet` }}</b>
        <p class="mute num">{{ alone.where || 'In no drawn room: say where it is, in Boxes.' }}</p>
        <v-btn size="small" variant="outlined" class="no-print" @click="choose()">Add a photo</v-btn>
      </article>
      <div v-if="photos.length && view" class="strip">
        <button v-for="p in photos" :key="p.id" type="button" class="plain" @click="opened = p.id">
          <img :src="`/api/jobs/${view.id}/photos/${p.id}/small.jpg`" :alt="`Photo ${p.number}: ${p.text}`" />
          <span class="num">{{ p.number }} · {{ p.on || 'no day' }}</span>
        </button>
      </div>
      <FindingCard v-for="f in said" :key="f.code + f.subject" :finding="f" @mend="store.mend" />
      <HoldList v-if="view && !narrow" v-bind="held" />
      <PhotoDialog
        v-if="view"
        :photo="photo"
        :job="view.id"
        :act="(edits, label) => store.edit(edits, label)"
        @close="opened = null"
      />
      <input
        ref="file"
        type="file"
        accept="image/jpeg,image/png,image/webp,image/heic,image/heif,image/*"
        multiple
        hidden
        data-testid="photo-file"
        @change="chosen"
      />
    </template>
  </StageFrame>
</template>

<style scoped>
section {
  background: var(--card);
}
.marks {
  margin: 0;
  padding: 0 14px 8px 30px;
  font-size: 14px;
}
:deep(.under) {
  padding: 0;
  margin-bottom: auto;
}
.below {
  padding: 4px 14px 0;
  margin: 0;
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  padding: 10px 14px;
  margin: 0;
  font-size: 15px;
}
.foot a {
  color: var(--chalk);
  font-weight: 600;
}
.alone {
  border-left: 5px solid var(--check-mark);
  background: var(--check-wash);
  padding: 8px 10px 9px;
  margin-bottom: 8px;
}
.alone.made {
  border-color: var(--fine);
  background: var(--note-wash);
}
.alone p {
  margin: 2px 0 6px;
}
.strip {
  display: flex;
  gap: 8px;
  overflow-x: auto;
  margin: 0 0 8px;
}
.strip button {
  flex: none;
  text-align: left;
  font-size: 13.5px;
}
.strip img {
  display: block;
  height: 84px;
  border: 1px solid var(--ink);
}
</style>
