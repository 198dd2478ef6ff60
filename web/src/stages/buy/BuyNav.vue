<script setup lang="ts">
import { computed } from 'vue'

import type { BuyRow, ShelfSum } from '../../api/client'
import NavRow from '../../parts/NavRow.vue'
import SideNav from '../../parts/SideNav.vue'
import { money } from './bars'

/** What the job takes: cable, pipe and wire by kind, the rest by shelf, what is on the truck. */
const props = defineProps<{ rows: BuyRow[]; shelves: ShelfSum[]; here: string | null; truck: number }>()
const emit = defineEmits<{ look: [item: string] }>()
const GROUPS = [
  ['cable', 'By cable'],
  ['pipe', 'By pipe'],
  ['wire', 'Wire for pipe'],
] as const
const rank = { stop: 0, check: 1, fine: 2 } as Record<string, number>
const groups = computed(() =>
  GROUPS.map(([shelf, name]) => ({
    name,
    rows: props.rows
      .filter((row) => row.shelf === shelf)
      .sort((a, b) => (rank[a.verdict] ?? 2) - (rank[b.verdict] ?? 2)),
  })).filter((group) => group.rows.length),
)
const parts = computed(() => props.shelves.filter((one) => !GROUPS.some(([shelf]) => shelf === one.shelf)))
</script>

<template>
  <SideNav label="What the job takes">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <NavRow
        v-for="row in group.rows"
        :key="row.item"
        :name="row.item.replace(' stick', '')"
        :text="row.amount.replace(/ sticks?$/, '')"
        :verdict="row.verdict"
        :here="row.item === here"
        :data-item="row.item"
        @click="emit('look', row.item)"
      />
    </section>
    <section v-if="parts.length">
      <h2 class="caps">Parts</h2>
      <NavRow
        v-for="one in parts"
        :key="one.shelf"
        :name="one.name"
        :text="money(one.dollars)"
        :verdict="one.verdict"
        :here="`shelf ${one.shelf}` === here"
        :data-item="`shelf ${one.shelf}`"
        @click="emit('look', `shelf ${one.shelf}`)"
      />
    </section>
    <section v-if="rows.length">
      <h2 class="caps">On the truck</h2>
      <NavRow
        name="Have already"
        :text="`${truck} row${truck === 1 ? '' : 's'}`"
        verdict="none"
        :here="here === 'shelf truck'"
        data-item="shelf truck"
        @click="emit('look', 'shelf truck')"
      />
    </section>
  </SideNav>
</template>
