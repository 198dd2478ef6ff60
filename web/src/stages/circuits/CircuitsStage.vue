<script setup lang="ts">
import { computed, ref } from 'vue'

import { type ChainRow, type DrawnBox, type LooseBox, type Problem } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import PlanView from '../../parts/PlanView.vue'
import type { XY } from '../../parts/planScale'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import BoxFields from '../boxes/BoxFields.vue'
import ChainView from './ChainView.vue'
import CircuitList from './CircuitList.vue'
import CircuitPanel from './CircuitPanel.vue'
import CountDialog from './CountDialog.vue'
import LoadDialog from './LoadDialog.vue'
import PanelDrawing from './PanelDrawing.vue'
import ProposeDialog from './ProposeDialog.vue'

const store = useJob()
const entry = ref<{ focus: () => void; start: (text: string) => void } | null>(null)
const look = useLook()
const proposing = look.dialogOpen('propose')
const counting = look.dialogOpen('count')
const loading = look.dialogOpen('load')
const lasso = ref(false)
const held = ref<string[]>([])

const panel = computed(() => store.view?.panel ?? null)
const plan = computed(() => store.view?.circuit ?? null)
const sourceName = computed(
  () => store.job?.panels.find((item) => item.id === plan.value?.summary.panel)?.name ?? '',
)
const rooms = computed(() => store.view?.level?.rooms ?? [])
const about = () => ({ room: store.roomId, level: store.levelId, panel: store.panelId, verb: 'circuit' })

const { suggest, act } = useEntry('circuits', about)
async function say(text: string): Promise<Problem | null> {
  const before = new Set(store.job?.circuits.map((item) => item.id))
  const problem = await store.edit([{ op: 'say', text, ...about() }])
  if (problem) return problem
  const fresh = store.job?.circuits.find((item) => !before.has(item.id))
  if (fresh) await store.lookCircuit(fresh.id)
  return null
}
const put = (circuit: string, space: number, half: string) =>
  act([{ op: 'put', circuit, space, half, panel: store.panelId }], `put on ${space}${half}`)

function nudge(by: number) {
  const [id, panel] = [store.circuitId, store.panelId]
  if (!id) return
  void store.nudge(`breaker.${id}`, { space: by }, (all) => {
    const to = (store.job?.circuits.find((item) => item.id === id)?.space ?? 0) + (all.space ?? 0)
    if (to < 1 || to === all.space) return null
    return { edits: [{ op: 'put', circuit: id, space: to, half: '', panel }], label: `put on ${to}` }
  })
}
function step(by: number) {
  const all = store.viewOf('circuits')?.circuits ?? []
  const at = all.findIndex((item) => item.id === store.circuitId)
  const next = all[(at + by + all.length) % all.length]
  if (next) void store.lookCircuit(next.id)
}
async function pick(row: ChainRow) {
  const box = store.job?.boxes.find((item) => item.id === row.box)
  if (box?.room) await store.lookAt({ room: box.room, level: undefined, pick: `box.${box.id}` })
  else if (box) store.picked = { kind: 'box', id: box.id }
}
/** A box that stands in no drawn room has no place on a plan: what can be said of it stands under its chain. */
const apart = computed(() => {
  const at = store.picked
  return at?.kind === 'box'
    ? (store.job?.boxes.find((item) => item.id === at.id && !item.room) ?? null)
    : null
})
async function pickLoose(box: LooseBox) {
  await store.lookAt({ room: box.room, level: undefined, pick: `box.${box.id}` })
  entry.value?.start(`chain ${box.name} on `)
}

