<script setup lang="ts">
import { computed } from 'vue'

import type { PipeRow } from '../../api/client'
import { feetText } from '../../parts/planScale'
import SideNav from '../../parts/SideNav.vue'

/** Every pull of pipe under what it carries, what holds the worst first. */
const props = defineProps<{ rows: PipeRow[]; way: string | null; index: number | null; metric: boolean }>()
const emit = defineEmits<{ look: [row: PipeRow] }>()
const groups = computed(() => {
  const found = new Map<string, PipeRow[]>()
  for (const row of props.rows) found.set(row.group, [...(found.get(row.group) ?? []), row])
  return [...found].map(([name, rows]) => ({ name, rows }))
})
const here = (row: PipeRow) => row.way === props.way && row.index === props.index
</script>

<template>
  <SideNav label="Pulls of pipe">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <button
        v-for="row in group.rows"
        :key="`${row.way}.${row.index}`"
        type="button"
        class="plain side-row cols num"
        :class="{ here: here(row) }"
        :aria-current="here(row)"
        :data-pull="`${row.way}.${row.index + 1}`"
        @click="emit('look', row)"
      >
        <i :class="row.verdict" :title="row.verdict" />
        <span class="name">{{ row.name }}<small v-if="row.drawn" class="mute"> by the frame</small></span>
        <span class="mute">{{ feetText(row.length_in, metric) }}</span>
      </button>
    </section>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 1fr auto;
}
small {
  display: inline;
  font-weight: 500;
}
</style>
