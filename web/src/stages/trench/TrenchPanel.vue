<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Edit, Mend, Problem, TrenchPlan } from '../../api/client'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import FindingCard from '../../parts/FindingCard.vue'
import VialGauge from '../../parts/VialGauge.vue'
import CostTable from './CostTable.vue'
import { TRENCH } from './lineFields'
import StepList from './StepList.vue'

/** The trench looked at: its verdict, its margins, what lies in it, the order of work, what it costs otherwise. */
const props = defineProps<{
  trench: TrenchPlan
  part: object | null
  loose: string[]
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ mend: [mend: Mend]; say: [text: string]; call: [] }>()
const steps = ref<{ ask: (step: string) => void } | null>(null)
const urgent = computed(() => props.trench.findings.filter((f) => f.severity !== 'note'))
const said = computed(() => props.trench.findings.filter((f) => f.severity === 'note'))
const set = (values: Part) =>
  props.edit([{ op: 'set', kind: 'trench', id: props.trench.id, set: values }], 'the trench')
const today = () => new Date().toLocaleDateString('sv')
async function tick(step: string, done: boolean, why: string) {
  const edit = { op: 'do_step', trench: props.trench.id, step, done, on: done ? today() : '', why }
  const problem = await props.edit([edit as Edit], step)
  if (problem?.key === 'why' || /comes first/.test(problem?.detail ?? '')) steps.value?.ask(step)
}
const lift = (by: string) =>
  props.edit([{ op: 'lift_hold', trench: props.trench.id, by, on: by ? today() : '' } as Edit], 'the hold')
const next = () => props.trench.steps.find((step) => step.state === 'next' || step.state === 'hold')
function tickNext() {
  const step = next()
  if (!step) return
  if (step.key === 'inspection') steps.value?.ask(step.key)
  else void tick(step.key, true, '')
}
defineExpose({ tickNext })
</script>

<template>
  <div class="panel">
    <header class="pick-head">
      <h2>{{ trench.name }}</h2>
      <span class="num mute">{{ trench.long_text }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in urgent"
      :key="f.code + f.subject + i"
      :finding="f"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <VialGauge v-for="figure in trench.figures" :key="figure.key" :figure="figure" />
    <section data-testid="lain">
      <h3>In it</h3>
      <p v-for="item in trench.lain" :key="item.way" class="num lain">
        <b>{{ item.name }}</b> {{ item.carries }}
        <span :class="item.short ? 'bad' : 'mute'"
          >{{ item.cover_text }} over it, needs {{ item.needed_text }}</span
        >
      </p>
      <p v-if="!trench.lain.length" class="mute">Nothing yet.</p>
      <p v-if="loose.length" class="taps no-print">
        <v-btn
          v-for="name in loose"
          :key="name"
          size="small"
          variant="outlined"
          @click="emit('say', `lay ${name} in ${trench.name}`)"
          >Lay {{ name }}</v-btn
        >
      </p>
    </section>
    <StepList ref="steps" :steps="trench.steps" @tick="tick" @lift="lift" @call="emit('call')" />
    <p class="num earth">{{ trench.earth.join(' · ') }}</p>
    <CostTable :options="trench.options" :connections="trench.connections" @mend="emit('mend', $event)" />
    <section v-if="trench.risers.length" data-testid="risers">
      <h3>Risers</h3>
      <div v-for="riser in trench.risers" :key="riser.way + riser.leg" class="riser">
        <b class="num">{{ riser.name }}</b> <span class="num mute">{{ riser.text }}</span>
        <p v-for="care in riser.cares" :key="care">{{ care }}</p>
      </div>
    </section>
    <section v-if="part" class="no-print">
      <h3>The trench</h3>
      <PartFields kind="trench" :fields="TRENCH" :part="part" :set="set" />
    </section>
    <FindingCard v-for="(f, i) in said" :key="`n${f.code}${i}`" :finding="f" @mend="emit('mend', $event)" />
    <p class="mute caution">
      Call for marks before digging, dig by hand beside them, and never alone in a deep trench. Nothing is
      covered before it is seen. The local authority and a licensed electrician decide.
    </p>
  </div>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
.lain {
  margin: 3px 0;
  font-size: 14.5px;
}
.lain span {
  display: block;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 6px 0 0;
}
.earth {
  font-size: 14.5px;
  margin: 8px 0 0;
}
.riser {
  border-top: 1px solid var(--rule);
  padding: 5px 0;
  font-size: 14.5px;
}
.riser p {
  margin: 1px 0 0;
}
.caution {
  font-size: 13.5px;
  margin: 12px 0 0;
}
</style>
