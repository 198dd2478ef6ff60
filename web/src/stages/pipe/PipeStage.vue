<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Edit, PipeRow } from '../../api/client'
import EmptyStage from '../../parts/EmptyStage.vue'
import EntryLine from '../../parts/EntryLine.vue'
import StageFrame from '../../parts/StageFrame.vue'
import { useEntry } from '../../parts/useEntry'
import { tapMend, useKeys } from '../../stage/keys'
import { useJob } from '../../stores/job'
import { useLook } from '../../stores/look'
import { useNotice } from '../../stores/notice'
import ForceCurve from './ForceCurve.vue'
import PullNav from './PullNav.vue'
import PullPanel from './PullPanel.vue'
import StickDrawing from './StickDrawing.vue'
import { bendKey } from './sticks'

/** Pipe: the pulls of the job, their sticks with marks, and how each is pulled. */
const store = useJob()
const look = useLook()
const notice = useNotice()
const entry = ref<{ focus: () => void } | null>(null)

const pull = computed(() => store.view?.pull ?? null)
const rows = computed(() => store.viewOf('pipe')?.pulls ?? [])
const way = computed(() => store.job?.ways.find((item) => item.id === pull.value?.summary.way) ?? null)
const picked = ref<string | null>(null)
const about = () => ({
  room: null,
  level: null,
  panel: null,
  way: pull.value?.summary.way ?? null,
  verb: 'bend',
})
const { suggest, act } = useEntry('pipe', about)
const say = (text: string) => store.edit([{ op: 'say', text, ...about() }])

