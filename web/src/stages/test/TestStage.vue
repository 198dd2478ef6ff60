<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'

import { api, ask, type Edit, type TestStep } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import FindingCard from '../../parts/FindingCard.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { everShown } from '../../stage/whenShown'
import { useJob } from '../../stores/job'
import { keep, kept, isText } from '../../stores/keep'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import { today } from '../rough_in/record'
import MeterBox from './MeterBox.vue'
import ProofSteps from './ProofSteps.vue'
import TestNav from './TestNav.vue'
import WhereList from './WhereList.vue'

/** Test: the order of proof, the window each reading must fall in, where a fault may be, and learning to find it. */
const store = useJob()
const look = useLook()
const notice = useNotice()
const entry = ref<{ focus: () => void } | null>(null)
const proof = ref<{ focus: () => void; yes: () => void } | null>(null)
const learning = look.dialogOpen('learn')
const lessons = look.dialogOpen('lessons')
const LearnDialog = defineAsyncComponent(() => import('./LearnDialog.vue'))
const LessonDialog = defineAsyncComponent(() => import('./LessonDialog.vue'))
const learnUsed = everShown(() => learning.value)
const lessonsUsed = everShown(() => lessons.value)
const who = ref(kept('who', isText) ?? '')

const view = computed(() => store.view)
const rows = computed(() => store.viewOf('test')?.proofs ?? [])
const focus = computed(() => store.viewOf('test')?.tested ?? null)
const isPanel = (id: string) => store.job?.panels.some((panel) => panel.id === id) ?? false
const lookAt = (id: string) =>
  store.lookAt(isPanel(id) ? { panel: id, circuit: undefined } : { circuit: id, panel: undefined })
function step(by: number) {
  const keys = rows.value.map((row) => row.id)
  const next = keys[(keys.indexOf(focus.value?.id ?? '') + by + keys.length) % keys.length]
  if (next) void lookAt(next)
}

const about = () => ({
  room: null,
  level: null,
  panel: store.job?.circuits.find((c) => c.id === focus.value?.id)?.panel ?? focus.value?.id ?? null,
  verb: 'measure',
})
const { suggest, act } = useEntry('test', about)
/** A reading that is called out is seen where it falls: its circuit is looked at. */
async function say(text: string) {
  const before = store.job?.measured.length ?? 0
  const problem = await store.edit([{ op: 'say', text, ...about() }])
  const last = store.job?.measured.at(-1)
  const fresh = (store.job?.measured.length ?? 0) > before
  if (!problem && fresh && last && last.of !== focus.value?.id) await lookAt(last.of)
  return problem
}
const isCircuit = computed(() => !!focus.value && !isPanel(focus.value.id))

function stay() {
  const id = focus.value?.id
  if (!id || look.at.circuit === id || look.at.panel === id) return
  look.go(isPanel(id) ? { panel: id, circuit: undefined } : { circuit: id, panel: undefined })
}
async function write(one: TestStep, more: Record<string, unknown>) {
  if (!focus.value) return
  stay()
  keep('who', who.value)
  const edit = {
    op: 'measure',
    of: focus.value.id,
    step: one.key,
    on: today(),
    hour: new Date().toTimeString().slice(0, 5),
    who: who.value,
    ...more,
  }
  await act([edit as Edit], `reading: ${one.title}`)
}
const busy = ref('')
async function simulate(one: TestStep) {
  if (!view.value || !focus.value) return
  busy.value = one.key
  const path = { job_id: view.value.id }
  const { data, problem } = await ask(
    api.POST('/api/jobs/{job_id}/meter', {
      params: { path },
      body: { of: focus.value.id, step: one.key } as never,
    }),
  )
  busy.value = ''
  if (problem) notice.tell(problem.detail, 'stop')
  else if (data.value === null) notice.tell(`The simulated meter: ${data.text}`, 'check')
  else if (one.kind === 'word')
    await write(one, { word: data.value > 0.5 ? 'yes' : 'no', meter: 'simulated' })
  else await write(one, { value: data.value, meter: 'simulated' })
}
const off = computed(() => focus.value?.steps.filter((one) => one.verdict === 'stop') ?? [])
const counted = computed(() => {
  const steps = focus.value?.steps ?? []
  return `${steps.filter((one) => one.state === 'done').length} of ${steps.length}`
})
useKeys({
  '/': () => entry.value?.focus(),
  b: () => entry.value?.focus(),
  j: () => step(1),
  k: () => step(-1),
  r: () => proof.value?.focus(),
  y: () => proof.value?.yes(),
  h: () => isCircuit.value && (learning.value = true),
  l: () => (lessons.value = true),
  m: tapMend,
})
</script>

