<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PanelCard, Screw } from '../../api/client'

/** A panel as it is made up: what stays live, what is bonded, which wire under which screw, torque as it was read. */
const props = defineProps<{ card: PanelCard }>()
const emit = defineEmits<{ torque: [at: string, read: number, label: number | null] }>()
const rows = computed(() => [...(props.card.mains ? [props.card.mains] : []), ...props.card.screws])
const wrong = ref<{ at: string; text: string } | null>(null)

function number(text: string): number | null {
  const value = Number(text.trim().replace(/\s*(lb-?in|in-?lb).*$/i, ''))
  return text.trim() && Number.isFinite(value) ? value : null
}
function typed(row: Screw, what: 'read' | 'label', text: string) {
  wrong.value = null
  const value = number(text)
  if (value === null ? text.trim() !== '' : value < 0 || value > 1000) {
    wrong.value = { at: row.at, text: `“${text}”: allowed: 0 to 1000 pound-inches` }
    return
  }
  if (what === 'read') emit('torque', row.at, value ?? 0, row.asked)
  else if (row.torque !== null) emit('torque', row.at, row.torque, value)
  else wrong.value = { at: row.at, text: 'type what was read first' }
}
</script>

<template>
  <div>
    <p class="live num"><b>Stays live:</b> {{ card.live }}</p>
    <p class="num">{{ card.bond }}</p>
    <p class="num">{{ card.bars }} One neutral under a screw. Torque is what its label says.</p>
    <div class="scroll">
      <table class="num">
        <thead>
          <tr>
            <th>Space</th>
            <th>Circuit</th>
            <th>Hots</th>
            <th>Neutral</th>
            <th>Ground</th>
            <th>Read, lb-in</th>
            <th>Label, lb-in</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="row in rows" :key="row.at">
            <tr :class="{ off: row.off }" :data-screw="row.at">
              <td>
                <b>{{ row.label }}</b>
              </td>
              <td>
                {{ row.name }}<small v-if="row.aluminum"> aluminum: antioxidant, lugs listed for it</small>
              </td>
              <td>{{ row.hots }}</td>
              <td>{{ row.neutral }}</td>
              <td>{{ row.ground }}</td>
              <td>
                <input
                  :value="row.torque ?? ''"
                  inputmode="decimal"
                  :aria-label="`${row.label} ${row.name}: torque read, pound-inches`"
                  @change="typed(row, 'read', ($event.target as HTMLInputElement).value)"
                />
              </td>
              <td>
                <input
                  :value="row.asked ?? ''"
                  inputmode="decimal"
                  :aria-label="`${row.label} ${row.name}: torque of its label, pound-inches`"
                  @change="typed(row, 'label', ($event.target as HTMLInputElement).value)"
                />
              </td>
            </tr>
            <tr v-if="wrong?.at === row.at">
              <td colspan="7" class="wrong" role="alert">{{ wrong.text }}</td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 6px;
  font-size: 15px;
}
.live {
  border-left: 5px solid var(--stop);
  background: var(--stop-wash);
  padding: 6px 10px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 600;
  color: var(--mute);
  padding: 2px 8px 2px 0;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 8px 3px 0;
}
td small {
  display: block;
  color: var(--check);
}
input {
  width: 62px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: inherit;
  font: inherit;
  padding: 3px 6px;
  min-height: 30px;
}
.off td {
  background: var(--check-wash);
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
</style>
