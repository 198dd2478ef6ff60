<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import { api, ask, type CircuitRow, type Edit } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import CircuitWays from './CircuitWays.vue'
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
  const all = store.view?.circuits?.map((item) => item.id) ?? []
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
  },
  ['[', ']'],
)
</script>

<template>
  <StageFrame>
    <template #left>
      <CircuitWays
        :circuits="(store.view?.circuits as CircuitRow[]) ?? []"
        :ways="store.view?.ways ?? []"
        :idle="store.view?.idle ?? []"
        :circuit="store.circuitId"
        :way="store.wayId"
        :metric="store.view?.units === 'metric'"
        @look="store.lookThread($event)"
        @way="store.lookWay($event)"
        @add="setup(true)"
      />
    </template>
    <template v-if="store.plan && way">
      <h2 class="only-print">{{ store.job?.name }}: {{ circuit?.summary.label }} {{ way.name }}</h2>
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
      v-else-if="!store.loading && store.view && circuit"
      title="No way walked yet"
      action="Walk its way"
      @begin="setup(true)"
    >
      Its cable is measured from where the boxes stand. Walk it leg by leg for what it really takes.
    </EmptyStage>
    <EmptyStage
      v-else-if="!store.loading && store.view"
      title="No circuit yet"
      action="Begin with a sentence"
      @begin="look.go({}, 'start')"
    >
      Here each circuit is walked leg by leg, measured and judged: pipe, cover, bends, lengths to cut.
    </EmptyStage>
    <template v-if="store.plan && way" #under>
      <LegTable
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
    </template>
    <template v-if="store.plan && way" #entry>
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
      />
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
