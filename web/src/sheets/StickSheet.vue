<script setup lang="ts">
import StickDrawing from '../stages/pipe/StickDrawing.vue'
import { useJob } from '../stores/job'
import { usePulls } from './useSheet'

/** The stick sheet: a pull a page, its sticks with every mark, its bends, the order of work. */
const store = useJob()
const { data, loaded, print } = usePulls()
</script>

<template>
  <div class="sheet-page" data-testid="stick-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/pipe`">Back to Pipe</router-link>
      <span class="gap" />
      <a :href="`/api/jobs/${store.view?.id}/cut-list.csv`" download>Cut list as CSV</a>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: sticks</h2>
    <p class="mute">
      Marks from the left end of each piece, to the eighth. Arrow at the near end of the bend, star at the
      back of a 90°, rim notch at the middle; plastic is heated from mark to mark. Try the first on a scrap:
      benders and fittings differ.
    </p>
    <p v-if="loaded && !data.some((pull) => pull.drawing)" class="mute">No pipe that comes in sticks yet.</p>
    <template v-for="pull in data" :key="`${pull.summary.way}.${pull.summary.index}`">
      <section v-if="pull.drawing" :data-pull="`${pull.summary.way}.${pull.summary.index + 1}`">
        <h3>
          {{ pull.summary.way_name }}: {{ pull.summary.name }}
          <span class="mute num">{{ pull.pipe }}, {{ pull.summary.length_text }}</span>
        </h3>
        <StickDrawing :drawing="pull.drawing" :picked="null" />
        <ol>
          <li v-for="step in pull.order" :key="step">{{ step }}</li>
        </ol>
      </section>
    </template>
  </div>
</template>

<style scoped>
section {
  max-width: 900px;
  margin-top: 18px;
}
ol {
  font-size: 14.5px;
  padding-left: 22px;
}
@media print {
  section {
    break-after: page;
    margin: 0;
  }
}
</style>
