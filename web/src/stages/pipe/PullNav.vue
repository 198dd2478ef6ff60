<script setup lang="ts">
import { computed } from 'vue'

import type { PipeRow } from '../../api/client'
import { feetText } from '../../parts/planScale'
import NavRow from '../../parts/NavRow.vue'
import SideNav from '../../parts/SideNav.vue'
import { inGroups } from '../../parts/inGroups'

/** Every pull of pipe under what it carries, what holds the worst first. */
const props = defineProps<{ rows: PipeRow[]; way: string | null; index: number | null; metric: boolean }>()
const emit = defineEmits<{ look: [row: PipeRow] }>()
const groups = computed(() =>
  inGroups(props.rows, (row) => row.group).map(([name, rows]) => ({ name, rows })),
)
const here = (row: PipeRow) => row.way === props.way && row.index === props.index
</script>

<template>
  <SideNav label="Pulls of pipe">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <NavRow
        v-for="row in group.rows"
        :key="`${row.way}.${row.index}`"
        :name="row.name"
        :note="row.drawn ? 'by the frame' : ''"
        :text="feetText(row.length_in, metric)"
        :verdict="row.verdict"
        :here="here(row)"
        :data-pull="`${row.way}.${row.index + 1}`"
        @click="emit('look', row)"
      />
    </section>
  </SideNav>
</template>
