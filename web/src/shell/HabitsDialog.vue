<script setup lang="ts">
import { reactive } from 'vue'

import type { Field, Part } from '../parts/fields/field'
import PartFields from '../parts/fields/PartFields.vue'
import { whenShown } from '../stage/whenShown'
import { useJob } from '../stores/job'

/** Shop habits: common practice, no source; set once, they travel with the job. */
const store = useJob()
const shown = defineModel<boolean>({ required: true })
const FIELDS: Field[] = [
  { name: 'panel_makeup_in', label: 'Make-up at a panel, in' },
  { name: 'box_makeup_in', label: 'Make-up at a box, in (6 is the least)' },
  { name: 'outside_makeup_in', label: 'Make-up outside and at equipment, in' },
  { name: 'loop_in', label: 'Loop in each cable, in' },
  { name: 'waste_percent', label: 'Waste, %' },
  { name: 'first_staple_in', label: 'First staple from a box, in (12 is the most)' },
  { name: 'staple_spacing_in', label: 'Then a staple every, in (54 is the most)' },
  { name: 'temperature_swing_f', label: 'Outdoor swing, °F' },
  { name: 'dollars_per_hour', label: 'An hour of work, $' },
  { name: 'stud_within_in', label: 'A typed place goes to a stud within, in (0: never)' },
  { name: 'boxes_per_circuit', label: 'Boxes on a circuit, at most' },
  { name: 'light_wire', label: 'Wire to lights' },
]
const ROUTING: Field[] = [
  {
    name: 'school',
    label: 'Cables go',
    titles: {
      cheapest: 'the cheapest way of all',
      studs: 'through the studs',
      over: 'up and over',
      under: 'down and under',
    },
  },
  { name: 'cables_a_hole', label: 'Small cables in one hole' },
  { name: 'stud_minutes', label: 'A hole in a stud, min' },
  { name: 'joist_minutes', label: 'A hole in a joist, min' },
  { name: 'plate_minutes', label: 'A plate bored and sealed, min' },
  { name: 'corner_minutes', label: 'A corner, min' },
  { name: 'header_minutes', label: 'Over a header, min' },
  { name: 'trip_minutes', label: 'Under roof or floor, a cable, min' },
  { name: 'fish_minutes', label: 'A stretch fished, min' },
]
const ROUGHIN: Field[] = [
  {
    name: 'enters',
    label: 'Power comes into a box',
    titles: { bottom: 'at the bottom, loads leave at the top', anywhere: 'wherever it is nearest' },
    wide: true,
  },
  {
    name: 'fold',
    label: 'Wires go back into a box',
    titles: {
      accordion: 'folded: a router only nicks their ends',
      roll: 'rolled tight to the back, out of its reach',
    },
    wide: true,
  },
  { name: 'photos', label: 'A wall wants a photo before it is closed' },
  { name: 'clear_in', label: 'No screw so near to a wire, in' },
  { name: 'off_percent', label: 'A torque is asked about when off by, %' },
]
const PIPING: Field[] = [
  {
    name: 'size',
    label: 'Where four No. 6 or larger go round bends',
    titles: { one_over: 'one size over legal', legal: 'the smallest legal' },
    wide: true,
  },
  {
    name: 'order',
    label: 'Wire goes in',
    titles: { glue_first: 'when the pull is glued up', thread_first: 'piece by piece, glued after' },
    wide: true,
  },
  {
    name: 'offsets',
    label: 'Marks of offsets',
    titles: { exact: 'by trigonometry', chart: "by the bender's chart" },
  },
  { name: 'lube', label: 'Lubricant', titles: { gel: 'gel', paste: 'wax paste', dry: 'none' } },
  { name: 'people', label: 'People on the pull' },
  { name: 'hottest_f', label: 'Pipe in the sun gets, °F' },
]
const BUYING: Field[] = [
  {
    name: 'joints',
    label: 'Wires are joined by',
    titles: { twist: 'twist-on connectors', lever: 'lever connectors' },
  },
  { name: 'colour', label: 'Devices and plates are' },
  { name: 'cables_a_clamp', label: 'Small cables in one clamp (2 only where listed)' },
  { name: 'supplier', label: 'All bought at (empty: where it is cheapest)' },
  { name: 'tax_percent', label: 'Tax on material, %' },
  { name: 'margin_percent', label: 'Margin, %' },
  { name: 'leftover_ft', label: 'Leftovers kept from, ft' },
  { name: 'stale_days', label: 'A price is old after, days' },
  { name: 'permit_dollars', label: 'Permit, $' },
]
const LABOUR: Field[] = [
  { name: 'box_minutes', label: 'A box set, min' },
  { name: 'make_up_minutes', label: 'A box made up, min' },
  { name: 'device_minutes', label: 'A device and plate, min' },
  { name: 'fixture_minutes', label: 'A light or fan, min' },
  { name: 'breaker_minutes', label: 'A circuit landed, min' },
  { name: 'panel_minutes', label: 'A panel set, min' },
  { name: 'bend_minutes', label: 'A bend made, min' },
  { name: 'wire_foot_minutes', label: 'A foot of wires pulled, min' },
  { name: 'rod_minutes', label: 'A rod driven, min' },
  { name: 'hours_a_day', label: 'Hours in a day' },
  { name: 'added_after_percent', label: 'More once walls are shut, %' },
]
const form = reactive<Part>({})
whenShown(shown, () => {
  Object.assign(form, store.job?.habits)
})
/** Set as it is typed: nothing is lost however the dialog is left; undo takes it back. */
async function set(values: Part, field: Field) {
  const problem = await store.edit(
    [{ op: 'set_job', set: { habits: { ...form, ...values } } }],
    `habit: ${field.label.split(',')[0]?.toLowerCase()}`,
  )
  if (!problem) Object.assign(form, values)
  return problem
}
const route = (values: Part, field: Field) =>
  set({ routing: { ...(form.routing as Part), ...values } }, field)
