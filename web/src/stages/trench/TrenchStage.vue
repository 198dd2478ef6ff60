<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type Edit } from '../../api/client'
import { postFile } from '../../api/upload'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import FileLink from '../../parts/FileLink.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useNotice } from '../../stores/notice'
import GroundPanel from './GroundPanel.vue'
import LineNav from './LineNav.vue'
import LongSection from './LongSection.vue'
import SpanPanel from './SpanPanel.vue'
import SpanPicture from './SpanPicture.vue'
import TrenchPanel from './TrenchPanel.vue'
import YardPicture from './YardPicture.vue'

/** Trench: the yard above, the long section of what is looked at below; trenches, spans, electrodes, holds. */
const store = useJob()
const notice = useNotice()
const entry = ref<{ focus: () => void; begin?: (text: string) => void } | null>(null)
const panel = ref<{ tickNext: () => void } | null>(null)

const view = computed(() => store.view)
const yard = computed(() => view.value?.yard ?? null)
const rows = computed(() => store.viewOf('trench')?.rows ?? [])
const trench = computed(() => view.value?.trench ?? null)
const span = computed(() => view.value?.span ?? null)
const ground = computed(() => view.value?.ground ?? null)
const here = computed(() => trench.value?.id ?? span.value?.id ?? ground.value?.id ?? null)
const line = computed(
  () =>
    [...(store.job?.trenches ?? []), ...(store.job?.spans ?? [])].find((item) => item.id === here.value) ??
    null,
)
const spanPart = computed(() => (span.value ? (line.value as Record<string, unknown> | null) : null))
const empty = computed(() => yard.value !== null && !yard.value.shapes.length)
const about = () => ({
  room: null,
  level: null,
  panel: null,
  line: trench.value?.id ?? span.value?.id ?? null,
  verb: 'trench',
})
const { suggest, act } = useEntry('trench', about)
const say = (text: string) => store.edit([{ op: 'say', text, ...about() }])
const sayNow = (text: string) => void act([{ op: 'say', text, ...about() }], text)

const lookAt = (id: string) => store.lookAt({ line: id, way: undefined })
function step(by: number) {
  const own = rows.value.filter((row) => row.kind !== 'hold')
  const at = own.findIndex((row) => row.id === here.value)
  const next = own[(at + by + own.length) % own.length]
  if (next) void lookAt(next.id)
}
const kind = computed(() => (trench.value ? 'trench' : 'span'))
function move(id: string, corner: number, at: [number, number]) {
  const own = [...(store.job?.trenches ?? []), ...(store.job?.spans ?? [])].find((item) => item.id === id)
  if (!own) return
  const points = own.points.map((p, i) => (i === corner ? at : p))
  const what = store.job?.trenches.some((item) => item.id === id) ? 'trench' : 'span'
  void act([{ op: 'set', kind: what, id, set: { points } } as Edit], `move a corner of ${own.name}`)
}
function shift(what: 'building' | 'part', id: string, by: [number, number]) {
  if (what === 'building') {
    const own = store.job?.structures.find((item) => item.id === id)
    if (!own) return
    const set = { x_in: (own.x_in ?? 0) + by[0], y_in: (own.y_in ?? 0) + by[1] }
    return void act([{ op: 'set', kind: 'structure', id, set } as Edit], `move ${own.name}`)
  }
  const own = store.job?.yard.find((item) => item.id === id)
  if (!own) return
  const points = own.points.map((p) => [(p[0] ?? 0) + by[0], (p[1] ?? 0) + by[1]])
  void act([{ op: 'set', kind: 'yard', id, set: { points } } as Edit], `move ${own.name}`)
}
function corner() {
  const own = trench.value && line.value
  if (!own) return
  const lengths = own.points
    .slice(1)
    .map((p, i) => Math.hypot(p[0]! - own.points[i]![0]!, p[1]! - own.points[i]![1]!))
  const at = lengths.indexOf(Math.max(...lengths))
  const [a, b] = [own.points[at]!, own.points[at + 1]!]
  const mid = [Math.round((a[0]! + b[0]!) / 2), Math.round((a[1]! + b[1]!) / 2)]
  const points = [...own.points.slice(0, at + 1), mid, ...own.points.slice(at + 1)]
  void act([{ op: 'set', kind: 'trench', id: own.id, set: { points } } as Edit], `a corner in ${own.name}`)
}
function remove() {
  if (line.value)
    void act([{ op: 'drop', kind: kind.value, id: line.value.id } as Edit], `remove ${line.value.name}`)
}
/** Drives, services and areas from a drawing, by the names of its layers; the drawing is in inches. */
async function bring(file: File) {
  const { data, problem } = await postFile<{ edits: Edit[]; label: string }>(
    '/api/dxf/yard?units=inches',
    file,
  )
  if (problem) notice.tell(problem.detail, 'stop')
  if (data) await act(data.edits, data.label)
}
async function call() {
  if (!trench.value) return
  const own = trench.value
  const { data } = await ask(api.POST('/api/marks/call', { body: { where: own.name } }))
  if (!data) return
  const today = new Date().toLocaleDateString('sv')
  const set = { ticket: data.number, ticket_from: data.good_from, ticket_to: data.good_to }
  await act(
    [
      { op: 'set', kind: 'trench', id: own.id, set },
      { op: 'do_step', trench: own.id, step: 'marks', on: today },
    ] as Edit[],
    'marks called',
  )
  notice.tell(
    `Simulated desk: ticket ${data.number}, dig from ${data.good_from}. Paint: ${Object.entries(data.colours)
      .map(([what, colour]) => `${colour} ${what}`)
      .join(', ')}.`,
    'check',
  )
}
useKeys({
  '/': () => entry.value?.focus(),
  t: () => entry.value?.focus(),
  j: () => step(1),
  k: () => step(-1),
  c: corner,
  x: () => panel.value?.tickNext(),
  m: tapMend,
  Delete: remove,
})
const BUTTONS = ['lay', 'read', 'span', 'drive', 'water', 'grade', 'rods']
</script>

