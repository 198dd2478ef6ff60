<script setup lang="ts">
import { computed } from 'vue'

import type { RoomSummary } from '../api/client'
import SideNav from './SideNav.vue'
import { inGroups } from './inGroups'

/** Rooms by structure and level, the worst first in each group. `count` says what stands at the right. */
const props = defineProps<{
  rooms: RoomSummary[]
  current: string | null
  count: (room: RoomSummary) => string
}>()
const emit = defineEmits<{ look: [id: string] }>()

const ORDER: Record<string, number> = { stop: 0, check: 1, fine: 2 }
const groups = computed(() =>
  inGroups(props.rooms, (room) => room.group).map(([name, rooms]) => ({
    name,
    rooms: rooms.toSorted((a, b) => (ORDER[a.verdict] ?? 2) - (ORDER[b.verdict] ?? 2)),
  })),
)
</script>

<template>
  <SideNav label="Rooms">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <button
        v-for="room in group.rooms"
        :key="room.id"
        type="button"
        class="plain side-row cols num"
        :class="{ here: room.id === current }"
        :aria-current="room.id === current"
        :data-room-row="room.name"
        @click="emit('look', room.id)"
      >
        <i :class="room.verdict" />
        <span class="name"
          >{{ room.name
          }}<small v-if="room.verdict !== 'fine'" :class="room.verdict">{{
            room.stops
              ? `${room.stops} ${room.stops === 1 ? 'stop' : 'stops'}${room.checks ? `, ${room.checks} to check` : ''}`
              : `${room.checks} to check`
          }}</small></span
        >
        <span class="mute">{{ count(room) }}</span>
      </button>
    </section>
    <slot />
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 1fr auto;
}
</style>
