<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type Edit, type ListRow, type ListView } from '../api/client'
import { money } from '../stages/buy/bars'
import { useJob } from '../stores/job'
import { keep, kept, isText } from '../stores/keep'
import { useSheet } from './useSheet'

/** The list to buy by: supplier by supplier in the order of shelves; ticked off in the shop, with what was paid. */
const store = useJob()
const { data, loaded, print } = useSheet<ListView | null>(async (id) => {
  const found = await ask(api.GET('/api/jobs/{job_id}/list', { params: { path: { job_id: id } } }))
  return { data: found.data as ListView | undefined }
}, null)
const who = ref(kept('who', isText) ?? '')
const opened = ref('')
const open = ref(false)
const wrong = ref<{ at: string; text: string } | null>(null)
const keyOf = (row: ListRow) => `${row.key}|${row.supplier}|${row.pack}`
const isDone = (row: ListRow) => row.state === 'bought' || row.state === 'received'
const lists = computed(() =>
  (data.value?.lists ?? [])
    .map((one) => ({ ...one, rows: open.value ? one.rows.filter((row) => !isDone(row)) : one.rows }))
    .filter((one) => one.rows.length),
)
const counted = computed(() => {
  const rows = (data.value?.lists ?? []).flatMap((one) => one.rows)
  return `${rows.filter(isDone).length} of ${rows.length} ticked`
})
const last = (row: ListRow) => row.ticks.at(-1)
const WORDS: Record<string, string> = { bought: 'bought', received: 'received', returned: 'taken back' }
function told(row: ListRow) {
  return row.ticks
    .map((tick) => {
      const when = (tick.at ?? '').slice(5, 16).replace('T', ' ')
      const paid = tick.paid != null ? `, ${money(tick.paid)}` : ''
      return `${WORDS[tick.state ?? 'bought'] ?? 'open again'} ${when}${tick.who ? ` ${tick.who}` : ''}${paid}`
    })
    .join('; ')
}

async function tick(row: ListRow, state: string, paid?: number) {
  keep('who', who.value)
  const edit = {
    op: 'tick_row',
    item: row.key,
    priced_as: row.priced_as,
    state,
    at: `${new Date().toISOString().slice(0, 19)}Z`,
    who: who.value,
    supplier: row.each ? row.supplier : '',
    amount: row.count,
    pack: row.pack,
    unit: row.unit,
    ...(paid === undefined ? {} : { paid }),
  }
  const problem = await store.edit([edit as Edit], `${row.item}: ${state}`)
  wrong.value = problem ? { at: keyOf(row), text: problem.detail } : null
}
async function pay(row: ListRow, text: string) {
  const paid = Number.parseFloat(text.replace('$', ''))
  if (!(paid >= 0)) return (wrong.value = { at: keyOf(row), text: `“${text}”: allowed: dollars, 0 and more` })
  await tick(row, row.state === 'open' ? 'bought' : row.state, paid)
}
</script>

<template>
  <div class="sheet-page" data-testid="list-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/buy`">Back to Buy</router-link>
      <span class="gap" />
      <v-btn size="small" variant="text" data-testid="open-only" @click="open = !open">
        {{ open ? 'All rows' : 'Open rows' }}
      </v-btn>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: buying list</h2>
    <p class="mute">
      In the order of shelves. <span class="num" data-testid="counted">{{ counted }}</span>. What is paid goes
      into the price book.
    </p>
    <p class="who no-print">
      <label>Ticked by <input v-model="who" maxlength="40" /></label>
    </p>
    <p v-if="loaded && !data?.lists.length" class="mute">Nothing to buy yet.</p>
    <section v-for="one in lists" :key="one.supplier" :data-supplier="one.supplier">
      <h3>
        {{ one.supplier }} <span class="mute num">{{ money(one.dollars) }} before tax</span>
      </h3>
      <ul>
        <template v-for="(row, i) in one.rows" :key="keyOf(row)">
          <li v-if="row.shelf !== one.rows[i - 1]?.shelf" class="shelf caps">{{ row.shelf }}</li>
          <li class="row num" :class="{ done: isDone(row), back: row.state === 'returned' }">
            <label class="tick">
              <input
                type="checkbox"
                :checked="isDone(row)"
                :aria-label="`${row.item}, ${row.packs}: bought`"
                @change="tick(row, isDone(row) ? 'open' : 'bought')"
              />
            </label>
            <button
              type="button"
              class="plain what"
              :aria-expanded="opened === keyOf(row)"
              @click="opened = opened === keyOf(row) ? '' : keyOf(row)"
            >
              <b>{{ row.packs }}{{ row.unit === 'ft' && row.pack > 1 ? ' coil' : '' }}</b> {{ row.item }}
              <small class="mute">{{ row.places }}</small>
              <small v-if="row.ticks.length" class="mute">{{ told(row) }}</small>
            </button>
            <span class="cash">{{ row.dollars === null ? 'no price' : money(row.dollars) }}</span>
          </li>
          <li v-if="opened === keyOf(row)" class="more num no-print">
            <label
              >paid in all $<input
                inputmode="decimal"
                :value="last(row)?.paid ?? ''"
                :aria-label="`${row.item}, paid in dollars`"
                :aria-invalid="wrong?.at === keyOf(row)"
                @change="pay(row, ($event.target as HTMLInputElement).value)"
            /></label>
            <v-btn size="small" variant="outlined" @click="tick(row, 'received')">Received</v-btn>
            <v-btn size="small" variant="outlined" @click="tick(row, 'returned')">Taken back</v-btn>
            <p v-if="wrong?.at === keyOf(row)" class="bad" role="alert">{{ wrong.text }}</p>
          </li>
        </template>
      </ul>
    </section>
    <section v-if="data?.truck.length">
      <h3>Back on the truck afterwards</h3>
      <p class="num after">
        <span v-for="(row, i) in data.truck" :key="i"
          ><b>{{ row.amount }}{{ row.unit === 'ft' ? '′' : '' }}</b> {{ row.item }}</span
        >
      </p>
      <p class="no-print">
        <a :href="`/api/jobs/${store.view?.id}/truck.csv`" download>As CSV for the next job</a>
      </p>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 860px;
  margin-top: 14px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
.shelf {
  padding: 9px 0 2px;
}
.row {
  display: grid;
  grid-template-columns: 44px 1fr auto;
  align-items: center;
  border-top: 1px solid var(--rule);
  min-height: 44px;
  font-size: 16px;
  break-inside: avoid;
}
.tick {
  display: grid;
  place-items: center;
  min-height: 44px;
  cursor: pointer;
}
.tick input {
  width: 22px;
  height: 22px;
}
.what {
  text-align: left;
  padding: 5px 6px;
}
.what small {
  display: block;
  font-size: 13px;
}
.done .what b,
.done .what {
  color: var(--mute);
}
.cash {
  font-weight: 600;
  padding-left: 8px;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 4px 0 10px 44px;
}
.more input,
.who input {
  width: 92px;
  border: 1px solid var(--mute);
  padding: 6px;
  color: var(--ink);
}
.who input {
  width: 150px;
}
.bad {
  color: var(--stop);
  flex-basis: 100%;
  margin: 0;
}
.after {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
a {
  color: var(--chalk);
}
</style>
