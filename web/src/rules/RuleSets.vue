<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { api, ask, type Change, type RuleSet } from '../api/client'
import { useJob } from '../stores/job'
import { useNotice } from '../stores/notice'

/** Choose the rule set; see first what would come and what would go. */
const store = useJob()
const notice = useNotice()
const sets = ref<RuleSet[]>([])
const chosen = ref<RuleSet['key'] | null>(null)
const changes = ref<Change[] | null>(null)

onMounted(async () => {
  const { data } = await ask(api.GET('/api/rules'))
  if (data) sets.value = data
})

async function compare(key: string) {
  chosen.value = key
  changes.value = null
  const id = store.view?.id
  if (!id || key === store.job?.rules) return
  const { data, problem } = await ask(
    api.GET('/api/jobs/{job_id}/compare', {
      params: { path: { job_id: id }, query: { rules: key as 'us-2023' } },
    }),
  )
  if (problem) notice.tell(problem.detail, 'stop')
  else changes.value = data
}

async function change() {
  const set = sets.value.find((item) => item.key === chosen.value)
  const problem = await store.edit([{ op: 'set_job', set: { rules: chosen.value } }], `rules ${set?.title}`)
  if (problem) notice.tell(problem.detail, 'stop')
  else notice.tell(`This job now goes by ${set?.title}.`, 'fine', { label: 'Undo', act: store.undo })
}
</script>

<template>
  <p class="mute">The authority says which edition counts here. Ring them before you choose.</p>
  <button
    v-for="set in sets"
    :key="set.key"
    type="button"
    class="plain set"
    :class="{ here: set.key === store.job?.rules, chosen: set.key === chosen }"
    :data-set="set.key"
    @click="compare(set.key)"
  >
    <b class="num">{{ set.title }}</b>
    <span v-if="set.key === store.job?.rules" class="num now">now</span>
    <span class="mute">{{ set.long_title }}{{ set.units === 'metric' ? '. Metric.' : '' }}</span>
  </button>
  <div v-if="changes" data-testid="changes">
    <div class="head">
      <h3>{{ changes.length ? 'What would change' : 'No stop and no check would change' }}</h3>
      <v-btn variant="flat" color="ink" @click="change"
        >Go by {{ sets.find((s) => s.key === chosen)?.title }}</v-btn
      >
    </div>
    <ul>
      <li v-for="(c, i) in changes" :key="i" :class="c.side">
        <b class="num">{{ c.side }}</b>
        <span
          >{{ c.name }}{{ c.leg === null ? '' : `, leg ${c.leg + 1}` }}: {{ c.title }}
          <span class="mute">· {{ c.severity }} · {{ c.section }}</span></span
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.set {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 8px;
  width: 100%;
  padding: 8px 10px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  margin-bottom: 7px;
}
.set .mute {
  grid-column: 1 / -1;
  font-size: 14px;
}
.chosen {
  border-color: var(--chalk);
}
.now {
  color: var(--chalk);
  font-weight: 600;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-top: 10px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0 12px;
}
li {
  display: grid;
  grid-template-columns: 58px 1fr;
  border-top: 1px solid var(--rule);
  padding: 4px 0;
}
.comes b {
  color: var(--stop);
}
.goes b {
  color: var(--fine);
}
</style>