/** Most small jobs are in a house that nobody draws: its chain needs no plan. */
const drawn = computed(() => (store.job?.rooms.length ?? 0) > 0)
/** The chain on the plan of the level looked at: a line for each cable whose both ends stand there. */
const paths = computed(() => {
  const at = new Map<string, DrawnBox>()
  for (const room of rooms.value) for (const box of room.boxes) at.set(box.id, box)
  const size = store.job?.circuits.find((item) => item.id === plan.value?.summary.id)?.wire_size ?? '12'
  return (plan.value?.chain ?? []).flatMap((row) => {
    const from = at.get(row.after ?? plan.value?.summary.panel ?? '')
    const to = at.get(row.box)
    return from && to
      ? [{ id: row.box, tone: `w${size}`, points: [[from.x, from.y] as XY, [to.x, to.y] as XY] }]
      : []
  })
})
const onChain = computed(() => [...held.value, ...(plan.value?.chain.map((row) => row.box) ?? [])])

async function chainHeld() {
  if (!held.value.length || !plan.value) return
  const own = store.job?.circuits.find((item) => item.id === plan.value?.summary.id)
  const last = own?.chain?.filter((hop) => !held.value.includes(hop.box)).at(-1)?.box ?? null
  const edit = { op: 'chain', circuit: plan.value.summary.id, boxes: held.value, after: last }
  const problem = await act([edit], `chain ${held.value.length} boxes`)
  if (!problem) held.value = []
}
function take(boxes: string[]) {
  const own = new Set(store.job?.boxes.map((box) => box.id))
  held.value = [...new Set([...held.value, ...boxes.filter((id) => own.has(id))])]
}
useKeys(
  {
    '/': () => entry.value?.focus(),
    c: () => entry.value?.start(''),
    f: () => (proposing.value = true),
    j: () => step(1),
    k: () => step(-1),
    m: tapMend,
    ArrowDown: () => nudge(2),
    ArrowUp: () => nudge(-2),
    ArrowRight: () => nudge(1),
    ArrowLeft: () => nudge(-1),
    Escape: () => ((held.value = []), (lasso.value = false)),
  },
  ['ArrowDown', 'ArrowUp', 'ArrowRight', 'ArrowLeft'],
)
</script>

