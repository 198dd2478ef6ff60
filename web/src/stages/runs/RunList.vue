<script setup lang="ts">
import { computed } from 'vue'

import type { RunSummary } from '../../api/client'

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
  <nav class="list" aria-label="Runs">
    <section v-for="group in groups" :key="group.name">
      <h3 class="caps">{{ group.name }}</h3>
      <button
        v-for="run in group.runs"
        :key="run.id"
        type="button"
        class="plain row num"
        :class="{ here: run.id === current }"
        :aria-current="run.id === current"
        :data-run="run.id"
        @click="emit('look', run.id)"
      >
        <i :class="run.verdict" :title="WORDS[run.verdict]" />
        <span class="circuit">{{ run.circuit }}</span>
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
    <button type="button" class="plain add num no-print" data-testid="add-run" @click="emit('add')">
      + New run
    </button>
  </nav>
</template>

<style scoped>
.list {
  padding: 12px 0;
}
h3 {
  padding: 8px 12px 5px;
}
.row {
  display: grid;
  grid-template-columns: 6px 36px 1fr auto;
  gap: 0 7px;
  align-items: start;
  width: 100%;
  padding: 6px 12px 6px 9px;
  border-left: 3px solid transparent;
  font-size: 15.5px;
  font-weight: 500;
}
.row:hover {
  background: var(--note-wash);
}
.here {
  background: var(--card);
  border-left-color: var(--lime);
}
i {
  width: 6px;
  height: 19px;
  border-radius: 3px;
  background: var(--fine);
}
i.stop {
  background: var(--stop);
}
i.check {
  background: var(--check-mark);
}
.circuit {
  font-weight: 600;
  white-space: nowrap;
}
small {
  display: block;
  font-size: 13px;
  font-weight: 600;
}
small.stop {
  color: var(--stop);
}
small.check {
  color: var(--check);
}
.add {
  margin: 8px 12px;
  padding: 6px 10px;
  border: 1px dashed var(--mute);
  border-radius: 4px;
  color: var(--chalk);
  font-weight: 600;
}
</style>
