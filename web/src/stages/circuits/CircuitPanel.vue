<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitPlan, Edit, PanelPlan, Problem } from '../../api/client'
import type { Field, Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import FindingCard from '../../parts/FindingCard.vue'
import VialGauge from '../../parts/VialGauge.vue'
import { useJob } from '../../stores/job'
import { CIRCUIT_FIELDS } from './circuitFields'

/** The circuit looked at: verdict, margins, facts, what goes dark; then its panel. */
const props = defineProps<{
  plan: CircuitPlan | null
  panel: PanelPlan | null
  act: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const store = useJob()

const raw = computed(() => store.job?.circuits.find((item) => item.id === props.plan?.summary.id) ?? null)
const set = (values: Part, field: Field) =>
  raw.value &&
  store.edit(
    [{ op: 'set', kind: 'circuit', id: raw.value.id, set: withPoles(values) }],
    `${raw.value.name}: ${field.label.toLowerCase()}`,
  )
const withPoles = (values: Part) =>
  'volts' in values ? { ...values, poles: values.volts === 120 ? 1 : 2 } : values
const drop = () =>
  raw.value &&
  props.act([{ op: 'drop', kind: 'circuit', id: raw.value.id }], `remove circuit ${raw.value.name}`)
const whole = computed(() => store.view?.wiring ?? [])
/** Lists that no circuit changes, so that their fields are not drawn anew with every edit. */
const ofWire = computed(() => ({
  sizes: store.sizes,
  grounds: [{ value: '', title: 'as derived' }, ...store.sizes],
  whips: [{ value: '', title: 'no whip' }, ...store.sizes],
}))
const lists = computed(() => ({
  ...ofWire.value,
  partners: [
    { value: null, title: 'none' },
    ...(store.job?.circuits ?? [])
      .filter((c) => c.panel === raw.value?.panel && c.id !== raw.value.id && c.space)
      .map((c) => ({ value: c.id, title: `${c.space} ${c.name}` })),
  ],
}))
</script>

<template>
  <template v-if="plan && raw">
    <header class="pick-head">
      <h2>{{ plan.summary.label }} {{ plan.summary.name }}</h2>
      <span class="num mute">{{ plan.summary.breaker_a }} A</span>
    </header>
    <FindingCard
      v-for="(f, i) in plan.findings"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="store.mend($event)"
    />
  </template>
  <template v-if="panel">
    <h3 v-if="panel.findings.length">{{ panel.name }}</h3>
    <FindingCard
      v-for="(f, i) in panel.findings"
      :key="f.code + i"
      :finding="f"
      :first="i === 0 && !plan?.findings.length"
      @mend="store.mend($event)"
    />
  </template>
  <template v-if="plan && raw">
    <VialGauge v-for="figure in plan.figures" :key="figure.key" :figure="figure" />
    <dl class="pick-facts num">
      <div v-for="fact in plan.facts" :key="fact.label">
        <dt>{{ fact.label }}</dt>
        <dd>{{ fact.text }}</dd>
      </div>
      <div v-for="cable in plan.cables" :key="cable">
        <dt>To cut</dt>
        <dd>{{ cable }}</dd>
      </div>
    </dl>
    <h3>Dark when it trips</h3>
    <p>{{ plan.dark }}</p>
  </template>
  <FindingCard v-for="(f, i) in whole" :key="`w${i}`" :finding="f" @mend="store.mend($event)" />
  <PartFields
    v-if="plan && raw"
    :key="raw.id"
    kind="circuit"
    :fields="CIRCUIT_FIELDS"
    :part="raw"
    :set="set"
    :lists="lists"
  >
    <v-btn size="small" variant="text" color="stop" @click="drop">Remove this circuit</v-btn>
  </PartFields>
  <p v-if="!plan" class="mute">No circuit yet. Type one below, or have them proposed.</p>
  <p class="mute caution">
    A plan, not a permit. Upper lugs stay live with the main off; torque to the label. Local authority and a
    licensed electrician decide.
  </p>
</template>

<style scoped>
dt {
  flex: none;
}
h3 {
  margin: 12px 0 4px;
}
p {
  margin: 0 0 6px;
}
.caution {
  font-size: 13.5px;
  margin-top: 12px;
}
</style>
