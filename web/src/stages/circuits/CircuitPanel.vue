<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitPlan, Edit, PanelPlan, Problem } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import VialGauge from '../../parts/VialGauge.vue'
import { useJob } from '../../stores/job'

/** The circuit looked at: verdict, margins, facts, what goes dark; then its panel. */
const props = defineProps<{
  plan: CircuitPlan | null
  panel: PanelPlan | null
  sizes: string[]
  act: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const store = useJob()

const raw = computed(() => store.job?.circuits.find((item) => item.id === props.plan?.summary.id) ?? null)
const set = (values: Record<string, unknown>) =>
  raw.value &&
  props.act(
    [{ op: 'set', kind: 'circuit', id: raw.value.id, set: values }],
    `${raw.value.name}: ${Object.keys(values)[0]?.replaceAll('_', ' ')}`,
  )
const drop = () =>
  raw.value &&
  props.act([{ op: 'drop', kind: 'circuit', id: raw.value.id }], `remove circuit ${raw.value.name}`)
const number = (value: unknown) => Number(String(value).trim())
const whole = computed(() => store.view?.wiring ?? [])
const PROTECTION = [
  { value: 'plain', title: 'plain' },
  { value: 'gfci', title: 'ground-fault' },
  { value: 'afci', title: 'arc-fault' },
  { value: 'dual', title: 'both' },
]
const METHODS = ['NM-B', 'UF-B', 'MC', 'AC', 'SER', 'raceway']
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
  <div v-if="plan && raw" :key="raw.id" class="pick-fields no-print">
    <v-text-field
      label="Name"
      class="wide"
      :model-value="raw.name"
      @change="set({ name: ($event.target as HTMLInputElement).value })"
    />
    <v-text-field
      label="Breaker, A"
      inputmode="decimal"
      :model-value="raw.breaker_a"
      @change="set({ breaker_a: number(($event.target as HTMLInputElement).value) })"
    />
    <v-select
      label="Protection"
      :model-value="raw.protection"
      :items="PROTECTION"
      @update:model-value="set({ protection: $event })"
    />
    <v-select
      label="Wire"
      :model-value="raw.wire_size"
      :items="sizes"
      @update:model-value="set({ wire_size: $event })"
    />
    <v-select
      label="Of"
      :model-value="raw.material"
      :items="[
        { value: 'cu', title: 'copper' },
        { value: 'al', title: 'aluminum' },
      ]"
      @update:model-value="set({ material: $event })"
    />
    <v-select
      label="Volts"
      :model-value="raw.volts"
      :items="[120, 240]"
      @update:model-value="set({ volts: $event, poles: $event === 240 ? 2 : 1 })"
    />
    <v-select
      label="In"
      :model-value="raw.method"
      :items="METHODS"
      @update:model-value="set({ method: $event })"
    />
    <v-select
      label="Whip wire"
      :model-value="raw.whip_size"
      :items="[{ value: '', title: 'no whip' }, ...sizes.map((s) => ({ value: s, title: s }))]"
      @update:model-value="set({ whip_size: $event })"
    />
    <div class="wide ticks">
      <v-checkbox label="Neutral" :model-value="raw.neutral" @update:model-value="set({ neutral: $event })" />
      <v-checkbox
        label="Own ground"
        :model-value="raw.equipment_ground"
        @update:model-value="set({ equipment_ground: $event })"
      />
      <v-checkbox
        label="By nameplate"
        :model-value="raw.nameplate"
        @update:model-value="set({ nameplate: $event })"
      />
    </div>
    <v-btn size="small" variant="text" color="stop" @click="drop">Remove this circuit</v-btn>
  </div>
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
.ticks {
  display: flex;
  flex-wrap: wrap;
}
.caution {
  font-size: 13.5px;
  margin-top: 12px;
}
</style>
