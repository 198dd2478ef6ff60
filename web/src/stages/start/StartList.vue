<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { api, ask } from '../../api/client'
import SideNav from '../../parts/SideNav.vue'
import { useJob } from '../../stores/job'
import { useNotice } from '../../stores/notice'

/** Beside the first page: the circuits of this job, other jobs, and what a job may begin from. */
const store = useJob()
const notice = useNotice()
const samples = ref<{ key: string; name: string }[]>([])

onMounted(async () => {
  const { data } = await ask(api.GET('/api/jobs/samples'))
  if (data) samples.value = data
})
async function open(id: string) {
  if (id !== store.view?.id) await store.open(id)
}
async function begin(sample: string) {
  const problem = await store.create({ sample })
  if (problem) notice.tell(problem.detail, 'stop')
}
</script>

<template>
  <SideNav label="Jobs and circuits">
    <section v-if="store.viewOf('runs')?.circuits?.length">
      <h2 class="caps">In this job</h2>
      <button
        v-for="row in store.viewOf('runs')?.circuits"
        :key="row.id"
        type="button"
        class="plain side-row cols num"
        :data-started="row.name"
        @click="store.lookThread(row.id)"
      >
        <i :class="row.verdict" />
        <span class="label">{{ row.label || '–' }}</span>
        <span>{{ row.name }}</span>
      </button>
    </section>
    <section>
      <h2 class="caps">Jobs</h2>
      <button
        v-for="job in store.jobs"
        :key="job.id"
        type="button"
        class="plain side-row wide"
        :class="{ here: job.id === store.view?.id }"
        :aria-current="job.id === store.view?.id"
        @click="open(job.id)"
      >
        {{ job.name }}
      </button>
    </section>
    <section>
      <h2 class="caps">Start from</h2>
      <button
        v-for="item in samples"
        :key="item.key"
        type="button"
        class="plain side-row wide"
        @click="begin(item.key)"
      >
        {{ item.name }}
      </button>
    </section>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px minmax(34px, auto) 1fr;
}
.wide {
  display: block;
}
</style>
