<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type BuyRow, type Edit, type ListRow, type Problem, type Quote } from '../../api/client'
import FileLink from '../../parts/FileLink.vue'
import { postFile } from '../../api/upload'
import { whenShown } from '../../stage/whenShown'
import { useNotice } from '../../stores/notice'
import { money } from './bars'

/** The price book: what is on the list at its price, changed in place; asked of the desk; from and to a file. */
const props = defineProps<{
  rows: BuyRow[]
  job: string
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const shown = defineModel<boolean>({ required: true })
const notice = useNotice()
const lines = ref<ListRow[]>([])
const quotes = ref<Record<string, Quote>>({})
const wrong = ref<Record<string, string>>({})
const find = ref('')
const busy = ref(false)
const key = (row: { priced_as: string; supplier: string; pack: number }) =>
  `${row.priced_as}|${row.supplier}|${row.pack}`
const list = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean)
  const seen = new Set<string>()
  return lines.value.filter((row) => {
    const text = `${row.item} ${row.supplier} ${row.shelf}`.toLowerCase()
    if (seen.has(key(row)) || !words.every((word) => text.includes(word))) return false
    seen.add(key(row))
    return true
  })
})
const out = computed(() => Object.values(quotes.value).filter((one) => one.out))
const today = () => new Date().toLocaleDateString('sv')
let listed = Promise.resolve()
whenShown(shown, () => void (listed = load()))

async function load() {
  quotes.value = {}
  const path = { job_id: props.job }
  const { data } = await ask(api.GET('/api/jobs/{job_id}/list', { params: { path } }))
  lines.value = (data?.lists ?? []).flatMap((one) => one.rows).filter((row) => row.each > 0)
}
const priceEdit = (row: ListRow, dollars: number, more: Partial<Quote> = {}) => ({
  item: row.priced_as,
  supplier: row.supplier,
  pack: row.pack,
  unit: row.unit,
  dollars,
  on: today(),
  ...('out' in more ? { out: more.out, days: more.days } : {}),
})
async function set(row: ListRow, text: string) {
  const dollars = Number.parseFloat(text.replace('$', ''))
  if (!(dollars > 0)) return void (wrong.value = { [key(row)]: `“${text}”: allowed: dollars over 0` })
  const problem = await props.edit([{ op: 'price', ...priceEdit(row, dollars) }], `price of ${row.item}`)
  wrong.value = problem ? { [key(row)]: problem.detail } : {}
  if (!problem) await load()
}
/** The desk that ships is simulated: its answer is shown first, and taken by a tap. */
async function call() {
  busy.value = true
  await listed
  const asked = list.value.slice(0, 500).map((row) => ({
    item: row.priced_as,
    supplier: row.supplier,
    pack: row.pack,
    unit: row.unit as 'ft' | 'each',
    dollars: row.each,
  }))
  const { data, problem } = await ask(api.POST('/api/desk/prices', { body: { rows: asked } }))
  busy.value = false
  if (problem) return notice.tell(problem.detail, 'stop')
  quotes.value = Object.fromEntries(
    (data ?? []).map((one) => [`${one.item}|${one.supplier}|${one.pack}`, one]),
  )
}
async function takeAll() {
  const rows = list.value.flatMap((row) => {
    const quote = quotes.value[key(row)]
    return quote ? [priceEdit(row, quote.dollars, quote)] : []
  })
  const problem = await props.edit([{ op: 'prices', rows }], `${rows.length} prices of the desk`)
  if (problem) notice.tell(problem.detail, 'stop')
  else await load()
}
async function bring(file: File) {
  const { data, problem } = await postFile<{ edits: Edit[]; label: string }>('/api/csv/prices', file)
  const refused = problem ?? (data ? await props.edit(data.edits, data.label) : null)
  if (refused) notice.tell(refused.detail, 'stop')
  else await load()
}
</script>

<template>
  <v-dialog v-model="shown" aria-label="Price book" max-width="900">
    <v-card class="pa-5" data-testid="price-book">
      <h2>Price book</h2>
      <p class="mute">
        What is on the list, in the packs it is bought in. A price that is typed is this shop's own, of today,
        and goes before the invented one.
      </p>
      <p class="bar">
        <v-text-field v-model="find" label="Find" density="compact" hide-details />
        <v-btn variant="outlined" :loading="busy" data-testid="desk" @click="call"
          >Ask the desk (simulated)</v-btn
        >
        <v-btn
          v-if="Object.keys(quotes).length"
          variant="flat"
          color="ink"
          data-testid="take-quotes"
          @click="takeAll"
          >Take its prices</v-btn
        >
      </p>
      <p v-if="out.length" class="out num" role="status">
        Simulated desk, not on the shelf:
        <template v-for="(one, i) in out.slice(0, 5)" :key="one.item + one.supplier"
          >{{ i ? ', ' : '' }}{{ one.item }} ({{ one.days }} days{{
            one.instead ? `, ${one.instead} instead` : ''
          }})</template
        >
      </p>
      <div class="scroll">
        <table class="num">
          <thead>
            <tr>
              <th>what</th>
              <th>at</th>
              <th class="r">pack</th>
              <th class="r">$ a pack</th>
              <th v-if="Object.keys(quotes).length" class="r">desk today</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in list" :key="key(row)">
              <td>{{ row.item }}</td>
              <td class="mute">{{ row.supplier }}</td>
              <td class="r">{{ row.pack }}{{ row.unit === 'ft' ? '′' : '' }}</td>
              <td class="r">
                <input
                  inputmode="decimal"
                  :value="row.each.toFixed(2)"
                  :aria-label="`${row.item}, ${row.supplier}, dollars`"
                  :aria-invalid="!!wrong[key(row)]"
                  @change="set(row, ($event.target as HTMLInputElement).value)"
                />
                <p v-if="wrong[key(row)]" class="bad" role="alert">{{ wrong[key(row)] }}</p>
              </td>
              <td v-if="Object.keys(quotes).length" class="r">
                <template v-if="quotes[key(row)]">
                  {{ money(quotes[key(row)]!.dollars) }}
                  <small v-if="quotes[key(row)]!.out" class="bad">out</small>
                </template>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="!list.length" class="mute">Nothing of that name is on the list.</p>
      </div>
      <div class="files num">
        <a :href="`/api/jobs/${job}/prices.csv`" download>All as CSV</a>
        <a :href="`/api/jobs/${job}/prices.csv?said=true`" download>This shop's own as CSV</a>
        <FileLink text="From CSV" label="Prices from CSV" accept=".csv,text/csv" @file="bring" />
        <v-btn variant="text" @click="shown = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 8px 0;
}
.scroll {
  max-height: 50vh;
  overflow-y: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  color: var(--mute);
  font-weight: 600;
  font-size: 13.5px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 10px 3px 0;
}
.r {
  text-align: right;
}
td input {
  width: 86px;
  text-align: right;
  border: 1px solid var(--rule);
  padding: 4px;
  color: var(--ink);
}
td input[aria-invalid='true'] {
  border-color: var(--stop);
}
.bad,
.out {
  color: var(--stop);
  margin: 2px 0;
  font-size: 13.5px;
}
.out {
  color: var(--check);
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  justify-content: flex-end;
  margin-top: 10px;
}
.files a {
  color: var(--chalk);
  text-decoration: underline;
  cursor: pointer;
}
</style>
