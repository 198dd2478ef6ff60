<script setup lang="ts">
import { computed } from 'vue'

import type { RunSummary } from '../../api/client'
import SideNav from '../../parts/SideNav.vue'

/** Runs by the panel they hang on, the worst first in each group. */
const props = defineProps<{ summaries: RunSummary[]; current: string | null; metric: boolean }>()
const emit = defineEmits<{ look: [id: string]; add: [] }>()

const ORDER: Record<string, number> = { stop: 0, check: 1, fine: 2 }
const groups = computed(() => {
  const found = new Map<string, RunSummary[]>()
  for (const item of props.summaries) found.set(item.group, [...(found.get(item.group) ?? []), item])
  return [...found].map(([name, runs]) => ({
    name,
    runs: runs.toSorted(
      (a, b) =>
        (ORDER[a.verdict] ?? 2) - (ORDER[b.verdict] ?? 2) ||
        a.circuit.localeCompare(b.circuit, undefined, { numeric: true }),
    ),
  }))
})
const WORDS: Record<string, string> = { stop: 'stop', check: 'check', fine: 'fine' }
</script>

<template>
  <SideNav label="Runs">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <button
        v-for="run in group.runs"
        :key="run.id"
        type="button"
        class="plain side-row cols num"
        :class="{ here: run.id === current }"
        :aria-current="run.id === current"
        :data-run="run.id"
        @click="emit('look', run.id)"
      >
        <i :class="run.verdict" :title="WORDS[run.verdict]" />
        <span class="label">{{ run.circuit }}</span>
        <span class="name"
          >{{ run.name
          }}<small v-if="run.verdict !== 'fine'" :class="run.verdict">
            {{ run.stops ? `${run.stops} stop` : `${run.checks} to check` }}</small
          ></span
        >
        <span class="mute">{{
          metric ? `${Math.round(run.length_in * 0.0254)} m` : `${Math.round(run.length_in / 12)}′`
        }}</span>
      </button>
    </section>
    <button type="button" class="plain side-add num no-print" data-testid="add-run" @click="emit('add')">
      + New run
    </button>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 36px 1fr auto;
}
</style>
