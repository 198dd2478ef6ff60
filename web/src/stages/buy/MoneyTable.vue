<script setup lang="ts">
import type { Money, ShelfSum } from '../../api/client'
import { money as dollars } from './bars'

/** Where the money goes: material shelf by shelf, tax, hours, margin; what one circuit more costs. */
defineProps<{
  shelves: ShelfSum[]
  money: Money
  tasks: { what: string; amount: number; unit: string; hours: number; two: string }[]
  more: { name: string; now: number; after: number } | null
}>()
const emit = defineEmits<{ look: [item: string] }>()
const hours = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} h`
</script>

<template>
  <section data-testid="money">
    <h3>Where the money goes</h3>
    <table class="num">
      <tbody>
        <tr v-for="one in shelves" :key="one.shelf">
          <td>
            <button type="button" class="plain link" @click="emit('look', `shelf ${one.shelf}`)">
              {{ one.name }}
            </button>
          </td>
          <td class="mute r">{{ one.text }}</td>
          <td class="r">
            <b>{{ dollars(one.dollars) }}</b>
          </td>
        </tr>
        <tr class="sum">
          <td>Material</td>
          <td class="mute r">tax {{ dollars(money.tax) }}</td>
          <td class="r" data-testid="material">
            <b>{{ dollars(money.material) }}</b>
          </td>
        </tr>
        <tr>
          <td>Labour</td>
          <td class="mute r">{{ hours(money.hours) }}, {{ money.days.toFixed(1) }} days</td>
          <td class="r">
            <b>{{ dollars(money.labour) }}</b>
          </td>
        </tr>
        <tr>
          <td>Margin</td>
          <td></td>
          <td class="r">
            <b>{{ dollars(money.margin) }}</b>
          </td>
        </tr>
        <tr class="sum all">
          <td>All, with tax</td>
          <td></td>
          <td class="r">
            <b>{{ dollars(money.total) }}</b>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="more" class="num more">
      One circuit more: <b>{{ dollars(more.now) }}</b> now, <b>{{ dollars(more.after) }}</b> once the walls
      are shut.
    </p>
    <details>
      <summary>
        Hours by task <span class="mute num">{{ hours(money.hours) }}</span>
      </summary>
      <table class="num">
        <tbody>
          <tr v-for="task in tasks" :key="task.what">
            <td>
              {{ task.what }}<small v-if="task.two" class="mute"> two people: {{ task.two }}</small>
            </td>
            <td class="mute r">{{ Math.round(task.amount) }}{{ task.unit === 'ft' ? '′' : '' }}</td>
            <td class="r">{{ hours(task.hours) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14.5px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 1px 8px 1px 0;
}
td.r {
  text-align: right;
  white-space: nowrap;
}
td.r:last-child {
  padding-right: 0;
}
.link {
  padding: 3px 0;
  min-height: 26px;
  text-align: left;
}
.sum td {
  border-top: 2px solid var(--ink);
  padding-top: 4px;
}
.all td {
  font-size: 17px;
  font-weight: 600;
}
.more {
  margin: 5px 0;
  font-size: 14.5px;
}
details {
  border-top: 1px solid var(--rule);
}
summary {
  padding: 6px 0;
  cursor: pointer;
  font-weight: 600;
}
</style>