const buy = (values: Part, field: Field) => set({ buying: { ...(form.buying as Part), ...values } }, field)
const work = (values: Part, field: Field) => set({ labour: { ...(form.labour as Part), ...values } }, field)
const record = (values: Part, field: Field) =>
  set({ roughin: { ...(form.roughin as Part), ...values } }, field)
const pipe = (values: Part, field: Field) => set({ piping: { ...(form.piping as Part), ...values } }, field)
</script>

<template>
  <v-dialog aria-label="Shop habits" v-model="shown">
    <v-card class="pa-5">
      <h2>Shop habits</h2>
      <p class="mute">Common practice, no source. Where the code says more, the code is kept.</p>
      <PartFields kind="habits" :fields="FIELDS" :part="form" :set="set" />
      <h3 class="mt-3">The way of a cable</h3>
      <p class="mute">Minutes and the hour above say which way is the cheapest.</p>
      <PartFields kind="routing" :fields="ROUTING" :part="(form.routing as Part) ?? {}" :set="route" />
      <h3 class="mt-3">Pipe</h3>
      <p class="mute">
        Schools of making it up and of pulling; a check says so where the book asks otherwise.
      </p>
      <PartFields kind="piping" :fields="PIPING" :part="(form.piping as Part) ?? {}" :set="pipe" />
      <h3 class="mt-3">Buying</h3>
      <PartFields kind="buying" :fields="BUYING" :part="(form.buying as Part) ?? {}" :set="buy" />
      <h3 class="mt-3">Hours</h3>
      <p class="mute">Of one person, for the budget and the quote.</p>
      <PartFields kind="labour" :fields="LABOUR" :part="(form.labour as Part) ?? {}" :set="work" />
      <h3 class="mt-3">Rough-in</h3>
      <PartFields kind="roughin" :fields="ROUGHIN" :part="(form.roughin as Part) ?? {}" :set="record" />
      <div class="buttons"><v-btn variant="flat" color="ink" @click="shown = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.buttons {
  display: flex;
  gap: 6px;
  justify-content: end;
  align-items: end;
}
</style>
