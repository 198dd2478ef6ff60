<script setup lang="ts">
import { reactive, ref, shallowRef, watch } from 'vue'

import { api, ask, type Count, type Problem } from '../../api/client'

/** How many circuits and spaces a house like this wants, before anything is drawn. */
const shown = defineModel<boolean>({ required: true })
const form = reactive({
  floor_area_ft2: '1200',
  kitchens: '1',
  baths: '1',
  laundry: '1',
  garages: '0',
  outdoors: '1',
})
const appliances = ref<string[]>(['refrigerator', 'dishwasher', 'range', 'water_heater'])
const found = shallowRef<Count | null>(null)
const problem = ref<Problem | null>(null)
const LABELS: Record<string, string> = {
  floor_area_ft2: 'Floor area, ft²',
  kitchens: 'Kitchens',
  baths: 'Baths',
  laundry: 'Laundries',
  garages: 'Garages',
  outdoors: 'Outdoor circuits',
}
const USES = [
  'range', 'cooktop', 'oven', 'dryer', 'washer', 'refrigerator', 'dishwasher', 'disposer', 'microwave', 'bath_heater',
  'water_heater', 'space_heater', 'air_conditioner', 'vehicle', 'pump', 'generator', 'kiln', 'welder', 'furnace',
].map((value) => ({ value, title: value.replaceAll('_', ' ') })) // prettier-ignore
const wrong = (key: string) =>
  problem.value?.key?.split('.').includes(key) ? problem.value.detail : undefined

async function count() {
  const numbers = Object.fromEntries(Object.entries(form).map(([key, text]) => [key, Number(text)]))
  const body = { ...numbers, appliances: appliances.value } as never
  const answer = await ask(api.POST('/api/count', { body }))
  problem.value = answer.problem ?? null
  if (answer.data) found.value = answer.data
}
watch([shown, () => ({ ...form }), appliances], () => shown.value && void count(), { immediate: true })
</script>

<template>
  <v-dialog aria-label="Count before drawing" v-model="shown" max-width="720">
    <v-card class="pa-5" data-testid="count">
      <h2>Count before drawing</h2>
      <div class="grid">
        <v-text-field
          v-for="(label, key) in LABELS"
          :key="key"
          v-model="form[key as keyof typeof form]"
          :label="label"
          inputmode="numeric"
          :error-messages="wrong(key)"
        />
        <v-select
          v-model="appliances"
          class="wide"
          label="Appliances with a circuit of their own"
          :items="USES"
          multiple
          chips
        />
      </div>
      <template v-if="found">
        <p class="sum num">
          {{ found.circuits }} circuits, {{ found.spaces }} spaces: a panel of {{ found.panel_spaces }} leaves
          a fifth free. About {{ found.load.amps.toFixed(0) }} A by the standard method.
        </p>
        <table class="num">
          <tbody>
            <tr v-for="line in found.lines" :key="line.name">
              <td>{{ line.name }}</td>
              <td>{{ line.circuits }}</td>
              <td>{{ line.spaces }} {{ line.spaces === 1 ? 'space' : 'spaces' }}</td>
              <td class="mute">{{ line.reason }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <div class="d-flex justify-end"><v-btn variant="text" @click="shown = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 12px 10px;
  margin-top: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.sum {
  font-weight: 600;
  font-size: 16px;
  margin: 12px 0 6px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 3px 8px 3px 0;
  border-top: 1px solid var(--rule);
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
