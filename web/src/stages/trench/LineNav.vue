<script setup lang="ts">
import { computed } from 'vue'

import type { LineSummary } from '../../api/client'
import SideNav from '../../parts/SideNav.vue'

/** Trenches, spans, electrodes and holds, what holds the worst first in each. */
const props = defineProps<{ rows: LineSummary[]; here: string | null }>()
const emit = defineEmits<{ look: [row: LineSummary] }>()
const KINDS = [
  ['trench', 'Trenches'],
  ['span', 'Overhead'],
  ['ground', 'Electrodes'],
  ['hold', 'Holds'],
] as const
const groups = computed(() =>
  KINDS.map(([kind, name]) => ({ name, rows: props.rows.filter((row) => row.kind === kind) })).filter(
    (group) => group.rows.length,
  ),
)
</script>

<template>
  <SideNav label="Between buildings">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <button
        v-for="row in group.rows"
        :key="row.kind + row.id"
        type="button"
        class="plain side-row cols num"
        :class="{ here: row.id === here && row.kind !== 'hold' }"
        :aria-current="row.id === here && row.kind !== 'hold'"
        :data-line="`${row.kind}.${row.id}`"
        @click="emit('look', row)"
      >
        <i :class="row.verdict" :title="row.verdict" />
        <span class="name">{{ row.name }}</span>
        <span class="mute">{{ row.text }}</span>
      </button>
    </section>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 1fr auto;
}
</style>