<template>
  <StageFrame>
    <template #left>
      <LineNav
        :rows="rows"
        :walked="store.viewOf('trench')?.walked ?? []"
        :here="here"
        @look="lookAt($event.id)"
        @say="sayNow"
      />
      <p v-if="yard && !empty" class="files num">
        <a :href="`/api/jobs/${store.view?.id}/yard.dxf`" download>Yard as DXF</a>
        <FileLink text="Yard from DXF, in inches" label="Yard from DXF" accept=".dxf" @file="bring" />
      </p>
    </template>
    <template v-if="yard && !empty">
      <div class="yard">
        <YardPicture
          :yard="yard"
          :here="here"
          :metric="store.metric"
          @look="lookAt"
          @move="move"
          @shift="shift"
        />
      </div>
      <div class="section">
        <LongSection
          v-if="trench"
          :section="trench.section"
          :title="`${trench.name}, ${trench.long_text}`"
          :metric="store.metric"
        />
        <SpanPicture
          v-else-if="span"
          :section="span.section"
          :title="`${span.name}, ${span.long_text}`"
          :metric="store.metric"
        />
        <p v-else class="mute hint">
          {{
            ground
              ? 'Rods are the small rings beside the building. Tap a trench or span to see it along its length.'
              : 'No trench and no span yet: say from where to where below.'
          }}
        </p>
      </div>
    </template>
    <EmptyStage
      v-if="empty && !store.loading && store.viewOf('trench')"
      title="No buildings yet"
      action="Type a trench"
      @begin="entry?.focus()"
    >
      Say <b>trench house east to shop west 60'</b>: both buildings are put up, and the trench between them.
    </EmptyStage>
    <template v-if="yard" #entry>
      <EntryLine
        ref="entry"
        verb="trench"
        called="trench"
        placeholder="house east to shop west 60'"
        :buttons="BUTTONS"
        action="put it there"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template #right>
      <TrenchPanel
        v-if="trench"
        ref="panel"
        :trench="trench"
        :part="line"
        :loose="store.viewOf('trench')?.loose ?? []"
        :edit="act"
        @mend="store.mend($event)"
        @say="sayNow"
        @call="call"
      />
      <SpanPanel v-else-if="span" :span="span" :part="spanPart" :edit="act" @mend="store.mend($event)" />
      <GroundPanel v-else-if="ground" :ground="ground" :edit="act" @mend="store.mend($event)" @say="sayNow" />
    </template>
  </StageFrame>
</template>

<style scoped>
.files {
  padding: 6px 12px;
  font-size: 14px;
}
.files :deep(label),
.files a {
  display: block;
  color: var(--chalk);
  padding: 5px 0;
  text-decoration: underline;
  cursor: pointer;
}
.yard {
  flex: 1 1 320px;
  min-height: 280px;
  border-bottom: 1px solid var(--rule);
}
.section {
  flex: none;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.hint {
  margin: 0;
  padding: 12px 14px;
}
@media (max-width: 1000px) {
  .yard {
    height: 330px;
    flex: none;
  }
}
</style>
