<script setup lang="ts">
import { computed } from 'vue'

import type { TestRow } from '../../api/client'
import NavRow from '../../parts/NavRow.vue'
import SideNav from '../../parts/SideNav.vue'
import { inGroups } from '../../parts/inGroups'

/** What is proved, by panel: how far each has got. */
const props = defineProps<{ rows: TestRow[]; here: string | null }>()
const emit = defineEmits<{ look: [id: string] }>()
const groups = computed(() =>
  inGroups(props.rows, (row) => row.group).map(([name, rows]) => ({ name, rows })),
)
</script>

<template>
  <SideNav label="Circuits and panels">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <NavRow
        v-for="row in group.rows"
        :key="row.id"
        :name="row.name"
        :text="`${row.done} of ${row.of}`"
        :verdict="row.verdict || 'none'"
        :here="row.id === here"
        :data-test="row.id"
        @click="emit('look', row.id)"
      />
    </section>
  </SideNav>
</template>
