<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import { api, ask, type Edit } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import LevelTabs from '../../parts/LevelTabs.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { useLevels } from '../../parts/useLevels'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import CablePlan from './CablePlan.vue'
import CableTotals from './CableTotals.vue'
import CircuitWays from './CircuitWays.vue'
import DrawnPanel from './DrawnPanel.vue'
import LegPanel from './LegPanel.vue'
import LegTable from './LegTable.vue'
import StripView from './StripView.vue'
import WayForm from './WayForm.vue'

const store = useJob()
const notice = useNotice()
const entry = ref<{ focus: () => void } | null>(null)
const look = useLook()
const form = look.dialogOpen('way')
const fresh = ref(false)
const before = ref<number | null>(null)

const way = computed(() => store.way)
/** The way looked at drew itself: its legs are not walked, it is bent. */
const drawn = computed(() => store.view?.drawn ?? false)
const level = computed(() => store.view?.level ?? null)
const planned = computed(() => !!level.value?.rooms.length)
const strip = look.dialogOpen('strip')
const picture = computed(() =>
  planned.value && !strip.value && (drawn.value || !way.value) ? 'plan' : 'strip',
)
const hop = computed(
  () => store.view?.hops?.find((item) => item.way !== null && item.way === store.wayId) ?? null,
)
const about = () => ({
  room: null,
  level: store.levelId,
  panel: circuit.value?.summary.panel ?? null,
  verb: 'way',
})
const { suggest: suggestWay, act } = useEntry('runs', about)
const sayWay = (text: string) => store.edit([{ op: 'say', text, ...about() }])
const levels = useLevels()
const SCHOOLS = ['cheapest', 'studs', 'over', 'under']
/** The next school for the cable looked at. */
function turn(by: number) {
  if (!drawn.value || !hop.value || !circuit.value) return
  const at = Math.max(SCHOOLS.indexOf(hop.value.school), 0)
  const school = SCHOOLS[(at + by + SCHOOLS.length) % SCHOOLS.length]
  void act(
    [{ op: 'bend', circuit: circuit.value.summary.id, box: hop.value.box, school, via: [] }],
    `way ${school}`,
  )
}
const circuit = computed(() => store.view?.circuit ?? null)
const raw = computed(() => (store.leg === null ? null : (way.value?.legs[store.leg] ?? null)))
const verb = computed(() => (before.value === null ? 'walk' : `walk, before leg ${before.value + 1}`))

async function suggest(text: string) {
  const { data } = await ask(
    api.POST('/api/walk/suggest', {
      body: { text, names: store.names, rules: store.job?.rules ?? 'us-2023' },
    }),
  )
  return data ?? { at: text.length, options: [] }
}

async function walk(text: string) {
  if (!way.value) return null
  const edit: Edit = { op: 'walk', way: way.value.id, text }
  if (before.value !== null) edit.at = before.value
  const problem = await store.edit([edit])
  if (problem) return problem
  const count = store.plan?.legs.length ?? 0
  look.selectLeg(before.value ?? (count ? count - 1 : null))
  before.value = null
  return null
}

function insertBefore(row: number) {
  before.value = row
  void nextTick(() => entry.value?.focus())
}

/** A new way is walked at once: its line has the focus. */
async function added(id: string) {
  await store.lookWay(id, null)
  await nextTick()
  entry.value?.focus()
}

function setup(isNew: boolean) {
  fresh.value = isNew
  form.value = true
}

async function copy() {
  await navigator.clipboard.writeText(store.plan?.walk ?? '')
  notice.tell('The way is on the clipboard as walk text. Paste it into the entry line of any way.', 'note')
}

function step(by: number) {
  const all = store.viewOf('runs')?.circuits?.map((item) => item.id) ?? []
  const next = all[(all.indexOf(store.circuitId ?? '') + by + all.length) % all.length]
  if (next) void store.lookThread(next)
}
function stepLeg(by: number) {
  const count = store.plan?.legs.length ?? 0
  const to = store.leg === null ? (by > 0 ? 0 : count - 1) : store.leg + by
  if (to >= 0 && to < count) look.selectLeg(to)
}
useKeys(
  {
    '/': () => entry.value?.focus(),
    j: () => step(1),
    k: () => step(-1),
    '[': () => stepLeg(-1),
    ']': () => stepLeg(1),
    Escape: () => look.selectLeg(null),
    m: tapMend,
    r: () => setup(true),
    c: () => setup(false),
    v: () => (strip.value = !strip.value),
    ArrowLeft: () => turn(-1),
    ArrowRight: () => turn(1),
  },
  ['[', ']', 'ArrowLeft', 'ArrowRight'],
)
</script>

