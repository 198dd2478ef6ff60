<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type LogRow } from '../api/client'
import { useJob } from '../stores/job'
import { figure } from '../stages/test/window'
import { useSheet } from './useSheet'
import { inGroups } from '../parts/inGroups'

/** The readings to sign off, each with its window; what was not tested is said. */
const store = useJob()
const { data, loaded, print } = useSheet<LogRow[]>(
  (id) => ask(api.GET('/api/jobs/{job_id}/readings', { params: { path: { job_id: id } } })),
  [],
)
const all = ref(false)
const groups = computed(() =>
  inGroups(data.value, (row) => row.of)
    .map(([, rows]) => ({
      name: rows[0]?.name ?? '',
      read: rows.filter((row) => row.verdict !== 'not tested'),
      left: rows.filter((row) => row.verdict === 'not tested'),
    }))
    .filter((group) => all.value || group.read.length),
)
const untouched = computed(() => {
  const names = new Map<string, boolean>()
  for (const row of data.value)
    names.set(row.name, (names.get(row.name) ?? false) || row.verdict !== 'not tested')
  return [...names].filter(([, read]) => !read).map(([name]) => name)
})
const limits = (row: LogRow) =>
  row.low == null || row.high == null ? '' : `${figure(row.low)} to ${figure(row.high)} ${row.unit}`
</script>

<template>
  <div class="sheet-page" data-testid="log-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/test`">Back to Test</router-link>
      <span class="gap" />
      <v-btn size="small" variant="text" @click="all = !all">{{
        all ? 'Only what was read' : 'All steps'
      }}</v-btn>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: readings</h2>
    <p v-if="loaded && !groups.length" class="mute">Nothing was read yet: prove a circuit under Test.</p>
    <section v-for="group in groups" :key="group.name">
      <h3>{{ group.name }}</h3>
      <table v-if="group.read.length" class="num">
        <tbody>
          <tr v-for="(row, i) in group.read" :key="i" :class="row.verdict">
            <td>{{ row.title }}</td>
            <td class="r">
              <b>{{ row.reading }} {{ row.unit }}</b>
            </td>
            <td class="mute">{{ limits(row) }}</td>
            <td>{{ row.verdict === 'fine' ? 'in its window' : row.text }}</td>
            <td class="mute">
              {{
                [row.on, row.hour, row.who, row.meter === 'simulated' ? 'simulated' : '']
                  .filter(Boolean)
                  .join(' ')
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="group.left.length" class="mute">
        Not tested: {{ group.left.map((row) => row.title).join('; ') }}.
      </p>
    </section>
    <p v-if="untouched.length && groups.length" class="mute">
      <b>Nothing was read of:</b> {{ untouched.join(', ') }}.
    </p>
    <p v-if="groups.length" class="sign num">Read by ______________________ &nbsp; on ____________</p>
  </div>
</template>

<style scoped>
section {
  margin-top: 12px;
  break-inside: avoid;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 12px 3px 0;
  vertical-align: top;
  font-size: 14.5px;
}
.r {
  text-align: right;
  white-space: nowrap;
}
.stop td:nth-child(4) {
  color: var(--stop);
  font-weight: 600;
}
.sign {
  margin-top: 26px;
}
</style>
