<script setup lang="ts">
import { computed } from 'vue'

import type { HowPulled } from '../../api/client'
import { poundText } from '../../parts/planScale'

/** Who stands where, with what: the pull as it is done, and what it may be. */
const props = defineProps<{ how: HowPulled }>()
const emit = defineEmits<{ feed: [end: string] }>()
const other = computed(() => props.how.bands.find((band) => band.fed !== props.how.feed))
const people = computed(() =>
  props.how.push
    ? 'Fish tape alone'
    : props.how.people === 0
      ? 'Not by hand'
      : props.how.people === 1
        ? 'One person by hand'
        : 'Two people by hand',
)
</script>

<template>
  <section data-testid="how">
    <h3>
      The pull <span class="mute num">{{ people }}</span>
    </h3>
    <p v-for="line in how.lines" :key="line">{{ line }}</p>
    <v-btn v-if="other" size="small" variant="outlined" class="no-print" @click="emit('feed', other.fed)">
      Feed at {{ other.fed_at }} instead: {{ poundText(other.usual_lb) }} lb
    </v-btn>
    <table class="num">
      <tbody>
        <tr v-for="limit in how.limits" :key="limit.key" :class="{ over: !limit.within }">
          <td>{{ limit.name }}</td>
          <td>{{ poundText(limit.value) }} of {{ poundText(limit.limit) }} {{ limit.unit }}</td>
          <td>{{ limit.within ? '' : 'over' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
h3 {
  display: flex;
  justify-content: space-between;
}
h3 span {
  font-weight: 500;
}
p {
  margin: 4px 0;
  font-size: 14.5px;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 8px;
  font-size: 14px;
}
td {
  padding: 3px 6px 3px 0;
  border-top: 1px solid var(--rule);
}
td:nth-child(2) {
  text-align: right;
  white-space: nowrap;
}
.over td {
  color: var(--stop);
  font-weight: 600;
}
</style>
