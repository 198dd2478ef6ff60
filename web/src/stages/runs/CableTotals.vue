<script setup lang="ts">
import type { PullTotal } from '../../api/client'
import { feetText } from '../../parts/planScale'

/** All cable of the job by kind, live, and the way to the list that it is pulled from. */
defineProps<{ totals: PullTotal[]; job: string; metric: boolean }>()
</script>

<template>
  <p v-if="totals.length" class="totals num" data-testid="totals">
    <RouterLink :to="`/jobs/${job}/sheets/pull-list`" class="no-print">Pull list</RouterLink>
    <RouterLink :to="`/jobs/${job}/sheets/drilling`" class="no-print">Drilling sheet</RouterLink>
    <span v-for="one in totals" :key="one.item" :title="one.text">
      <b>{{ feetText(one.cut_in, metric) }}</b> {{ one.item }}
    </span>
  </p>
</template>

<style scoped>
.totals {
  display: flex;
  gap: 4px 16px;
  flex-wrap: wrap;
  margin: 0;
  padding: 6px 12px;
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
  max-height: 74px;
  overflow-y: auto;
}
a {
  color: var(--chalk);
  font-weight: 600;
}
</style>
