<script setup lang="ts">
import { computed } from 'vue'

import type { Alternative, CircuitPlan, Edit, Leg, Mend, WayPlan } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import PipeSection from '../../parts/PipeSection.vue'
import ReasonMenu from '../../parts/ReasonMenu.vue'
import VialGauge from '../../parts/VialGauge.vue'
import { useLook } from '../../stores/look'
import AlternativeList from './AlternativeList.vue'
import PlaceFacts from './PlaceFacts.vue'
import PlanFromAbove from './PlanFromAbove.vue'

/** The selected leg, or the way: verdict first, then numbers, then what else may go there. */
const props = defineProps<{
  plan: WayPlan
  circuit: CircuitPlan | null
  leg: number | null
  raw: Leg | null
  alternatives: Alternative[]
}>()
const emit = defineEmits<{
  mend: [mend: Mend]
  edit: [edits: Edit[]]
  select: [leg: number | null]
  setup: []
}>()

const own = computed(() =>
  props.plan.findings.filter(
    (f) => props.leg !== null && f.leg !== null && f.leg <= props.leg && props.leg <= (f.last ?? f.leg),
  ),
)
const others = computed(() => props.plan.findings.filter((f) => !own.value.includes(f)))
const planned = computed(() => (props.leg === null ? null : (props.plan.legs[props.leg] ?? null)))
const pull = computed(() => {
  const at = planned.value?.pull
  if (at !== null && at !== undefined) return props.plan.pulls[at] ?? null
  return props.leg === null
    ? (props.plan.pulls.toSorted((a, b) => b.length_in - a.length_in)[0] ?? null)
    : null
})
const title = computed(() =>
  planned.value
    ? `Leg ${planned.value.index + 1}, ${planned.value.place_title.toLowerCase()}`
    : props.plan.summary.name,
)
const several = computed(() => props.plan.summary.circuits.length > 1)
const turns = computed(() => new Set(props.plan.strip.plan.map((p) => p.y)).size > 1)
/** Of the whole way what stops or asks comes first, what is only said comes last. */
const urgent = computed(() => (props.leg === null ? others.value.filter((f) => f.severity !== 'note') : []))
const said = computed(() => (props.leg === null ? others.value.filter((f) => f.severity === 'note') : []))
/** What is electrical stands with the circuit, and is said there. */
const look = useLook()
const thread = computed(() => ({
  path: `/jobs/${look.jobId}/circuits`,
  query: { circuit: props.circuit?.summary.id },
}))
const carries = computed(() => {
  const facts = Object.fromEntries((props.circuit?.facts ?? []).map((fact) => [fact.label, fact.text]))
  const load = props.circuit?.figures.find((figure) => figure.key === 'load')
  return [facts.Breaker, facts.Wire, load && `${load.text} A expected`].filter(Boolean).join(' · ')
})
const drops = computed(() => props.circuit?.figures.filter((figure) => figure.key.startsWith('drop')) ?? [])
const where = (leg: number | null) => (leg === null ? 'Way' : `Leg ${leg + 1}`)
</script>

