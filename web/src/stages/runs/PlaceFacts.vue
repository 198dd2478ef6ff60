<script setup lang="ts">
import { computed } from 'vue'

import type { Leg, LegPlan } from '../../api/client'
import type { Field, Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { useJob } from '../../stores/job'

/** What the place of this leg is like. A fact that was changed stands out; "as usual" takes it back. */
const props = defineProps<{ leg: Leg; planned: LegPlan; way: string }>()
const store = useJob()

const ABOVE = {
  open_ground: 'open ground',
  concrete_2in: '2″ of concrete',
  slab_4in: '4″ slab',
  driveway: 'own driveway',
  street: 'street or lot',
  under_building: 'building',
}
/** What nothing said means here, in words. */
const usual = (key: string) => {
  const found = (props.planned.facts as Record<string, unknown>)[key]
  const said = (props.leg.facts as Record<string, unknown>)[key] ?? null
  if (said !== null || found === null || found === undefined || found === '') return 'as usual here'
  return `as usual: ${found === true ? 'yes' : found === false ? 'no' : (ABOVE[found as keyof typeof ABOVE] ?? found)}`
}
const fields = computed<Field[]>(() => [
  { name: 'moisture', label: 'Moisture', usual: usual('moisture') },
  { name: 'damage', label: 'Can be hit', usual: usual('damage') },
  { name: 'exposed', label: 'Exposed', usual: usual('exposed') },
  { name: 'sunlight', label: 'In sunlight', usual: usual('sunlight') },
  { name: 'insulation', label: 'In insulation', usual: usual('insulation') },
  { name: 'ambient_c', label: 'Hottest, °C', usual: usual('ambient_c') },
  {
    name: 'above',
    label: 'Above it',
    titles: ABOVE,
    usual: usual('above'),
    when: () => !!props.planned.facts.above,
  },
])
const setLeg = (set: Part) => store.edit([{ op: 'set_leg', way: props.way, leg: props.planned.index, set }])
const setFacts = (values: Part) => setLeg({ facts: { ...props.leg.facts, ...values } })
const LEG: Field[] = [
  { name: 'sleeve', label: 'A sleeve: the cable goes on through it' },
  { name: 'fished', label: 'Fished through what is closed' },
]
</script>

<template>
  <details class="facts no-print">
    <summary class="num">What this place is like</summary>
    <PartFields kind="facts" :fields="fields" :part="leg.facts ?? {}" :set="setFacts" />
    <PartFields kind="leg" :fields="LEG" :part="leg" :set="setLeg" />
  </details>
</template>

<style scoped>
.facts {
  margin-top: 10px;
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  color: var(--chalk);
  font-size: 15px;
}
</style>
