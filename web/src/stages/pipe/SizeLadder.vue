<script setup lang="ts">
import { computed } from 'vue'

import type { Mend, Rung } from '../../api/client'
import { poundText } from '../../parts/planScale'

/** The sizes of a pull: how full, how hard, what it costs, what it buys. A tap takes one. */
const props = defineProps<{ rungs: Rung[] }>()
const emit = defineEmits<{ mend: [mend: Mend] }>()
const best = computed(() =>
  ['smallest', 'kindest', 'cheapest'].flatMap((word) => {
    const rung = props.rungs.find((item) => item.first.includes(word))
    return rung ? [{ word, rung }] : []
  }),
)
const lb = (value: number | null) => (value === null ? '–' : `${poundText(value)} lb`)
</script>

<template>
  <section data-testid="ladder">
    <h3>Size, and what it buys</h3>
    <table class="num">
      <thead class="unseen-head">
        <tr>
          <th>size</th>
          <th>full</th>
          <th>pull</th>
          <th>cost</th>
          <th>it buys</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="rung in rungs" :key="rung.size" :class="{ here: rung.here, no: !rung.fits }">
          <td>
            <button
              v-if="rung.mend"
              type="button"
              class="plain size"
              :aria-label="rung.mend.label"
              @click="emit('mend', rung.mend)"
            >
              {{ rung.size }}″
            </button>
            <b v-else>{{ rung.size }}″</b>
          </td>
          <td>{{ rung.percent.toFixed(0) }} %</td>
          <td>{{ lb(rung.lb ?? null) }}</td>
          <td>${{ rung.dollars.toFixed(0) }}</td>
          <td class="buys">
            {{ rung.fits ? rung.buys.join(', ') : `over ${rung.limit_percent} %`
            }}{{ rung.jams ? ', may jam' : '' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="taps no-print">
      <template v-for="{ word, rung } in best" :key="word">
        <v-btn v-if="rung.mend" size="small" variant="outlined" @click="emit('mend', rung.mend)">
          {{ word }}: {{ rung.size }}″
        </v-btn>
        <span v-else class="mute">{{ word }}: {{ rung.size }}″, here</span>
      </template>
    </p>
    <p class="mute note">Dollars and minutes are illustrative until a price book says them.</p>
  </section>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14.5px;
  margin-top: 4px;
}
.unseen-head th {
  font-size: 13px;
  font-weight: 500;
  color: var(--mute);
  text-align: left;
}
td {
  padding: 4px 6px 4px 0;
  border-top: 1px solid var(--rule);
  vertical-align: top;
  white-space: nowrap;
}
td.buys {
  white-space: normal;
  color: var(--mute);
  font-size: 13px;
  padding-right: 0;
}
tr.here td {
  background: color-mix(in srgb, var(--lime) 26%, transparent);
}
tr.here td.buys {
  color: var(--ink);
}
tr.no td {
  color: var(--mute);
}
.size {
  color: var(--chalk);
  font-weight: 600;
  padding: 0 4px;
  min-width: 34px;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 7px 0 2px;
  font-size: 14px;
}
.note {
  font-size: 13px;
  margin: 2px 0 0;
}
</style>