<template>
  <div class="panel">
    <header class="pick-head">
      <h2>{{ title }}</h2>
      <span class="num mute">{{ planned ? planned.length_text : plan.summary.length_text }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in own"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <FindingCard
      v-for="(f, i) in urgent"
      :key="`u${f.code}${i}`"
      :finding="f"
      :where="where(f.leg)"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <p v-if="planned && !own.some((f) => f.severity !== 'note')" class="fine num">
      {{ planned.method_name }} may go here.
    </p>

    <div v-if="pull" class="figures">
      <PipeSection v-if="pull.section" :section="pull.section" />
      <div class="vials">
        <VialGauge
          v-for="figure in pull.figures"
          :key="figure.key"
          :figure="{ ...figure, label: `${figure.label}, pull ${pull.index + 1}` }"
        />
      </div>
    </div>
    <template v-if="planned">
      <VialGauge v-for="figure in planned.figures" :key="figure.key" :figure="figure" />
    </template>

    <template v-if="circuit">
      <RouterLink class="thread num" :to="thread" data-testid="thread">
        <b>{{ circuit.summary.label }} {{ circuit.summary.name }}</b>
        <span class="mute">{{ carries }}</span>
      </RouterLink>
      <FindingCard
        v-for="(f, i) in leg === null ? circuit.findings : []"
        :key="`c${f.code}${i}`"
        :finding="f"
        where="Circuit"
        @mend="emit('mend', $event)"
      />
      <VialGauge v-for="figure in drops" :key="figure.key" :figure="figure" />
    </template>
    <slot />

    <template v-if="plan.cuts.length">
      <h3 class="head">To cut</h3>
      <ReasonMenu v-for="cut in plan.cuts" :key="cut.figure.key" :figure="cut.figure">
        <div class="cut">
          <span
            >{{ cut.item
            }}<small class="mute"
              >{{ several ? `${cut.title}: ` : '' }}{{ cut.start }} to {{ cut.end }}</small
            ></span
          >
          <b class="num">{{ cut.pieces > 1 ? `${cut.pieces} × ` : '' }}{{ cut.figure.text }}</b>
        </div>
      </ReasonMenu>
    </template>

    <template v-if="leg === null">
      <FindingCard
        v-for="(f, i) in said"
        :key="`r${f.code}${i}`"
        :finding="f"
        :where="where(f.leg)"
        @mend="emit('mend', $event)"
      />
      <PlanFromAbove v-if="turns" :points="plan.strip.plan" />
    </template>
    <template v-else-if="planned && raw">
      <p v-if="planned.fittings.length" class="fit">
        {{ planned.held.text }} <span class="mute">{{ planned.held.rule }}</span>
      </p>
      <p v-for="word in planned.fittings" :key="word" class="fit">{{ word }}</p>
      <h3 v-if="raw" class="head no-print">What may go here</h3>
      <AlternativeList class="no-print" :items="alternatives" @mend="emit('mend', $event)" />
      <PlaceFacts :leg="raw" :planned="planned" :way="plan.summary.id" />
    </template>

    <template v-if="leg !== null && others.length">
      <h3 class="head">Elsewhere on this way</h3>
      <button
        v-for="(f, i) in others"
        :key="`o${f.code}${i}`"
        type="button"
        class="plain other"
        :class="f.severity"
        @click="emit('select', f.leg)"
      >
        <b class="num">{{ where(f.leg) }}</b> {{ f.title }}
      </button>
    </template>
    <div class="row no-print">
      <v-btn size="small" variant="outlined" data-testid="setup" @click="emit('setup')"
        >The way and what takes it…</v-btn
      >
      <v-btn v-if="leg !== null" size="small" variant="text" @click="emit('select', null)">Whole way</v-btn>
    </div>
    <p class="mute caution">
      Work dead and prove it. The upper lugs of a panel stay live with its main off. Local authority and a
      licensed electrician decide. Call for utility marks before digging.
    </p>
  </div>
</template>

<style scoped>
.fine {
  color: var(--fine);
  font-weight: 600;
  margin: 0 0 8px;
}
.figures {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 4px 0 2px;
}
.vials {
  flex: 1;
  min-width: 0;
}
.head {
  margin: 14px 0 4px;
}
.fit {
  margin: 0;
  padding: 3px 0;
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
}
.thread {
  display: block;
  padding: 7px 9px;
  margin: 8px 0 6px;
  border: 1px solid var(--rule);
  color: inherit;
  text-decoration: none;
  font-size: 14.5px;
}
.thread:hover {
  background: var(--note-wash);
}
.thread span {
  display: block;
}
.cut {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
.cut b {
  font-weight: 600;
  white-space: nowrap;
}
small {
  display: block;
  font-size: 13.5px;
}
.other {
  display: block;
  width: 100%;
  padding: 5px 0 5px 9px;
  border-left: 4px solid var(--rule);
  margin-bottom: 4px;
  font-size: 14.5px;
}
.other:hover {
  background: var(--note-wash);
}
.other.stop {
  border-color: var(--stop);
}
.other.check {
  border-color: var(--check-mark);
}
.row {
  display: flex;
  gap: 6px;
  margin-top: 12px;
}
@media print {
  .panel {
    columns: 2;
  }
  .panel > * {
    break-inside: avoid;
  }
}
.caution {
  font-size: 13.5px;
  margin: 12px 0 0;
}
</style>
