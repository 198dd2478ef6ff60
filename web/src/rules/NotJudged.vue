<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { api, ask, type NotJudged } from '../api/client'
import { useJob } from '../stores/job'

/** What no finding speaks of: silence here is no yes. */
const store = useJob()
const found = ref<NotJudged[]>([])

onMounted(async () => {
  const rules = store.view?.rules ?? 'us-2023'
  const { data } = await ask(api.GET('/api/rules/{rules}/not-judged', { params: { path: { rules } } }))
  if (data) found.value = data
})
</script>

<template>
  <p class="lead">Silence on these is no yes. Ask the authority, or a licensed electrician.</p>
  <ul data-testid="not-judged">
    <li v-for="item in found" :key="item.topic">
      <div class="num line">
        <b>{{ item.topic }}</b>
        <span class="mute">{{ item.section }}</span>
      </div>
      <p class="mute">{{ item.text }}</p>
    </li>
  </ul>
</template>

<style scoped>
.lead {
  margin: 0 0 8px;
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
li p {
  margin: 1px 0 0;
  font-size: 14px;
}
</style>
