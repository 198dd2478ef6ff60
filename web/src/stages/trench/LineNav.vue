<script setup lang="ts">
import { computed } from 'vue'

import type { LineSummary, Walked } from '../../api/client'
import NavRow from '../../parts/NavRow.vue'
import SideNav from '../../parts/SideNav.vue'

/** Trenches, spans, electrodes and holds, what holds the worst first in each. */
const props = defineProps<{ rows: LineSummary[]; walked: Walked[]; here: string | null }>()
const emit = defineEmits<{ look: [row: LineSummary]; say: [text: string] }>()
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
      <NavRow
        v-for="row in group.rows"
        :key="row.kind + row.id"
        :name="row.name"
        :text="row.text"
        :verdict="row.verdict"
        :here="row.id === here && row.kind !== 'hold'"
        :data-line="`${row.kind}.${row.id}`"
        @click="emit('look', row)"
      />
    </section>
    <section v-if="walked.length">
      <h2 class="caps">Walked, not on the yard</h2>
      <button
        v-for="way in walked"
        :key="way.way"
        type="button"
        class="plain side-add num no-print"
        :title="way.text"
        :data-walked="way.way"
        @click="emit('say', way.text)"
      >
        + Put {{ way.name }} there, {{ way.long_text }}
      </button>
    </section>
  </SideNav>
</template>
