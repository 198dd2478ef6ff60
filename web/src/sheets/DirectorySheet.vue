<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitSummary } from '../api/client'
import { useJob } from '../stores/job'

/** The directory for each panel's door: two columns of spaces as they stand, and the letters for both cable ends. */
const store = useJob()
const panels = computed(() =>
  (store.view?.doors ?? []).map((panel) => {
    const own = (store.viewOf('directory')?.circuits ?? []).filter((c) => c.panel === panel.id)
    const rows = Array.from({ length: panel.drawing.rows }, (_, row) => ({
      left: at(own, row * 2 + 1),
      right: at(own, row * 2 + 2),
      l: row * 2 + 1,
      r: row * 2 + 2,
    }))
    return { panel, rows, own: own.toSorted((a, b) => (a.space ?? 99) - (b.space ?? 99)) }
  }),
)
function at(own: CircuitSummary[], space: number) {
  return own
    .filter((c) => c.space === space || (c.poles === 2 && c.space === space - 2))
    .map(
      (c) =>
        `${c.half ? `${c.half}: ` : ''}${c.name}${c.space === space ? `, ${c.breaker_a} A` : ' (second pole)'}`,
    )
    .join(' / ')
}
const print = () => window.print()
</script>

<template>
  <div class="sheet-page" data-testid="directory">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/circuits`">Back to Circuits</router-link>
      <span class="gap" />
      <a v-if="store.view" :href="`/api/jobs/${store.view.id}/circuits.csv`">Save as CSV</a>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <section v-for="{ panel, rows, own } in panels" :key="panel.id">
      <h2>{{ panel.name }}, {{ store.job?.name }}</h2>
      <p class="mute">
        {{ panel.drawing.main_a ? `Main ${panel.drawing.main_a} A` : `Lugs, bus ${panel.drawing.bus_a} A` }}.
        {{ panel.drawing.words }}. Upper lugs stay live with the main off.
      </p>
      <table class="num door">
        <tbody>
          <tr v-for="row in rows" :key="row.l">
            <td class="n">{{ row.l }}</td>
            <td>{{ row.left }}</td>
            <td class="n">{{ row.r }}</td>
            <td>{{ row.right }}</td>
          </tr>
        </tbody>
      </table>
      <h3>Letters for both ends of each cable</h3>
      <p class="letters num">
        <span v-for="c in own" :key="c.id"
          >{{ c.label || '?' }} · {{ c.name.toUpperCase().slice(0, 24) }}</span
        >
      </p>
    </section>
    <p v-if="!panels.length" class="mute">No panel yet.</p>
  </div>
</template>

<style scoped>
section {
  max-width: 900px;
  margin-bottom: 26px;
  break-inside: avoid;
}
.door {
  width: 100%;
  border-collapse: collapse;
  border: 2px solid var(--ink);
  table-layout: fixed;
}
.door td {
  border: 1px solid var(--ink);
  padding: 4px 8px;
  height: 28px;
  font-size: 15px;
}
.n {
  width: 40px;
  text-align: center;
  font-weight: 600;
}
h3 {
  margin: 12px 0 4px;
}
.letters {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.letters span {
  border: 1px dashed var(--mute);
  padding: 2px 8px;
  font-weight: 600;
}
</style>
