<script setup lang="ts">
import { reactive, ref } from 'vue'

import type { Problem } from '../api/client'
import { whenShown } from '../stage/whenShown'
import { useJob } from '../stores/job'

/** Shop habits: common practice, no source; set once, they travel with the job. */
const store = useJob()
const shown = defineModel<boolean>({ required: true })
const FIELDS: [string, string][] = [
  ['panel_makeup_in', 'Make-up at a panel, in'],
  ['box_makeup_in', 'Make-up at a box, in (6 is the least)'],
  ['outside_makeup_in', 'Make-up outside and at equipment, in'],
  ['loop_in', 'Loop in each cable, in'],
  ['waste_percent', 'Waste, %'],
  ['first_staple_in', 'First staple from a box, in (12 is the most)'],
  ['staple_spacing_in', 'Then a staple every, in (54 is the most)'],
  ['temperature_swing_f', 'Outdoor swing, °F'],
  ['dollars_per_hour', 'An hour of work, $'],
]
const form = reactive<Record<string, string | number>>({})
const problem = ref<Problem | null>(null)
whenShown(shown, () => {
  problem.value = null
  Object.assign(form, store.job?.habits)
})
const wrong = (key: string) =>
  problem.value?.key?.split('.').includes(key) ? problem.value.detail : undefined

async function save() {
  const habits = Object.fromEntries(
    FIELDS.map(([key]) => [key, String(form[key]).trim() === '' ? null : Number(form[key])]),
  )
  problem.value = await store.edit([{ op: 'set_job', set: { habits } }], 'shop habits')
  if (!problem.value) shown.value = false
}
</script>

<template>
  <v-dialog aria-label="Shop habits" v-model="shown">
    <v-card class="pa-5">
      <h2>Shop habits</h2>
      <p class="mute">Common practice, no source. Where the code says more, the code is kept.</p>
      <form class="grid" @submit.prevent="save">
        <v-text-field
          v-for="[key, label] in FIELDS"
          :key="key"
          v-model="form[key]"
          :label="label"
          inputmode="decimal"
          :error-messages="wrong(key)"
        />
        <div class="buttons">
          <v-btn variant="text" @click="shown = false">Leave it</v-btn>
          <v-btn type="submit" variant="flat" color="ink">Set</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 10px;
}
.buttons {
  display: flex;
  gap: 6px;
  justify-content: end;
  align-items: end;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr;
  }
}
</style>