<template>
  <StageFrame>
    <template #left>
      <CircuitWays
        :circuits="store.viewOf('runs')?.circuits ?? []"
        :ways="store.view?.ways ?? []"
        :idle="store.view?.idle ?? []"
        :circuit="store.circuitId"
        :way="store.wayId"
        :hops="store.view?.hops ?? []"
        :metric="store.view?.units === 'metric'"
        @look="store.lookThread($event)"
        @way="store.lookWay($event)"
        @add="setup(true)"
      />
    </template>
    <LevelTabs
      v-if="planned && (drawn || !way)"
      :levels="levels"
      :current="store.levelId"
      @look="store.lookAt({ level: $event })"
    >
      <button
        type="button"
        class="plain"
        :class="{ here: picture === 'strip' }"
        data-testid="show-strip"
        @click="strip = !strip"
      >
        {{ picture === 'strip' ? 'Plan' : 'Strip' }}
      </button>
    </LevelTabs>
    <div v-if="picture === 'plan' && level && store.view?.circuit" class="strip">
      <CablePlan
        :rooms="level.rooms"
        :level="level.level"
        :cables="store.view?.cables ?? []"
        :circuit="store.circuitId"
        :way="store.wayId"
        @pick="store.lookWay($event, null)"
        @bend="act($event, 'bend its way')"
      />
    </div>
    <template v-else-if="store.plan && (way || drawn)">
      <h2 class="only-print">
        {{ store.job?.name }}: {{ circuit?.summary.label }} {{ store.plan.summary.name }}
      </h2>
      <div class="strip">
        <StripView
          :strip="store.plan.strip"
          :leg="store.leg"
          :metric="store.view?.units === 'metric'"
          @select="look.selectLeg($event)"
        />
      </div>
    </template>
    <EmptyStage
      v-else-if="!store.loading && store.viewOf('runs') && circuit"
      title="No way walked yet"
      action="Walk its way"
      @begin="setup(true)"
    >
      Walk it leg by leg: pipe, cover, supports, bends and what to cut follow from the legs.
    </EmptyStage>
    <EmptyStage
      v-else-if="!store.loading && store.viewOf('runs')"
      title="No circuit yet"
      action="Begin with a sentence"
      @begin="look.go({}, 'start')"
    >
      Here each circuit is walked leg by leg, measured and judged: pipe, cover, bends, lengths to cut.
    </EmptyStage>
    <template v-if="store.plan && (way || drawn)" #under>
      <LegTable
        v-if="way"
        :legs="store.plan.legs"
        :raw="way.legs"
        :leg="store.leg"
        :way-id="way.id"
        :words="store.vocabulary"
        :names="store.names"
        :edit="store.edit"
        @select="look.selectLeg($event)"
        @insert="insertBefore"
      />
      <ol v-else class="legs num" data-testid="drawn-legs">
        <li v-for="one in store.plan.legs" :key="one.index" :class="one.verdict">
          <button type="button" class="plain" @click="look.selectLeg(one.index)">
            {{ one.text.split(' in ')[0] }} <span class="mute">{{ one.held.text }}</span>
          </button>
        </li>
      </ol>
      <CableTotals :totals="store.view?.totals ?? []" :job="store.view?.id ?? ''" :metric="store.metric" />
    </template>
    <template v-else-if="store.view?.totals?.length" #under>
      <CableTotals :totals="store.view.totals" :job="store.view.id" :metric="store.metric" />
    </template>
    <template v-if="drawn" #entry>
      <EntryLine
        ref="entry"
        verb="way"
        placeholder="R-4 over top"
        :buttons="['over top', 'by crawl', 'through studs', 'straight']"
        action="bend it"
        :suggest="suggestWay"
        :submit="sayWay"
      />
    </template>
    <template v-else-if="store.plan && way" #entry>
      <EntryLine
        ref="entry"
        :verb="verb"
        placeholder="over 43' trench 18&quot; deep in pvc 40 3/4 to LB"
        :buttons="['up', 'down', 'over', 'left', 'right']"
        action="add leg"
        :suggest="suggest"
        :submit="walk"
      />
      <p class="mute tools no-print">
        <button class="plain" type="button" @click="copy">Copy as text</button>
        <span v-if="before !== null">
          · <button class="plain" type="button" @click="before = null">Add at the end instead</button></span
        >
      </p>
    </template>
    <template v-if="store.plan" #right>
      <LegPanel
        :plan="store.plan"
        :circuit="circuit"
        :leg="store.leg"
        :raw="raw"
        :alternatives="store.alternatives"
        @mend="store.mend($event)"
        @edit="store.edit($event)"
        @select="look.selectLeg($event)"
        @setup="setup(false)"
      >
        <DrawnPanel
          v-if="circuit && store.leg === null"
          :circuit="circuit.summary.id"
          :hop="drawn ? hop : null"
          :schools="store.view?.schools ?? []"
          @edit="act"
        />
      </LegPanel>
    </template>
    <WayForm v-model="form" :way="fresh ? null : way" :circuit="circuit" :edit="store.edit" @added="added" />
  </StageFrame>
</template>

<style scoped>
.strip {
  flex: 1 1 400px;
  min-height: 330px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.legs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
  margin: 6px 0;
  padding: 0;
  list-style: none;
  counter-reset: leg;
  font-size: 14.5px;
}
.legs li {
  counter-increment: leg;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: var(--card);
}
.legs button {
  padding: 4px 8px;
}
.legs button::before {
  content: counter(leg) ' ';
  color: var(--mute);
}
.legs .stop {
  border-color: var(--keel);
}
.legs .check {
  border-color: var(--amber);
}
.only-print {
  display: none;
}
.tools {
  margin: 4px 4px 0;
  font-size: 14px;
}
.tools button {
  color: var(--chalk);
  font-weight: 600;
}
@media (max-width: 1000px) {
  .strip {
    flex: none;
    height: 340px;
    overflow-x: auto;
  }
}
@media print {
  .strip {
    height: auto;
    min-height: 0;
  }
  .only-print {
    display: block;
    padding: 8px 12px;
  }
}
</style>
