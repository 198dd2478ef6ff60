<script setup lang="ts">
import { computed } from 'vue'

import type { ApartBox, Finding } from '../../api/client'

/** Boxes of a house that nobody draws, each with what is taken for it and how full it is. */
const props = defineProps<{ boxes: ApartBox[]; said: Finding[]; picked: string | null }>()
const emit = defineEmits<{ pick: [id: string] }>()
const RANK: Record<string, number> = { stop: 0, check: 1 }
const worst = computed(() => {
  const found: Record<string, string> = {}
  for (const one of props.said)
    if ((RANK[one.severity] ?? 2) < (RANK[found[one.subject] ?? 'fine'] ?? 2))
      found[one.subject] = one.severity
  return found
})
</script>

<template>
  <div class="apart">
    <table class="num" data-testid="apart-boxes">
      <thead>
        <tr>
          <th><span class="hidden">Verdict</span></th>
          <th>Box</th>
          <th>What</th>
          <th>Where</th>
          <th>Taken for it</th>
          <th class="right wide">Cables in it</th>
          <th class="right">Filled</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in boxes"
          :key="row.id"
          :class="{ here: row.id === picked }"
          :data-apart="row.name"
          @click="emit('pick', row.id)"
        >
          <td class="mark"><i :class="worst[row.id] ?? 'fine'" /></td>
          <th scope="row">
            <button type="button" class="plain name" :aria-pressed="row.id === picked">
              <b>{{ row.name }}</b>
            </button>
          </th>
          <td>{{ row.what }}</td>
          <td :class="{ mute: !row.where }">{{ row.where || 'not said' }}</td>
          <td :class="{ mute: !row.model }">{{ row.model || 'its own compartment' }}</td>
          <td class="right wide">{{ row.cables || '–' }}</td>
          <td class="right">
            {{ row.figure ? `${row.figure.text} of ${row.figure.limit_text}` : '–' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mute">
      Nobody draws this house: its boxes are known by what enters them. To set boxes along walls, draw a room
      in Walls.
    </p>
  </div>
</template>

<style scoped>
.apart {
  flex: 1 1 auto;
  background: var(--card);
  padding: 14px 18px;
  overflow: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 15px;
}
thead th {
  color: var(--mute);
  font-weight: 600;
  font-size: 14px;
  text-align: left;
  padding: 4px 8px;
}
tbody tr {
  border-top: 1px solid var(--rule);
  cursor: pointer;
}
tbody tr:hover {
  background: var(--note-wash);
}
tbody tr.here {
  background: var(--note-wash);
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-chalk, var(--v-theme-ink)));
}
td,
tbody th {
  padding: 2px 8px;
  text-align: left;
  font-weight: 400;
}
.right {
  text-align: right;
}
.name {
  min-height: 32px;
  min-width: 32px;
  text-align: left;
}
.mark {
  width: 14px;
}
.mark i {
  display: block;
  width: 6px;
  height: 22px;
  border-radius: 2px;
  background: var(--fine);
}
.mark i.stop {
  background: var(--stop);
}
.mark i.check {
  background: var(--check-mark);
}
@media (max-width: 600px) {
  .wide {
    display: none;
  }
  .apart {
    padding: 10px 6px;
  }
}
.hidden {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