async function lookAt(row: PipeRow) {
  picked.value = null
  await store.lookAt({ way: row.way, pull: String(row.index + 1), leg: undefined, circuit: undefined })
}
function step(by: number) {
  const at = rows.value.findIndex(
    (row) => row.way === pull.value?.summary.way && row.index === pull.value?.summary.index,
  )
  const next = rows.value[(at + by + rows.value.length) % rows.value.length]
  if (next) void lookAt(next)
}
function stepBend(by: number) {
  const keys = pull.value?.bends.map(bendKey) ?? []
  if (!keys.length) return
  const at = picked.value === null ? (by > 0 ? -1 : 0) : keys.indexOf(picked.value)
  picked.value = keys[(at + by + keys.length) % keys.length] ?? null
}
function feed(end: string) {
  const own = pull.value?.summary
  if (!own) return
  if (!way.value) return notice.tell('Keep the way as walked first: then it can be fed otherwise.', 'check')
  void act([{ op: 'set_leg', way: own.way, leg: own.first, set: { feed: end } }], 'feed at the other end')
}
function otherEnd() {
  if (pull.value?.how) feed(pull.value.how.feed === 'start' ? 'end' : 'start')
}
function resize(by: number) {
  const all = pull.value?.ladder ?? []
  const at = all.findIndex((rung) => rung.here)
  const mend = all[at + by]?.mend
  if (mend) void store.mend(mend)
}
const keep = () => store.view?.keep && void act([store.view.keep as Edit], 'keep it as walked')
const counted = computed(() => {
  const own = pull.value
  if (!own?.drawing) return ''
  const count = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`
  const couplings = own.couplings ? ` · ${count(own.couplings, 'coupling')}` : ''
  const elbows = own.drawing.elbows.length ? ` · ${count(own.drawing.elbows.length, 'elbow')}` : ''
  const proof = own.proven ? 'fewest that will do' : `at least ${own.bound} in this way`
  return `${count(own.sticks, 'stick')}${couplings}${elbows} · ${proof}`
})
useKeys(
  {
    '/': () => entry.value?.focus(),
    b: () => entry.value?.focus(),
    j: () => step(1),
    k: () => step(-1),
    '[': () => stepBend(-1),
    ']': () => stepBend(1),
    f: otherEnd,
    '+': () => resize(1),
    '-': () => resize(-1),
    m: tapMend,
    Escape: () => (picked.value = null),
  },
  ['[', ']'],
)
async function pickMark(key: string) {
  picked.value = key === picked.value ? null : key
  await nextTick()
  document.querySelector('[data-testid=bends] .row.here')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <StageFrame>
    <template #left>
      <PullNav
        :rows="rows"
        :way="pull?.summary.way ?? null"
        :index="pull?.summary.index ?? null"
        :metric="store.metric"
        @look="lookAt"
      />
    </template>
    <template v-if="pull">
      <header class="head">
        <h2>
          {{ pull.summary.name }} <span class="mute num">{{ pull.pipe }}</span>
        </h2>
        <span class="mute num">{{ counted }}</span>
      </header>
      <p v-if="store.view?.drawn" class="drawn">
        The frame gave it this way. Keep it as walked to bend, cut and feed it otherwise.
        <v-btn size="small" variant="outlined" data-testid="keep" @click="keep">Keep as walked</v-btn>
      </p>
      <div class="card">
        <StickDrawing v-if="pull.drawing" :drawing="pull.drawing" :picked="picked" @pick="pickMark" />
        <p v-else class="mute coil">
          Flexible pipe comes in coils: it is cut to {{ pull.summary.length_text }} and what its connectors
          take.
        </p>
      </div>
      <div v-if="pull.how" class="card second">
        <header class="head">
          <h3>Which end to feed</h3>
          <span class="mute num"> {{ pull.how.feed_at }} feeds, {{ pull.how.pull_at }} pulls </span>
        </header>
        <ForceCurve
          :how="pull.how"
          :drawing="pull.drawing ?? null"
          :length="pull.summary.length_in"
          :metric="store.metric"
        />
      </div>
    </template>
    <section v-if="pull?.order.length" class="order" data-testid="order">
      <h3>In this order</h3>
      <ol>
        <li v-for="step in pull.order" :key="step">{{ step }}</li>
      </ol>
    </section>
    <EmptyStage
      v-if="!pull && !store.loading && store.viewOf('pipe')"
      title="No pipe yet"
      action="Walk a way"
      @begin="look.go({}, 'runs')"
    >
      Wherever wires lie in pipe, its sticks are marked and cut here, and each pull is weighed from both ends.
    </EmptyStage>
    <template v-if="pull && way" #entry>
      <EntryLine
        ref="entry"
        verb="bend"
        called="pipe"
        placeholder='leg 2: offset 4" at 30 after 52"'
        :buttons="['leg', 'feed pull', 'size pull', 'pull point after leg', 'unbend leg']"
        action="bend it"
        :suggest="suggest"
        :submit="say"
      />
    </template>
    <template v-if="pull" #right>
      <PullPanel
        :pull="pull"
        :legs="way?.legs ?? []"
        :day="way?.day_f ?? null"
        :picked="picked"
        :fixed="!way"
        :metric="store.metric"
        :edit="store.edit"
        @mend="store.mend($event)"
        @pick="(key) => (picked = key)"
        @feed="feed"
      />
    </template>
  </StageFrame>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px 14px;
  flex-wrap: wrap;
  padding: 10px 14px 4px;
  background: var(--card);
}
.head h2 span {
  font-size: 15px;
  font-weight: 500;
}
.card {
  background: var(--card);
  padding: 0 12px 8px;
}
.second {
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}
.second .head {
  padding: 9px 2px 0;
}
.order {
  flex: 1 0 auto;
  padding: 9px 14px 4px;
}
.order ol {
  columns: 320px 2;
  column-gap: 28px;
  margin: 5px 0 6px;
  padding-left: 20px;
  font-size: 14.5px;
}
.order li {
  break-inside: avoid;
  margin: 0 0 4px;
}
.drawn {
  margin: 0;
  padding: 7px 14px;
  background: var(--note-wash);
  font-size: 14.5px;
}
.coil {
  margin: 0;
  padding: 14px 2px;
}
@media (max-width: 1000px) {
  .card {
    overflow-x: auto;
  }
}
</style>
