<script setup lang="ts">
import { computed } from 'vue'

import { api, ask, type PhotoRow } from '../api/client'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'
import { inGroups } from '../parts/inGroups'

/** Every photo by place and time. */
const store = useJob()
const { data, loaded, print } = useSheet<PhotoRow[]>(
  (id) => ask(api.GET('/api/jobs/{job_id}/photos', { params: { path: { job_id: id } } })),
  [],
)
const groups = computed(() =>
  inGroups(data.value, (row) => row.place).map(([place, rows]) => ({ place, rows })),
)
const file = (row: PhotoRow, size: string) => `/api/jobs/${store.view?.id}/photos/${row.id}/${size}.jpg`
const told = (row: PhotoRow) =>
  [row.text, [row.on, row.hour].filter(Boolean).join(' '), row.who, row.remarks].filter(Boolean).join(' · ')
</script>

<template>
  <div class="sheet-page" data-testid="photo-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/rough_in`">Back to Rough-in</router-link>
      <span class="gap" />
      <a v-if="data.length" :href="`/api/jobs/${store.view?.id}/photos.zip`" download>All as one archive</a>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: {{ data.length }} photos</h2>
    <p v-if="loaded && !data.length" class="mute">No photo yet: add one at a wall under Rough-in.</p>
    <section v-for="group in groups" :key="group.place">
      <h3>{{ group.place }}</h3>
      <div class="row">
        <figure v-for="row in group.rows" :key="row.id">
          <p v-if="row.missing" class="mute gone">The picture is not on this machine.</p>
          <a v-else :href="file(row, 'large')" target="_blank" rel="noopener"
            ><img :src="file(row, 'small')" loading="lazy" :alt="`${row.place}, ${told(row)}`"
          /></a>
          <figcaption class="num">{{ told(row) }}</figcaption>
        </figure>
      </div>
    </section>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 12px;
  margin: 6px 0 16px;
}
section {
  content-visibility: auto;
  contain-intrinsic-size: auto 240px;
}
figure {
  margin: 0;
  break-inside: avoid;
}
img,
.gone {
  display: block;
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border: 1px solid var(--ink);
}
.gone {
  padding: 20px;
  margin: 0;
}
figcaption {
  font-size: 14px;
  padding-top: 3px;
}
@media print {
  section {
    content-visibility: visible;
  }
}
</style>
