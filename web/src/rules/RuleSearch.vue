<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'

import { api, ask, type Entry } from '../api/client'
import { useJob } from '../stores/job'
import { useRules } from '../stores/rules'

/** Every number and row of the rule set, found by section or by word. */
const store = useJob()
const rules = useRules()
const found = ref<Entry[]>([])
let asked = 0

async function look() {
  const mine = ++asked
  const id = store.view?.id
  const query = { q: rules.query }
  const { data } = id
    ? await ask(api.GET('/api/jobs/{job_id}/entries', { params: { path: { job_id: id }, query } }))
    : await ask(api.GET('/api/rules/{rules}/entries', { params: { path: { rules: 'us-2023' }, query } }))
  if (data && mine === asked) found.value = data
}
watch(() => rules.query, look)
onMounted(look)
</script>

<template>
  <v-text-field
    v-model="rules.query"
    label="Section or word"
    placeholder="staple, driveway, 300.5"
    autofocus
    clearable
    data-testid="rule-search"
    @update:model-value="rules.query = $event ?? ''"
  />
  <p class="mute count">
    {{ found.length >= 80 ? 'The first 80' : found.length }} {{ found.length === 1 ? 'entry' : 'entries' }}
  </p>
  <ul data-testid="entries">
    <li v-for="(entry, i) in found" :key="i">
      <div class="num line">
        <b>{{ entry.name }}</b>
        <span class="mute">{{ entry.section === entry.text ? '' : entry.section }}</span>
      </div>
      <div class="num">{{ entry.value }}</div>
      <p class="mute">
        {{ entry.text
        }}<template v-if="entry.source && !entry.source.includes(entry.text)"> · {{ entry.source }}</template>
        · {{ entry.basis }}<template v-if="entry.check"> · checked: {{ entry.check }}</template
        ><template v-if="entry.doubt"> · not sure of: {{ entry.doubt }}</template>
      </p>
    </li>
  </ul>
</template>

<style scoped>
.count {
  margin: 6px 0 2px;
  font-size: 14px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
p {
  margin: 1px 0 0;
  font-size: 14px;
}
</style>
