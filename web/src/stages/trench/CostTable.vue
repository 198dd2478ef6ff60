<script setup lang="ts">
import type { Mend, TrenchPlan } from '../../api/client'

/** What makes it legal, and the same feed brought over otherwise: hours, dollars, days of waiting, drop. */
defineProps<{ options: TrenchPlan['options']; connections: TrenchPlan['connections'] }>()
const emit = defineEmits<{ mend: [mend: Mend] }>()
const percent = (value: number | null | undefined) => (value == null ? '–' : `${value.toFixed(1)} %`)
</script>

<template>
  <section v-if="options.length" data-testid="options">
    <h3>Cheapest first</h3>
    <table class="num">
      <tbody>
        <tr v-for="option in options" :key="option.key" :class="{ here: option.here }">
          <td>
            <button
              v-if="option.mend"
              type="button"
              class="plain take"
              :aria-label="`${option.label}: take it`"
              @click="emit('mend', option.mend)"
            >
              {{ option.label }}
            </button>
            <span v-else>{{ option.label }}</span>
          </td>
          <td>{{ option.hours.toFixed(0) }} h</td>
          <td>${{ option.dollars.toFixed(0) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-if="connections.length" data-testid="connections">
    <h3>By trench or overhead</h3>
    <table class="num">
      <thead>
        <tr>
          <th>way</th>
          <th>work</th>
          <th>parts</th>
          <th>wait</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in connections" :key="row.key">
          <tr :class="{ here: row.here }">
            <td>
              <button
                v-if="row.mend"
                type="button"
                class="plain take"
                :aria-label="`${row.label}: take it`"
                @click="emit('mend', row.mend)"
              >
                {{ row.label }}
              </button>
              <span v-else>{{ row.label }}</span>
            </td>
            <td>{{ row.hours.toFixed(0) }} h</td>
            <td>${{ row.dollars.toFixed(0) }}</td>
            <td>{{ row.wait_days ? `${row.wait_days} d` : '0' }}</td>
          </tr>
          <tr class="more" :class="{ here: row.here }">
            <td colspan="4">
              drop {{ percent(row.drop_breaker) }} at the breaker{{
                row.drop_load == null ? '' : `, ${percent(row.drop_load)} as loaded`
              }}; later: {{ row.later }}{{ row.takes ? `; wants ${row.takes}` : '' }}
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <p class="mute note">Hours and dollars are for comparing, illustrative until a price book says them.</p>
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
th {
  font-size: 13px;
  font-weight: 500;
  color: var(--mute);
  text-align: right;
}
th:first-child {
  text-align: left;
}
td {
  padding: 4px 0 4px 8px;
  border-top: 1px solid var(--rule);
  vertical-align: top;
  text-align: right;
  white-space: nowrap;
}
td:first-child {
  padding-left: 0;
  text-align: left;
  white-space: normal;
}
.more td {
  border: 0;
  padding-top: 0;
  color: var(--mute);
  font-size: 13.5px;
}
.here td {
  background: color-mix(in srgb, var(--lime) 26%, transparent);
}
.here.more td {
  color: var(--ink);
}
.take {
  color: var(--chalk);
  font-weight: 600;
  text-align: left;
  min-height: 28px;
}
.note {
  font-size: 13px;
  margin: 2px 0 0;
}
</style>
