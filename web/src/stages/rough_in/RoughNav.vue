<script setup lang="ts">
import { computed } from 'vue'

import type { LooseRow, SurfaceRow } from '../../api/client'
import NavRow from '../../parts/NavRow.vue'
import SideNav from '../../parts/SideNav.vue'
import { grouped, keyOf } from './record'

/** Every surface with something in it, by room; then panels, and boxes in no drawn room. */
const props = defineProps<{
  rows: SurfaceRow[]
  loose: LooseRow[]
  here: string | null
  node: string | null
}>()
const emit = defineEmits<{ look: [key: string]; node: [id: string] }>()
const groups = computed(() => grouped(props.rows))
const told = (row: SurfaceRow) =>
  row.closed ? 'closed' : row.photos ? `${row.photos} ${row.photos === 1 ? 'photo' : 'photos'}` : ''
</script>

<template>
  <SideNav label="Walls">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <NavRow
        v-for="row in group.rows"
        :key="keyOf(row)"
        :name="row.name"
        :note="told(row)"
        :text="`${row.made} of ${row.boxes}`"
        :verdict="row.verdict"
        :here="keyOf(row) === here"
        :data-wall="keyOf(row)"
        @click="emit('look', keyOf(row))"
      />
    </section>
    <section v-if="loose.length">
      <h2 class="caps">Panels, and in no drawn room</h2>
      <NavRow
        v-for="row in loose"
        :key="row.node"
        :name="row.name"
        :note="row.where"
        :text="row.made ? 'made up' : 'open'"
        :verdict="row.made ? 'fine' : 'check'"
        :here="row.node === node && !here"
        :data-node="row.name"
        @click="emit('node', row.node)"
      />
    </section>
  </SideNav>
</template>