<template>
  <StageFrame>
    <template #left>
      <CircuitList
        :circuits="store.viewOf('circuits')?.circuits ?? []"
        :panels="store.view?.panels ?? []"
        :loose="store.viewOf('circuits')?.loose ?? []"
        :current="store.circuitId"
        :panel="store.panelId"
        @look="store.lookCircuit($event)"
        @panel="store.lookPanel($event)"
        @loose="pickLoose"
        @propose="proposing = true"
      />
    </template>
    <div class="work">
      <div class="panelside">
        <template v-if="panel">
          <div class="title">
            <h2>{{ panel.name }}</h2>
            <span class="num mute">
              {{ panel.drawing.free }} {{ panel.drawing.free === 1 ? 'space' : 'spaces' }} left,
              {{ panel.drawing.free_pairs }} {{ panel.drawing.free_pairs === 1 ? 'pair' : 'pairs' }}</span
            >
          </div>
          <PanelDrawing
            :panel="panel.drawing"
            :circuit="store.circuitId"
            @look="store.lookCircuit($event)"
            @put="put"
            @nudge="nudge"
          />
          <p class="words">
            <b class="num">{{ panel.drawing.words }}</b>
            <button type="button" class="plain link" data-testid="open-load" @click="loading = true">
              Each step…
            </button>
            <span class="mute"> Upper lugs stay live with the main off.</span>
          </p>
          <table class="num steps">
            <tbody>
              <tr v-for="(one, i) in panel.load.steps" :key="i">
                <td>{{ one.name }}</td>
                <td>{{ Math.round(one.counted_va).toLocaleString('en-US') }} VA</td>
              </tr>
            </tbody>
          </table>
        </template>
        <EmptyStage
          v-else-if="!store.loading && store.viewOf('circuits')"
          title="No panel yet"
          action="Say the panel"
          @begin="look.go({}, 'start')"
        >
          Here breakers stand in their panel, each with its boxes in order, its load, drop and protection.
        </EmptyStage>
      </div>
      <div class="chainside">
        <template v-if="plan">
          <div class="title">
            <h2>{{ plan.summary.label }} {{ plan.summary.name }}</h2>
            <span class="num mute">{{ plan.cables.join(', ') }}</span>
          </div>
          <ChainView :plan="plan" :panel="sourceName" @pick="pick" />
          <section v-if="apart" class="apart" data-testid="apart">
            <header class="pick-head">
              <h2>{{ apart.name }}</h2>
              <button type="button" class="plain key" @click="store.picked = null">Close</button>
            </header>
            <BoxFields :key="apart.id" kind="box" :part="apart" />
          </section>
        </template>
        <div v-if="drawn" class="map">
          <PlanView
            :rooms="rooms"
            :room="null"
            :picked="store.picked"
            :metric="store.metric"
            :paths="paths"
            :held="onChain"
            :lasso="lasso"
            compact
            @pick="store.picked = $event"
            @lasso="take"
          />
        </div>
        <p class="tools num no-print">
          <button
            v-if="drawn"
            type="button"
            class="plain key"
            :class="{ on: lasso }"
            :aria-pressed="lasso"
            data-testid="lasso"
            @click="lasso = !lasso"
          >
            Lasso boxes
          </button>
          <template v-if="held.length">
            <span class="mute">{{ held.length }} held</span>
            <button type="button" class="plain key" data-testid="chain-held" @click="chainHeld">
              Chain on {{ plan?.summary.label || plan?.summary.name }}
            </button>
            <button type="button" class="plain key" @click="held = []">Let go</button>
          </template>
          <span class="gap" />
          <button type="button" class="plain key" data-testid="open-count" @click="counting = true">
            Count…
          </button>
          <router-link class="key" :to="`/jobs/${store.view?.id}/sheets/directory`">Directory</router-link>
          <a v-if="store.view" class="key" :href="`/api/jobs/${store.view.id}/circuits.csv`">CSV</a>
        </p>
      </div>
    </div>
    <template #entry>
      <EntryLine
        ref="entry"
        verb="circuit"
        placeholder="14 20a 120v cold store: C-1 C-2"
        :buttons="['put', 'chain', 'split', 'feed', 'pair']"
        action="make it"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template #right>
      <CircuitPanel :plan="plan" :panel="panel" :act="act" />
    </template>
    <ProposeDialog v-model="proposing" />
    <CountDialog v-model="counting" />
    <LoadDialog v-if="panel" v-model="loading" :panel="panel" :act="act" />
  </StageFrame>
</template>

<style scoped>
.chainside .title h2 {
  flex: none;
  max-width: 60%;
}
.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(300px, 372px) minmax(0, 1fr);
  background: var(--card);
  overflow: hidden;
}
.panelside,
.chainside {
  padding: 12px 14px;
  overflow-y: auto;
  min-height: 0;
}
.chainside {
  display: flex;
  flex-direction: column;
  border-left: 1px solid var(--rule);
}
.chainside > .chain {
  flex: none;
}
.apart {
  max-width: 380px;
  margin: 10px 0;
}
.title {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 10px;
  margin-bottom: 6px;
}
.steps {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
.steps td {
  border-top: 1px solid var(--rule);
  padding: 3px 0;
}
.steps td + td {
  text-align: right;
  white-space: nowrap;
}
.link {
  margin-left: 8px;
  color: var(--chalk);
  font-weight: 600;
  font-size: 14.5px;
}
.map {
  flex: 1 1 250px;
  min-height: 250px;
  border: 1px solid var(--rule);
  margin-top: 6px;
}
.words {
  margin: 6px 0 4px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 6px 0 0;
}
.gap {
  flex: 1;
}
.key {
  cursor: pointer;
  padding: 5px 8px;
  text-decoration: none;
}
.key.on {
  background: var(--chalk);
  color: var(--card);
}
/* On a tablet the chain stands under its panel. */
@media (max-width: 1200px) {
  .work {
    display: block;
    overflow-y: auto;
  }
  .panelside,
  .chainside {
    overflow: visible;
  }
  .chainside {
    border-left: 0;
  }
  .map {
    flex: none;
    height: 220px;
  }
}
@media (max-width: 1000px) {
  .work {
    overflow: visible;
  }
}
</style>