<template>
  <StageFrame>
    <template #left>
      <TestNav :rows="rows" :here="focus?.id ?? null" @look="lookAt" />
    </template>
    <EmptyStage
      v-if="!rows.length && !store.loading && store.viewOf('test')"
      title="Nothing to test yet"
      action="Begin with a circuit"
      @begin="look.go({}, 'circuits')"
    >
      Every panel and circuit is proved here in order, each reading against its window from this plan.
    </EmptyStage>
    <section v-if="focus" class="proof">
      <header class="num headed">
        <h2>{{ focus.name }}: prove it, in this order</h2>
        <span class="mute">{{ focus.source ? `windows from the plan: ${focus.source}` : '' }}</span>
      </header>
      <p v-if="!focus.steps.length" class="mute none">No box is on it yet: chain one under Circuits.</p>
      <ProofSteps
        v-else
        ref="proof"
        :steps="focus.steps"
        :busy="busy"
        @value="(one, value, meter) => write(one, { value, meter })"
        @word="(one, word) => write(one, { word })"
        @meter="simulate"
      />
    </section>
    <template v-if="focus" #under>
      <WhereList v-if="focus.where" :where="focus.where" :text="focus.where_text" />
      <p class="foot num no-print">
        <router-link :to="`/jobs/${view?.id}/sheets/readings`">Readings, to sign off</router-link>
        <a :href="`/api/jobs/${view?.id}/readings.csv`" download>as CSV</a>
        <span class="mute">{{ view?.not_tested ?? 0 }} steps not tested</span>
      </p>
    </template>
    <template v-if="focus" #entry>
      <EntryLine
        ref="entry"
        verb="measure"
        called="test"
        placeholder="14 hot to neutral 123.1 · Panel H leg a 124 · C-1 gfci trips"
        :buttons="['measure']"
        action="write it down"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template v-if="focus" #right>
      <article v-for="one in off" :key="one.key" class="off" data-testid="off">
        <b class="num">{{ one.title }}</b>
        <p class="num">{{ one.text }}</p>
        <p v-if="focus.where?.step === one.key && focus.where.suspects[0]" class="num">
          Likeliest: <b>{{ focus.where.suspects[0].title }}</b>.
          <template v-if="focus.where.next">Read next: {{ focus.where.next.text }}.</template>
        </p>
      </article>
      <p v-if="!off.length" class="num fine" data-testid="proof-verdict">
        {{ counted }} proved, nothing outside of its window
      </p>
      <FindingCard
        v-for="f in focus.said.filter((one) => one.code !== 'reading-off')"
        :key="f.code + f.title"
        :finding="f"
        @mend="store.mend"
      />
      <label class="who num no-print">Read by <input v-model="who" maxlength="60" /></label>
      <MeterBox v-if="isCircuit && focus.leads.length && view" :focus="focus" :job="view.id" />
      <article class="learn no-print">
        <b class="num">Learn with hidden faults</b>
        <p>A fault is put in somewhere; find it with the meter in as few readings as you can.</p>
        <v-btn
          v-if="isCircuit && focus.steps.length"
          size="small"
          variant="flat"
          color="ink"
          data-testid="hide-one"
          @click="learning = true"
          >Hide one</v-btn
        >
        <v-btn size="small" variant="outlined" data-testid="open-lessons" @click="lessons = true"
          >Lessons before the meter</v-btn
        >
      </article>
      <LearnDialog v-if="learnUsed && view" v-model="learning" :job="view.id" :of="focus.id" />
      <LessonDialog v-if="lessonsUsed" v-model="lessons" :lessons="store.viewOf('test')?.lessons ?? []" />
    </template>
  </StageFrame>
</template>

<style scoped>
.proof {
  background: var(--card);
}
.none {
  padding: 0 14px 14px;
}
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
.off {
  border-left: 5px solid var(--stop);
  background: var(--stop-wash);
  padding: 8px 10px 9px;
  margin-bottom: 8px;
}
.off p,
.learn p {
  margin: 2px 0 6px;
}
.off p {
  margin-bottom: 0;
}
.fine {
  border-left: 5px solid var(--fine);
  background: var(--note-wash);
  padding: 7px 10px;
  margin: 0 0 8px;
}
.who {
  display: block;
  margin: 0 0 10px;
  font-size: 14px;
  color: var(--mute);
}
.who input {
  min-height: 32px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  padding: 2px 8px;
}
.learn {
  border-left: 5px solid var(--rule);
  background: var(--note-wash);
  padding: 8px 10px 10px;
  margin-top: 14px;
}
.learn .v-btn {
  margin: 0 6px 4px 0;
}
</style>
