<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Problem } from '../../api/client'
import FileLink from '../../parts/FileLink.vue'
import { postFile } from '../../api/upload'
import { useJob } from '../../stores/job'
import { useNotice } from '../../stores/notice'

/** What is on the truck already: it is used first. */
const props = defineProps<{
  rows: { item: string; amount: number; why: string }[]
  job: string
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const store = useJob()
const notice = useNotice()
const stock = computed(() => store.job?.stock ?? [])
const cut = (item: string) => /^\d.*(NM-B|UF-B|MC|AC|SER|USE|THWN|XHHW|quadplex|copper|wire)/.test(item)
const drop = (id: string) => props.edit([{ op: 'drop', kind: 'stock', id } as Edit], 'off the truck')
async function bring(file: File) {
  const { data, problem } = await postFile<{ edits: Edit[]; label: string }>('/api/csv/truck', file)
  if (problem) notice.tell(problem.detail, 'stop')
  if (data) await props.edit(data.edits, data.label)
}
</script>

<template>
  <section class="truck">
    <h3>On the truck</h3>
    <p class="mute">
      Used before anything is bought. Say it below: <b>have 60' of 14-2</b>, <b>have 12 of box single-18</b>.
    </p>
    <table class="num">
      <tbody>
        <tr v-for="part in stock" :key="part.id">
          <td>{{ part.item }}</td>
          <td class="r">{{ part.amount }}{{ cut(part.item) ? '′' : '' }}</td>
          <td class="mute">{{ part.remarks }}</td>
          <td class="r">
            <v-btn size="small" variant="text" :aria-label="`Take off ${part.item}`" @click="drop(part.id)"
              >Take off</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="files num">
      <a :href="`/api/jobs/${job}/truck.csv`" download>Truck after this job, as CSV</a>
      <FileLink text="Truck from CSV" label="Truck from CSV" accept=".csv,text/csv" @file="bring" />
    </p>
  </section>
</template>

<style scoped>
.truck {
  padding: 9px 14px 12px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 10px 3px 0;
}
.r {
  text-align: right;
}
.files {
  display: flex;
  gap: 18px;
  margin-top: 8px;
}
.files a {
  color: var(--chalk);
  text-decoration: underline;
  cursor: pointer;
}
</style>
