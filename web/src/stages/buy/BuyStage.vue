<script setup lang="ts">
import { computed, ref } from 'vue'

import { AWAY, type CutSheet, type Edit, type Mend, type ProvingLine } from '../../api/client'
import { streamed } from '../../api/stream'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import FindingCard from '../../parts/FindingCard.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import { done, longest, money } from './bars'
import BuyNav from './BuyNav.vue'
import BuyPanel from './BuyPanel.vue'
import CutBars from './CutBars.vue'
import MoneyTable from './MoneyTable.vue'
import OtherWays from './OtherWays.vue'
import PriceDialog from './PriceDialog.vue'
import ShelfTable from './ShelfTable.vue'
import TruckTable from './TruckTable.vue'

/** Buy: coils and sticks with their cuts, every part with its place, the money, the same job otherwise. */
const store = useJob()
const look = useLook()
const notice = useNotice()
const entry = ref<{ focus: () => void } | null>(null)
const ways = ref<{ plan: () => void } | null>(null)
const pricing = look.dialogOpen('prices')

const view = computed(() => store.view)
const rows = computed(() => store.viewOf('buy')?.rows ?? [])
const shelves = computed(() => store.viewOf('buy')?.shelves ?? [])
const item = computed(() => store.viewOf('buy')?.item ?? null)
const shelf = computed(() => view.value?.shelf ?? '')
const here = computed(() => item.value?.row.item ?? (shelf.value ? `shelf ${shelf.value}` : null))
const sheets = computed(() => {
  const all = (view.value?.sheets as CutSheet[] | undefined) ?? []
  return [...all.filter((one) => one.item === here.value), ...all.filter((one) => one.item !== here.value)]
})
const mine = computed(() => sheets.value.filter((one) => one.item === here.value))
const most = computed(() => ({ ft: longest(sheets.value, 'ft'), in: longest(sheets.value, 'in') }))
const table = computed(() =>
  sheets.value.length && shelf.value !== 'pipe'
    ? []
    : rows.value.filter(
        (row) => row.shelf === shelf.value && !sheets.value.some((one) => one.item === row.item),
      ),
)
const shelfName = computed(() => shelves.value.find((one) => one.shelf === shelf.value)?.name ?? '')
const ticked = computed(() => done(rows.value))
const loose = computed(() =>
  item.value ? [] : (view.value?.said ?? []).filter((f) => f.severity !== 'note'),
)

const about = () => ({ room: null, level: null, panel: null, verb: 'buy' })
const { suggest, act } = useEntry('buy', about)
const say = (text: string) => store.edit([{ op: 'say', text, ...about() }])
const lookAt = (key: string) => store.lookAt({ item: key })

function step(by: number) {
  const keys = [...rows.value.map((row) => row.item)]
  const at = keys.indexOf(item.value?.row.item ?? '')
  const next = keys[(at + by + keys.length) % keys.length]
  if (next) void lookAt(next)
}
const STAGE_OF: Record<string, 'boxes' | 'circuits' | 'runs' | 'trench' | 'walls'> = {
  box: 'boxes',
  circuit: 'circuits',
  panel: 'circuits',
  way: 'runs',
  trench: 'trench',
  span: 'trench',
  structure: 'trench',
}
function place(kind: string, ident: string) {
  const stage = STAGE_OF[kind]
  if (!stage) return
  const room = store.job?.boxes.find((box) => box.id === ident)?.room ?? undefined
  const at = {
    box: { room, pick: `box.${ident}` },
    circuit: { circuit: ident, panel: undefined },
    panel: { panel: ident, circuit: undefined },
    way: { way: ident, leg: undefined },
  }[kind] ?? { line: ident, way: undefined }
  look.go(at, stage)
}

const seeking = ref<{ item: string; share: number } | null>(null)
let stop: AbortController | null = null
async function seek(key: string) {
  stop = new AbortController()
  seeking.value = { item: key, share: 0.02 }
  const url = `/api/jobs/${view.value?.id}/coils?item=${encodeURIComponent(key)}`
  try {
    for await (const line of streamed<ProvingLine>(url, stop.signal)) {
      seeking.value = { item: key, share: line.share }
      if (line.done && line.cost != null)
        notice.tell(
          line.proven
            ? `${key}: no cheaper coils, ${money(line.cost)}`
            : `${key}: ${money(line.cost)}, and none under ${money(line.bound ?? 0)}`,
          'note',
        )
    }
    await store.reload()
  } catch {
    if (!stop.signal.aborted) notice.tell(AWAY.detail, 'stop')
  }
  seeking.value = null
}
/** What is mended stays looked at, though it is the worst no longer. */
function mend(item: Mend) {
  if (here.value && !look.at.item) look.go({ item: here.value })
  return store.mend(item)
}
async function take(edits: Edit[], label: string) {
  const problem = await act(edits, label)
  if (!problem) notice.tell(`Taken: ${label}`, 'fine', { label: 'Undo', act: store.undo })
}
useKeys({
  '/': () => entry.value?.focus(),
  b: () => entry.value?.focus(),
  j: () => step(1),
  k: () => step(-1),
  o: () => ways.value?.plan(),
  l: () => look.openSheet('buying-list'),
  m: tapMend,
})
</script>

