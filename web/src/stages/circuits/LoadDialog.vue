<script setup lang="ts">
import type { Edit, PanelPlan, Problem } from '../../api/client'

/** The load calculation of a panel, step by step, by the method chosen for it. */
const props = defineProps<{
  panel: PanelPlan
  act: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const shown = defineModel<boolean>({ required: true })
const kva = (va: number) => `${Math.round(va).toLocaleString('en-US')} VA`
const method = (value: string) =>
  props.act(
    [{ op: 'set', kind: 'panel', id: props.panel.id, set: { calculation: value } }],
    `${value} calculation`,
  )
</script>

<template>
  <v-dialog aria-label="Calculated load" v-model="shown" max-width="680">
    <v-card class="pa-5" data-testid="load">
      <h2>{{ panel.name }}, {{ panel.load.method }} calculation</h2>
      <v-btn-toggle
        v-if="panel.load.method !== 'feeder'"
        :model-value="panel.load.method"
        mandatory
        density="compact"
        class="my-2"
        @update:model-value="method"
      >
        <v-btn value="standard">standard</v-btn>
        <v-btn value="optional">optional</v-btn>
      </v-btn-toggle>
      <table class="num">
        <thead>
          <tr>
            <th>step</th>
            <th>connected</th>
            <th>share</th>
            <th>counted</th>
            <th>section</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(step, i) in panel.load.steps" :key="i">
            <td>{{ step.name }}</td>
            <td>{{ kva(step.connected_va) }}</td>
            <td>{{ step.percent.toFixed(0) }} %</td>
            <td>
              <b>{{ kva(step.counted_va) }}</b>
            </td>
            <td class="mute">{{ step.section }}</td>
          </tr>
          <tr class="sum">
            <td>Line, at 240 V</td>
            <td></td>
            <td></td>
            <td>
              <b>{{ kva(panel.load.total_va) }}</b>
            </td>
            <td>
              <b>{{ panel.load.amps.toFixed(1) }} A</b>
            </td>
          </tr>
          <tr>
            <td>Neutral</td>
            <td></td>
            <td></td>
            <td>{{ kva(panel.load.neutral_va) }}</td>
            <td>{{ panel.load.neutral_a.toFixed(1) }} A</td>
          </tr>
        </tbody>
      </table>
      <p v-for="note in panel.load.notes" :key="note" class="mute">{{ note }}</p>
      <p class="mute">{{ panel.load.rule }}, from memory. Nameplates decide over the usual watts.</p>
      <div class="d-flex justify-end"><v-btn variant="text" @click="shown = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
th {
  text-align: left;
  color: var(--mute);
  font-weight: 600;
}
td,
th {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid var(--rule);
}
.sum td {
  border-top: 2px solid var(--ink);
}
</style>
