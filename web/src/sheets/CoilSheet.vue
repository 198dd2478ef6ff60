<script setup lang="ts">
import { computed } from 'vue'

import { api, ask, type ListView } from '../api/client'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'

/** A card to tape on each coil: its cuts in the order they are pulled, longest first, each with its letter. */
const store = useJob()
const { data, loaded, print } = useSheet<ListView | null>(async (id) => {
  const found = await ask(api.GET('/api/jobs/{job_id}/list', { params: { path: { job_id: id } } }))
  return { data: found.data as ListView | undefined }
}, null)
const cards = computed(() =>
  (data.value?.cards ?? []).flatMap((sheet) => [
    ...sheet.bars.map((bar, i) => ({
      key: `${sheet.item} ${i}`,
      item: sheet.item,
      title: `${bar.title} coil ${i + 1} of ${sheet.bars.length}${bar.have ? ', on the truck' : ''}`,
      cuts: bar.cuts,
      left: bar.left_text,
    })),
    ...(sheet.by_foot.length
      ? [{ key: `${sheet.item} foot`, item: sheet.item, title: 'by the foot', cuts: sheet.by_foot, left: '' }]
      : []),
  ]),
)
</script>

<template>
  <div class="sheet-page" data-testid="coil-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/buy`">Back to Buy</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: coil cards</h2>
    <p class="mute">One on each coil. Pull from the top: longest first. Letter both ends before you strip.</p>
    <p v-if="loaded && !cards.length" class="mute">No cable yet: chain boxes on a circuit first.</p>
    <div class="cards">
      <article v-for="card in cards" :key="card.key" class="num">
        <h3>
          {{ card.item }} <span class="mute">{{ card.title }}</span>
        </h3>
        <table>
          <tbody>
            <tr v-for="(cut, i) in card.cuts" :key="i">
              <td class="box">☐</td>
              <td>
                <b>{{ cut.label }}</b>
              </td>
              <td class="r">{{ cut.text }}</td>
            </tr>
          </tbody>
        </table>
        <p class="mute">{{ card.left }}</p>
      </article>
    </div>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 12px;
  align-items: start;
}
article {
  border: 1.5px dashed var(--mute);
  padding: 8px 12px;
  break-inside: avoid;
}
h3 span {
  font-size: 14px;
  font-weight: 500;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 6px 3px 0;
  font-size: 15.5px;
}
.box {
  width: 24px;
}
.r {
  text-align: right;
}
article p {
  margin: 4px 0 0;
}
</style>