<template>
  <StageFrame>
    <template #left>
      <BuyNav :rows="rows" :shelves="shelves" :here="here" :truck="view?.truck?.length ?? 0" @look="lookAt" />
    </template>
    <template v-if="rows.length">
      <CutBars
        v-for="sheet in mine"
        :key="sheet.item"
        :sheet="sheet"
        :most="sheet.unit === 'ft' ? most.ft : most.in"
        :here="sheet.item === here"
        :seeking="seeking?.item === sheet.item ? seeking.share : null"
        @look="look.go({ circuit: $event, way: undefined }, 'runs')"
        @seek="seek(sheet.item)"
        @stop="stop?.abort()"
      />
      <TruckTable v-if="shelf === 'truck'" :rows="view?.truck ?? []" :edit="act" :job="view?.id ?? ''" />
      <ShelfTable v-else-if="table.length" :title="shelfName" :rows="table" :here="here" @look="lookAt" />
    </template>
    <EmptyStage
      v-if="!rows.length && !store.loading && store.viewOf('buy')"
      title="Nothing to buy yet"
      action="Begin with a circuit"
      @begin="look.go({}, 'circuits')"
    >
      What is cut, set and screwed on is counted from the plan: nothing is typed here twice.
    </EmptyStage>
    <template v-if="rows.length" #under>
      <CutBars
        v-for="sheet in sheets.slice(mine.length)"
        :key="sheet.item"
        :sheet="sheet"
        :most="sheet.unit === 'ft' ? most.ft : most.in"
        :here="sheet.item === here"
        :seeking="seeking?.item === sheet.item ? seeking.share : null"
        @look="look.go({ circuit: $event, way: undefined }, 'runs')"
        @seek="seek(sheet.item)"
        @stop="stop?.abort()"
      />
      <p class="foot num no-print">
        <router-link :to="`/jobs/${view?.id}/sheets/buying-list`">The list to buy by</router-link>
        <span class="mute">{{ ticked }} of {{ rows.length }} rows ticked</span>
        <router-link :to="`/jobs/${view?.id}/sheets/coil-cards`">Coil cards</router-link>
        <router-link :to="`/jobs/${view?.id}/sheets/quote`">Quote</router-link>
        <a :href="`/api/jobs/${view?.id}/list.xlsx`" download>List as XLSX</a>
        <a :href="`/api/jobs/${view?.id}/list.csv`" download>as CSV</a>
      </p>
    </template>
    <template v-if="rows.length" #entry>
      <EntryLine
        ref="entry"
        verb="buy"
        called="buy"
        placeholder="12-2 by the foot · have 60' of 14-2 · price 12-2 250' $119 at the supply house"
        :buttons="['have', 'price', 'swap']"
        action="say it"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template v-if="rows.length && view?.money" #right>
      <BuyPanel v-if="item" :item="item" :edit="store.edit" @mend="mend" @place="place" />
      <FindingCard
        v-for="(f, i) in loose"
        :key="f.code + f.subject"
        :finding="f"
        :first="i === 0"
        @mend="mend"
      />
      <MoneyTable
        :shelves="shelves"
        :money="view.money"
        :tasks="view.tasks ?? []"
        :more="view.one_more ?? null"
        @look="lookAt"
      />
      <OtherWays ref="ways" :job="view.id" :revision="view.revision" @take="take" />
      <p class="mute priced">
        {{ view.priced }}
        <span v-if="view.stale?.length" class="stale"
          >Old prices: {{ view.stale.slice(0, 4).join(', ') }}.</span
        >
        <v-btn size="small" variant="outlined" class="no-print" data-testid="prices" @click="pricing = true"
          >Price book</v-btn
        >
      </p>
      <PriceDialog v-model="pricing" :rows="rows" :job="view.id" :edit="store.edit" />
    </template>
  </StageFrame>
</template>

<style scoped>
:deep(.under) {
  padding: 0;
  margin-bottom: auto;
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
.priced {
  margin: 12px 0 0;
  font-size: 14px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.priced .v-btn {
  display: block;
  margin-top: 6px;
}
.stale {
  color: var(--check);
}
</style>
