<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'

/** An address that is none of ours, or a job that is gone. */
defineProps<{ why?: string }>()
const store = useJob()
/** The job of the address where there is one, else the last that was open. */
const job = computed(() => store.view ?? store.jobs[0])
const open = () => job.value && void store.open(job.value.id)
</script>

<template>
  <section class="nowhere" data-testid="nowhere">
    <h2>Nothing stands here</h2>
    <p>{{ why ?? 'This address is none that Level Run knows.' }}</p>
    <v-btn v-if="job" variant="flat" color="ink" @click="open">Open {{ job.name }}</v-btn>
  </section>
</template>

<style scoped>
.nowhere {
  padding: 60px 24px;
  text-align: center;
}
h2 {
  font-size: 22px;
}
</style>
