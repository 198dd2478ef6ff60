<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type QuoteView } from '../api/client'
import { money } from '../stages/buy/bars'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'

/** The quote in plain words; and the budget behind it, which is not printed with it. */
const store = useJob()
const { data, print } = useSheet<QuoteView | null>(async (id) => {
  const found = await ask(api.GET('/api/jobs/{job_id}/quote', { params: { path: { job_id: id } } }))
  return { data: found.data as QuoteView | undefined }
}, null)
const today = new Date().toLocaleDateString('en-US', { year: 'numeric', month: 'long', day: 'numeric' })
const by = ref<'stages' | 'structures' | 'rooms' | 'circuits'>('structures')
const NAMES = {
  stages: 'By stage',
  structures: 'By building',
  rooms: 'By room',
  circuits: 'By circuit',
} as const
const parts = computed(() => data.value?.[by.value] ?? [])
</script>

<template>
  <div class="sheet-page" data-testid="quote-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/buy`">Back to Buy</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <template v-if="data">
      <h2>{{ store.job?.name }}: electrical work</h2>
      <p class="mute num">{{ today }}</p>
      <table class="num quote">
        <tbody>
          <tr v-for="line in data.lines" :key="line.text">
            <td>{{ line.text }}</td>
            <td class="r">{{ money(line.dollars) }}</td>
          </tr>
          <tr>
            <td>Tax on material</td>
            <td class="r">{{ money(data.money.tax) }}</td>
          </tr>
          <tr class="all">
            <td>In all</td>
            <td class="r" data-testid="total">{{ money(data.money.total) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="data.one_more" class="num">
        One circuit more: about {{ money(data.one_more.now) }} now, {{ money(data.one_more.after) }} once the
        walls are shut.
      </p>
      <p class="mute words">{{ data.foot }}</p>
      <section class="no-print budget">
        <h3>For the shop: where it goes</h3>
        <p class="taps">
          <v-btn
            v-for="(name, key) in NAMES"
            :key="key"
            size="small"
            :variant="by === key ? 'flat' : 'outlined'"
            :color="by === key ? 'ink' : undefined"
            :aria-pressed="by === key"
            @click="by = key"
            >{{ name }}</v-btn
          >
        </p>
        <table class="num">
          <thead>
            <tr>
              <th>part</th>
              <th class="r">material</th>
              <th class="r">hours</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="part in parts" :key="part.key">
              <td>{{ part.name }}</td>
              <td class="r">{{ money(part.material) }}</td>
              <td class="r">{{ part.hours.toFixed(1) }} h</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
table {
  max-width: 720px;
}
td,
th {
  padding: 6px 8px 6px 0;
}
td {
  border-top: 1px solid var(--rule);
}
td:last-child,
th:last-child {
  padding-right: 0;
}
.r {
  text-align: right;
}
.all td {
  border-top: 2px solid var(--ink);
  font-size: 19px;
  font-weight: 600;
}
.words {
  max-width: 660px;
}
.budget {
  max-width: 720px;
  margin-top: 26px;
  border-top: 2px solid var(--rule);
  padding-top: 8px;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
