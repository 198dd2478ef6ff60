<script setup lang="ts">
import type { BuyRow } from '../../api/client'
import { money } from './bars'

/** A shelf as a table: what, how much, in which packs, what it comes to. */
defineProps<{ title: string; rows: BuyRow[]; here: string | null }>()
const emit = defineEmits<{ look: [item: string] }>()
</script>

<template>
  <section class="shelf">
    <h3>{{ title }}</h3>
    <table class="num">
      <thead>
        <tr>
          <th>what</th>
          <th class="r">it takes</th>
          <th>bought as</th>
          <th class="r">before tax</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.item" :class="{ here: row.item === here }">
          <td>
            <button
              type="button"
              class="plain name"
              :aria-current="row.item === here"
              :data-part="row.item"
              @click="emit('look', row.item)"
            >
              <i :class="row.verdict" aria-hidden="true" />{{ row.title
              }}<span v-if="row.verdict !== 'fine'" class="word">{{ row.verdict }}</span>
            </button>
          </td>
          <td class="r">{{ row.amount }}</td>
          <td class="mute">{{ row.packs || '–' }}</td>
          <td class="r">
            <b>{{ row.dollars === null ? 'no price' : money(row.dollars) }}</b>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.shelf {
  padding: 9px 14px 10px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
th {
  text-align: left;
  color: var(--mute);
  font-weight: 500;
  font-size: 13.5px;
}
td {
  padding: 1px 18px 1px 0;
  border-top: 1px solid var(--rule);
}
.r {
  text-align: right;
}
td.r:last-child,
th.r:last-child {
  padding-right: 0;
}
tr.here td {
  background: color-mix(in srgb, var(--lime) 26%, transparent);
}
.name {
  display: flex;
  align-items: center;
  gap: 8px;
  text-align: left;
  padding: 5px 2px;
  width: 100%;
}
.name i {
  flex: none;
  width: 6px;
  height: 17px;
  border-radius: 3px;
  background: var(--fine);
}
.name i.stop {
  background: var(--stop);
}
.name i.check {
  background: var(--check-mark);
}
.word {
  font-weight: 600;
  font-size: 13px;
}
</style>
