<script setup lang="ts">
import { computed, onMounted } from 'vue'

import type { Box, Edit, Problem } from '../../api/client'
import MeasureField from '../../parts/MeasureField.vue'
import { inchText, tapeText } from '../../parts/planScale'
import { useBoxWords } from '../../stores/boxWords'
import { useJob } from '../../stores/job'

/** Everything about a box that can be changed. */
const props = defineProps<{ box: Box; act: (edits: Edit[], label?: string) => Promise<Problem | null> }>()
const store = useJob()
const words = useBoxWords()
onMounted(() => void words.load())

const level = computed(() =>
  (store.job?.structures ?? []).flatMap((s) => s.levels ?? []).find((l) => l.id === store.room?.level),
)
const floor = computed(() => level.value?.floor_in ?? 0)
const text = (inches: number) => tapeText(inches, store.metric)
const inches = (value: number) => inchText(value, store.metric)
const set = (values: Record<string, unknown>) =>
  props.act(
    [{ op: 'set', kind: 'box', id: props.box.id, set: values }],
    `${props.box.name}: ${Object.keys(values)[0]?.replace(/_in$/, '').replaceAll('_', ' ')}`,
  )
const KINDS = ['receptacle', 'switch', 'light', 'fan', 'smoke', 'junction', 'equipment', 'disconnect']
const SERVES = [
  '', 'counter', 'range', 'cooktop', 'oven', 'dryer', 'washer', 'refrigerator', 'dishwasher', 'disposer', 'microwave',
  'bath_heater', 'water_heater', 'space_heater', 'air_conditioner', 'opener', 'vehicle', 'pump', 'generator', 'kiln',
  'welder', 'furnace', 'heat_cable',
].map((value) => ({ value, title: value ? value.replaceAll('_', ' ') : 'nothing in particular' })) // prettier-ignore
const models = computed(() => [
  { value: '', title: 'the usual one' },
  ...words.models.map((m) => ({ value: m.key, title: m.name })),
])
</script>

<template>
  <div class="pick-fields no-print">
    <MeasureField
      v-if="box.side !== null"
      label="From the left corner"
      :text="text(box.at_in ?? 0)"
      @inches="set({ at_in: $event })"
    />
    <MeasureField
      bare="in"
      label="Middle over the floor"
      :text="inches((box.height_in ?? 0) - floor)"
      @inches="set({ height_in: $event + floor })"
    />
    <v-select
      label="Kind"
      :model-value="box.kind"
      :items="KINDS"
      @update:model-value="set({ kind: $event })"
    />
    <v-select
      label="Serves"
      :model-value="box.serves"
      :items="SERVES"
      @update:model-value="set({ serves: $event })"
    />
    <v-select
      label="Box"
      class="wide"
      :model-value="box.model"
      :items="models"
      @update:model-value="set({ model: $event })"
    />
    <v-select
      label="Gangs"
      :model-value="box.gangs"
      :items="[1, 2, 3, 4]"
      @update:model-value="set({ gangs: $event })"
    />
    <v-select
      v-if="box.kind === 'switch'"
      label="Ways"
      :model-value="box.ways"
      :items="[
        { value: 2, title: 'single-pole' },
        { value: 3, title: 'three-way' },
        { value: 4, title: 'four-way' },
      ]"
      @update:model-value="set({ ways: $event })"
    />
    <MeasureField
      label="Set out from the stud"
      :text="inches(box.set_out_in ?? 0.5)"
      @inches="set({ set_out_in: $event })"
    />
    <MeasureField
      label="Clear depth behind, taped"
      :text="box.clear_in === null || box.clear_in === undefined ? '' : inches(box.clear_in)"
      @inches="set({ clear_in: $event })"
    />
    <div class="wide ticks">
      <v-checkbox
        label="On blocking"
        :model-value="box.blocking"
        @update:model-value="set({ blocking: $event })"
      />
      <v-checkbox
        label="Outer face"
        :model-value="box.outdoors"
        @update:model-value="set({ outdoors: $event })"
      />
      <v-checkbox
        label="In-use cover"
        :model-value="box.covered"
        @update:model-value="set({ covered: $event })"
      />
      <v-checkbox
        label="Air-tight"
        :model-value="box.air_tight"
        @update:model-value="set({ air_tight: $event })"
      />
      <v-checkbox
        label="Keeps its height"
        :model-value="box.fixed"
        @update:model-value="set({ fixed: $event })"
      />
      <v-checkbox label="Marked" :model-value="box.marked" @update:model-value="set({ marked: $event })" />
    </div>
  </div>
</template>

<style scoped>
.ticks {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
</style>
