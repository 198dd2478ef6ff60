<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Leg, Mend, Problem, PullPlan } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import PipeSection from '../../parts/PipeSection.vue'
import { inchText } from '../../parts/planScale'
import VialGauge from '../../parts/VialGauge.vue'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { DAY } from './bendFields'
import BendPanel from './BendPanel.vue'
import HowToPull from './HowToPull.vue'
import SizeLadder from './SizeLadder.vue'

/** The pull looked at: its verdict, what is inside, how large and how it is pulled, bends, what keeps it, the order. */
const props = defineProps<{
  pull: PullPlan
  legs: Leg[]
  day: number | null
  picked: string | null
  fixed: boolean
  metric: boolean
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{
  mend: [mend: Mend]
  pick: [key: string | null]
  feed: [end: string]
}>()
const urgent = computed(() => props.pull.findings.filter((f) => f.severity !== 'note'))
const said = computed(() => props.pull.findings.filter((f) => f.severity === 'note'))
const where = (leg: number | null) => (leg === null ? 'Way' : `Leg ${leg + 1}`)
const opened = (inches: number) => inchText(Math.ceil(inches * 8) / 8, props.metric)
</script>

<template>
  <div class="panel">
    <header class="pick-head">
      <h2>What is inside</h2>
      <span class="num mute">pull {{ pull.summary.index + 1 }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in urgent"
      :key="f.code + i"
      :finding="f"
      :where="where(f.leg)"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <div class="inside">
      <PipeSection v-if="pull.section" :section="pull.section" />
      <ul class="plainlist num">
        <li v-for="wire in pull.wires" :key="wire.circuit + wire.what">
          {{ wire.pieces > 1 ? `${wire.pieces} × ` : '' }}{{ wire.what }}
          <span class="mute">{{ wire.cut_text ? `cut ${wire.cut_text}` : 'from the way before' }}</span>
        </li>
        <li v-if="!pull.section" class="mute">No wire is known here yet.</li>
      </ul>
    </div>
    <p v-if="pull.fills.length > 1" class="fills num" data-testid="fills">
      <span v-for="row in pull.fills" :key="row.pipe" :class="{ bad: !row.fits }"
        >{{ row.pipe }}: {{ row.percent.toFixed(0) }} % of {{ row.limit_percent.toFixed(0) }} %</span
      >
    </p>
    <VialGauge v-for="figure in pull.figures" :key="figure.key" :figure="figure" />
    <SizeLadder v-if="pull.ladder.length" :rungs="pull.ladder" @mend="emit('mend', $event)" />
    <HowToPull v-if="pull.how" :how="pull.how" @feed="emit('feed', $event)" />
    <BendPanel
      :bends="pull.bends"
      :legs="legs"
      :first="pull.summary.first"
      :last="pull.summary.last"
      :way="pull.summary.way"
      :picked="picked"
      :fixed="fixed"
      :metric="metric"
      :edit="edit"
      @pick="emit('pick', $event)"
    />
    <section v-if="pull.expansions.length || pull.cares.length" class="life" data-testid="life">
      <h3>So that it lasts</h3>
      <div v-for="item in pull.expansions" :key="item.leg" class="care">
        <b class="num"
          >{{ item.fitted ? '' : 'Wants ' }}{{ item.count }} expansion fitting{{
            item.count > 1 ? 's' : ''
          }}
          in leg {{ item.leg + 1 }}</b
        >
        <p>
          {{ item.length_text }} of plastic moves
          {{ metric ? `${(item.moves_in * 25.4).toFixed(0)} mm` : `${item.moves_in.toFixed(2)}″` }} over the
          year. Pull it open
          <template v-for="(open, i) in item.openings" :key="open.day_f"
            >{{ i ? ', ' : '' }}{{ opened(open.open_in) }} at {{ open.day_f }} °F</template
          >. <span class="mute">352.44</span>
        </p>
      </div>
      <PartFields
        v-if="pull.expansions.length && !fixed"
        kind="way"
        :fields="DAY"
        :part="{ day_f: day }"
        :set="
          (values: Part) => edit([{ op: 'set', kind: 'way', id: pull.summary.way, set: values }], 'the day')
        "
      />
      <div v-for="item in pull.cares" :key="item.key" class="care">
        <b>{{ item.title }}</b>
        <p>
          {{ item.text }} <span class="mute num">{{ item.section }}</span>
        </p>
      </div>
    </section>
    <FindingCard
      v-for="(f, i) in said"
      :key="`n${f.code}${i}`"
      :finding="f"
      :where="where(f.leg)"
      @mend="emit('mend', $event)"
    />
    <p class="mute caution">
      Bend and cut with gloves and glasses; ream before wire goes in. Work dead and prove it. Numbers are
      planned: bender, fittings and the tape on the wall decide. Local authority and a licensed electrician
      decide.
    </p>
  </div>
</template>

<style scoped>
.inside {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 2px 0 6px;
}
.plainlist {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 14.5px;
}
.plainlist span {
  white-space: nowrap;
}
.fills {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  margin: 0 0 4px;
  font-size: 14px;
  color: var(--mute);
}
.bad {
  color: var(--stop);
}
.life {
  margin: 12px 0 4px;
}
.care {
  border-top: 1px solid var(--rule);
  padding: 5px 0;
  font-size: 14.5px;
}
.care b {
  font-weight: 600;
}
.care p {
  margin: 1px 0 0;
}
.caution {
  font-size: 13.5px;
  margin: 12px 0 0;
}
</style>
