<script setup lang="ts">
import { computed, nextTick, onMounted, reactive, ref, shallowRef, watch } from 'vue'

import { api, ask, type Problem, type StartWords, type Tried } from '../../api/client'
import EntryLine from '../../parts/EntryLine.vue'
import FindingCard from '../../parts/FindingCard.vue'
import StageFrame from '../../parts/StageFrame.vue'
import VialGauge from '../../parts/VialGauge.vue'
import { gathering, typedEarly, typing } from '../../shell/begin'
import { useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import StripView from '../runs/StripView.vue'
import AnswerRow from './AnswerRow.vue'
import BlankPick from './BlankPick.vue'
import PanelStart from './PanelStart.vue'
import { composed, NONE, type Blanks } from './sentence'
import StartLead from './StartLead.vue'
import StartList from './StartList.vue'
import StartSentence from './StartSentence.vue'

/** The first page of a job: what it is for in one sentence, filled by tap, by typing over, or on the line below. */
const store = useJob()
const look = useLook()
const notice = useNotice()
const words = shallowRef<StartWords | null>(null)
const kindKey = ref('')
const blanks = reactive<Blanks>({ ...NONE })
const typed = ref('')
const tried = shallowRef<Tried | null>(null)
/** What was said last is in the job, and is shown where nothing is being said. */
const added = ref(false)
const inJob = computed(() => added.value && !tried.value)
const shown = computed<Tried | null>(() => {
  if (tried.value || !added.value || !store.view?.circuit) return tried.value
  const findings = [
    ...(store.plan?.findings ?? []),
    ...store.view.circuit.findings,
    ...(store.view.beside ?? []),
  ]
  return {
    way: store.plan,
    circuit: store.view.circuit,
    panel: null,
    boxes: store.view.boxes ?? [],
    findings,
  }
})
const refused = ref('')
const entry = ref<{ focus: () => void; start: (text: string) => void } | null>(null)

const panels = computed(() => store.job?.panels ?? [])
/** A range and a dryer are one kind of job; which of them is a blank of its sentence. */
const offered = computed(() =>
  (words.value?.kinds ?? [])
    .filter((item) => item.key !== 'dryer')
    .map((item) => (item.key === 'range' ? { ...item, title: 'a range or dryer' } : item)),
)
const shownKey = computed(() => (kindKey.value === 'dryer' ? 'range' : kindKey.value))
const kind = computed(() => words.value?.kinds.find((item) => item.key === kindKey.value) ?? null)
const line = computed(() =>
  typed.value.trim() ? typed.value : kind.value && blanks.panel ? composed(kind.value, blanks) : '',
)
const verb = computed(() => (panels.value.length ? 'from' : 'panel'))
const hint = computed(() =>
  panels.value.length
    ? line.value || `2' up the wall, 12' of attic, 7' down to a bath outlet`
    : 'H 200a 30 spaces taken 1-14 17 19',
)

onMounted(async () => {
  const { data } = await ask(api.GET('/api/start-words'))
  if (data) words.value = data
})
watch(
  () => panels.value.map((panel) => panel.name).join('|'),
  () => {
    if (!panels.value.some((panel) => panel.name === blanks.panel)) blanks.panel = panels.value[0]?.name ?? ''
  },
  { immediate: true },
)

watch(
  [typing, entry, () => store.view?.id],
  () => {
    if (!typing.value || !entry.value || !store.view) return
    typing.value = false
    entry.value.focus()
    const words = typedEarly()
    if (words) entry.value.start(words)
  },
  { flush: 'post' },
)

/** A blank job opened by its address is typed into as one is that was just begun; on a phone no keyboard jumps up. */
watch(
  [entry, () => store.view?.id],
  () => {
    if (gathering() || !entry.value || !store.job || typed.value) return
    const busy = document.activeElement
    const free = !busy || busy === document.body || busy.id === 'work'
    const blank = !panels.value.length && !store.job.rooms.length
    if (blank && free && matchMedia('(pointer: fine)').matches) entry.value.focus()
  },
  { flush: 'post', immediate: true },
)

function choose(key: string) {
  if (key === 'room') return look.go({}, 'walls')
  kindKey.value = key
  Object.assign(blanks, NONE, { panel: blanks.panel }, kind.value?.usual)
}

/** What the line would make, as it is typed; the last answer wins. */
let asked = 0
async function tryLine(text: string) {
  const mine = ++asked
  if (!text || !store.view) {
    tried.value = null
    refused.value = ''
    return
  }
  const { data, problem } = await ask(
    api.POST('/api/jobs/{job_id}/try', {
      params: { path: { job_id: store.view.id } },
      body: { text, panel: store.panelId },
    }),
  )
  if (mine !== asked) return
  tried.value = data ?? null
  refused.value = problem && !typed.value ? problem.detail : ''
}
let timer = 0
watch([line, () => store.view?.revision], ([text]) => {
  window.clearTimeout(timer)
  timer = window.setTimeout(() => void tryLine(text as string), 120)
})

/** Says a line; what it made is looked at, in the job now, with its mends. */
async function say(text: string): Promise<Problem | null> {
  const [had, panelsHad] = [store.job?.circuits ?? [], store.job?.panels.length ?? 0]
  const drawn = new Set(store.job?.rooms.map((room) => room.id))
  const before = new Set([...had, ...(store.job?.ways ?? [])].map((part) => part.id))
  notice.clear()
  const problem = await store.edit([{ op: 'say', text, panel: store.panelId ?? undefined, verb: verb.value }])
  if (problem) return problem
  asked++
  typed.value = kindKey.value = refused.value = ''
  tried.value = null
  const room = store.job?.rooms.find((item) => !drawn.has(item.id))
  if (room) {
    look.go({ room: room.id }, 'walls') // what was drawn is seen there
    return null
  }
  const way = store.job?.ways.findLast((item) => !before.has(item.id))?.id
  const made = store.job?.circuits.find(
    (item) => !before.has(item.id) || (item.chain ?? []).some((hop) => way && hop.path?.includes(way)),
  )
  const changed = made ?? store.job?.circuits.find((item) => !had.includes(item))
  if (changed) await store.lookAt({ circuit: changed.id, way })
  added.value = !!changed
  const plain = !made && store.job?.panels.length === panelsHad
  const told = notice.text
  if (plain) notice.tell(told || `Done: ${text}`, told ? 'note' : 'fine', { label: 'Undo', act: store.undo })
  await nextTick()
  // words that were asked for it late have put it back
  if (typed.value.trim() === text.trim()) typed.value = ''
  document.querySelector('[data-testid=answers]')?.scrollIntoView({ block: 'nearest' })
  return null
}
async function add() {
  const problem = await say(line.value)
  if (problem) refused.value = problem.detail
}
async function suggest(text: string) {
  typed.value = text
  if (!store.view) return { at: text.length, options: [] }
  const { data } = await ask(
    api.POST('/api/jobs/{job_id}/suggest', {
      params: { path: { job_id: store.view.id } },
      body: { text, stage: 'runs', verb: verb.value },
    }),
  )
  return data ?? { at: text.length, options: [] }
}

async function rename(name: string) {
  if (name && name !== store.job?.name)
    await store.edit([{ op: 'set_job', set: { name } }], `call it ${name}`)
}

useKeys({ '/': () => entry.value?.focus() })
</script>

<template>
  <StageFrame list-last>
    <template #left>
      <StartList />
    </template>
    <div class="kinds">
      <h2 class="called num">
        <BlankPick
          :model-value="store.job?.name ?? ''"
          label="Job"
          before="Job"
          empty="a name"
          free
          @update:model-value="rename"
        />
      </h2>
      <h2>
        {{
          panels.length
            ? store.viewOf('runs')?.circuits?.length
              ? 'One more circuit, for'
              : 'A new job, for'
            : 'First, the panel'
        }}
      </h2>
      <div v-if="panels.length" class="words" role="group" aria-label="What it is for">
        <button
          v-for="item in offered"
          :key="item.key"
          type="button"
          class="plain kind num"
          :class="{ here: item.key === shownKey }"
          :aria-pressed="item.key === shownKey"
          :data-kind="item.key"
          @click="choose(item.key)"
        >
          {{ item.title }}
        </button>
        <button type="button" class="plain kind num" data-kind="room" @click="choose('room')">
          lights and outlets in a room
        </button>
      </div>
    </div>
    <PanelStart v-if="store.view && !panels.length" :breakers="words?.breakers ?? []" :say="say" />
    <StartSentence
      v-else-if="kind && !typed.trim()"
      v-model="blanks"
      :kind="kind"
      :words="words"
      :vocabulary="store.vocabulary"
      :panels="panels.map((panel) => panel.name)"
      @add="add"
      @kind="choose"
    />
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <StartLead
      v-if="panels.length && !kind && !shown"
      :examples="!typed.trim()"
      @take="entry?.start($event)"
    />
    <template v-if="shown?.way">
      <div class="strip">
        <StripView :strip="shown.way.strip" :leg="null" :metric="store.metric" />
      </div>
      <AnswerRow :way="shown.way" :circuit="shown.circuit" />
    </template>
    <template #entry>
      <EntryLine
        v-if="store.view"
        ref="entry"
        called="start"
        :verb="panels.length ? 'run' : 'panel'"
        :placeholder="hint"
        :buttons="[]"
        :action="panels.length ? 'add it' : 'set it'"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template #right>
      <template v-if="shown">
        <header class="pick-head">
          <h2>{{ shown.circuit?.summary.label }} {{ shown.circuit?.summary.name ?? shown.panel?.name }}</h2>
        </header>
        <FindingCard
          v-for="(f, i) in shown.findings"
          :key="f.code + i"
          :finding="inJob ? f : { ...f, mends: [] }"
          :first="!i"
          @mend="store.mend($event)"
        />
        <template v-for="pull in shown.way?.pulls" :key="pull.index">
          <VialGauge v-for="figure in pull.figures" :key="figure.key" :figure="figure" />
        </template>
        <VialGauge v-for="figure in shown.boxes" :key="figure.key" :figure="figure" />
        <VialGauge v-for="figure in shown.circuit?.figures" :key="figure.key" :figure="figure" />
        <v-btn
          v-if="inJob && shown?.circuit"
          size="small"
          variant="outlined"
          class="look"
          data-testid="look-at-it"
          @click="store.lookThread(shown.circuit.summary.id)"
          >Look at it in Runs</v-btn
        >
      </template>
      <p v-else class="mute">What stops and what asks shows here while you say it.</p>
      <p class="mute caution">
        A plan, not a permit. Local code and a licensed electrician decide. Work dead and prove it.
      </p>
    </template>
  </StageFrame>
</template>

<style scoped>
.kinds {
  padding: 16px 22px 6px;
}
.kinds h2 {
  font-size: 16px;
  color: var(--mute);
  margin: 0 0 10px;
}
.kinds h2.called {
  color: var(--ink);
  font-size: 19px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.kind {
  border: 1px solid var(--rule);
  background: var(--card);
  padding: 7px 11px;
  font-weight: 600;
  border-radius: 2px;
  min-height: 34px;
}
.kind:hover {
  background: var(--note-wash);
}
.kind.here {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-paper));
}
.strip {
  flex: 1 1 300px;
  min-height: 260px;
  background: var(--card);
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}
.bad {
  color: var(--stop);
  padding: 0 22px;
}
.look {
  margin-top: 10px;
}
.caution {
  font-size: 13.5px;
  margin-top: 12px;
}
@media (max-width: 1000px) {
  .strip {
    flex: none;
    height: 300px;
    overflow-x: auto;
  }
}
</style>
