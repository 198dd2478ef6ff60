<script setup lang="ts">
import { computed } from 'vue'

import type { BuyRow, ShelfSum } from '../../api/client'
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
      <button
        v-for="row in group.rows"
        :key="row.item"
        type="button"
        class="plain side-row cols num"
        :class="{ here: row.item === here }"
        :aria-current="row.item === here"
        :data-item="row.item"
        @click="emit('look', row.item)"
      >
        <i :class="row.verdict" :title="row.verdict" />
        <span class="name">{{ row.item.replace(' stick', '') }}</span>
        <span class="mute">{{ row.amount.replace(' sticks', '').replace(' stick', '') }}</span>
      </button>
    </section>
    <section v-if="parts.length">
      <h2 class="caps">Parts</h2>
      <button
        v-for="one in parts"
        :key="one.shelf"
        type="button"
        class="plain side-row cols num"
        :class="{ here: `shelf ${one.shelf}` === here }"
        :aria-current="`shelf ${one.shelf}` === here"
        :data-item="`shelf ${one.shelf}`"
        @click="emit('look', `shelf ${one.shelf}`)"
      >
        <i :class="one.verdict" :title="one.verdict" />
        <span class="name">{{ one.name }}</span>
        <span class="mute">{{ money(one.dollars) }}</span>
      </button>
    </section>
    <section v-if="rows.length">
      <h2 class="caps">On the truck</h2>
      <button
        type="button"
        class="plain side-row cols num"
        :class="{ here: here === 'shelf truck' }"
        :aria-current="here === 'shelf truck'"
        data-item="shelf truck"
        @click="emit('look', 'shelf truck')"
      >
        <i class="none" />
        <span class="name">Have already</span>
        <span class="mute">{{ truck }} row{{ truck === 1 ? '' : 's' }}</span>
      </button>
    </section>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 1fr auto;
}
i.none {
  background: var(--rule);
}
</style>
