<script setup lang="ts">
import { useJob } from '../stores/job'

/** An address that is none of ours, or a job that is gone. */
defineProps<{ why?: string }>()
const store = useJob()
const open = () => {
  const first = store.jobs[0]
  if (first) void store.open(first.id)
}
</script>

<template>
  <section class="nowhere" data-testid="nowhere">
    <h2>Nothing stands here</h2>
    <p>{{ why ?? 'This address is none that Level Run knows.' }}</p>
    <v-btn v-if="store.jobs.length" variant="flat" color="ink" @click="open">
      Open {{ store.jobs[0]?.name }}
    </v-btn>
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
