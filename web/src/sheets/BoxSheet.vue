<script setup lang="ts">
import { computed } from 'vue'

import { api, ask, type ScheduleRow } from '../api/client'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'
import { inGroups } from '../parts/inGroups'

/** The box schedule as a sheet to print and carry: room by room, each box as it is set on the frame. */
const store = useJob()
const {
  data: rows,
  loaded,
  print,
} = useSheet<ScheduleRow[]>(
  (id) => ask(api.GET('/api/jobs/{job_id}/boxes', { params: { path: { job_id: id } } })),
  [],
)

const rooms = computed(() =>
  inGroups(rows.value, (row) => `${row.structure}, ${row.level.toLowerCase()}: ${row.room}`),
)
</script>

<template>
  <div class="sheet-page" data-testid="box-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/boxes`">Back to Boxes</router-link>
      <span class="gap" />
      <a v-if="store.view" :href="`/api/jobs/${store.view.id}/boxes.csv`">Save as CSV</a>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: box schedule</h2>
    <p class="mute">
      From the left corner as you face the wall, to the middle of the box. Ceiling boxes: the two readings are
      their floor mark too, so that they are found after the board is up. A plan, not a permit: the local
      authority decides.
    </p>
    <p v-if="loaded && !rows.length" class="mute">No box stands in a room yet.</p>
    <section v-for="[name, list] in rooms" :key="name">
      <h3>{{ name }}</h3>
      <table class="num">
        <thead>
          <tr>
            <th>box</th>
            <th>kind</th>
            <th>wall</th>
            <th>from left corner</th>
            <th>nailed to</th>
            <th>bottom</th>
            <th>top</th>
            <th>box</th>
            <th>depth</th>
            <th>set out</th>
            <th>circuit</th>
            <th>marked</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in list" :key="row.id">
            <td>
              <b>{{ row.box }}</b>
            </td>
            <td>{{ row.kind }}</td>
            <td>{{ row.wall }}</td>
            <td>{{ row.from_left_corner }}</td>
            <td>{{ row.nailed_to }}</td>
            <td>{{ row.bottom }}</td>
            <td>{{ row.top }}</td>
            <td>{{ row.box_model }}</td>
            <td>{{ row.depth }}</td>
            <td>{{ row.set_out }}</td>
            <td>{{ row.circuit }}</td>
            <td class="tick">{{ row.marked ? '✓' : '☐' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
h3 {
  margin: 18px 0 4px;
}
table {
  font-size: 14px;
}
th,
td {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.tick {
  font-size: 16px;
}
@media print {
  section {
    break-inside: avoid;
  }
  td,
  th {
    font-size: 11px;
    padding-right: 6px;
  }
}
</style>
