<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type PullRow } from '../api/client'
import { feetText, tapeText } from '../parts/planScale'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'
import { inGroups } from '../parts/inGroups'

/** The pull list: every cable with its letter, longest first or room by room, ticked off as it is pulled. */
const store = useJob()
interface List {
  rows: PullRow[]
  totals: { item: string; cut_in: number; pulled_in: number }[]
}
const { data: list, print } = useSheet<List | null>(
  (id) => ask(api.GET('/api/jobs/{job_id}/pulls', { params: { path: { job_id: id } } })),
  null,
)
const byRoom = ref(false)

const groups = computed(() =>
  inGroups(list.value?.rows ?? [], (row) => (byRoom.value ? row.room || 'In no drawn room' : '')),
)
const long = (inches: number) => tapeText(Math.round(inches), store.metric)
const feet = (inches: number) => feetText(inches, store.metric)
const unit = computed(() => (store.metric ? 39.3701 : 12))

function pulled(row: PullRow, length_in: number | null) {
  const edit = { op: 'pulled', circuit: row.circuit, box: row.box, length_in }
  return store.edit([edit], length_in === null ? 'not pulled yet' : `pulled ${row.letter}`)
}
function typed(row: PullRow, text: string) {
  const said = Number.parseFloat(text)
  if (Number.isFinite(said) && said > 0) void pulled(row, said * unit.value)
}
</script>

<template>
  <div class="sheet-page" data-testid="pull-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/runs`">Back to Runs</router-link>
      <span class="gap" />
      <v-btn size="small" variant="text" data-testid="by-room" @click="byRoom = !byRoom">
        {{ byRoom ? 'Longest first' : 'Room by room' }}
      </v-btn>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: pull list</h2>
    <p class="mute">
      Letter both ends before anything is stripped. What is cut is the path, the ends, a loop and waste, up to
      the whole foot. Tick a cable when it is pulled; type the feet where more or less was cut.
    </p>
    <p v-if="list && !list.rows.length" class="mute">No cable yet: chain boxes on a circuit first.</p>
    <section v-for="[room, rows] in groups" :key="room">
      <h3 v-if="room">{{ room }}</h3>
      <table class="num">
        <thead>
          <tr>
            <th>pulled</th>
            <th>letter</th>
            <th>cable</th>
            <th>from</th>
            <th>to</th>
            <th class="r parts">as it lies</th>
            <th class="r parts">ends</th>
            <th class="r parts">loop</th>
            <th class="r parts">waste</th>
            <th class="r">cut</th>
            <th class="no-print r">{{ store.metric ? 'm' : 'ft' }} cut</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.letter + row.item + row.start"
            :class="{ done: row.pulled_in !== null }"
          >
            <td>
              <input
                type="checkbox"
                :checked="row.pulled_in !== null"
                :aria-label="`${row.letter} pulled`"
                @change="pulled(row, row.pulled_in === null ? row.cut_in : null)"
              />
            </td>
            <td class="letter">
              <b>{{ row.letter }}</b>
            </td>
            <td>{{ row.pieces > 1 ? `${row.pieces} × ` : '' }}{{ row.item }}</td>
            <td :class="{ short: row.start.length < 9 }">{{ row.start }}</td>
            <td :class="{ short: row.end.length < 9 }">{{ row.end }}</td>
            <td class="r parts">{{ long(row.path_in) }}</td>
            <td class="r parts">{{ long(row.makeup_in) }}</td>
            <td class="r parts">{{ long(row.loop_in) }}</td>
            <td class="r parts">{{ long(row.waste_in) }}</td>
            <td class="r">
              <b>{{ feet(row.cut_in) }}</b>
            </td>
            <td class="no-print r">
              <input
                v-if="row.pulled_in !== null"
                class="cut"
                inputmode="decimal"
                :value="(row.pulled_in / unit).toFixed(store.metric ? 1 : 0)"
                :aria-label="`${row.letter}, what was cut`"
                @change="typed(row, ($event.target as HTMLInputElement).value)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <h3 v-if="list?.totals.length">All together</h3>
    <p v-for="one in list?.totals ?? []" :key="one.item" class="num total">
      <b>{{ feet(one.cut_in) }}</b> {{ one.item
      }}<span v-if="one.pulled_in" class="mute">, {{ feet(one.pulled_in) }} pulled</span>
    </p>
  </div>
</template>

<style scoped>
h3 {
  margin: 18px 0 4px;
}
table {
  font-size: 14.5px;
}
th,
td {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
}
.r {
  text-align: right;
  white-space: nowrap;
}
.done td {
  color: var(--mute);
}
input[type='checkbox'] {
  width: 22px;
  height: 22px;
  accent-color: var(--fine);
}
.cut {
  width: 58px;
  padding: 2px 6px;
  text-align: right;
  border: 1px solid var(--rule);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.total {
  margin: 2px 0;
}
.letter,
.short {
  white-space: nowrap;
}
@media (max-width: 700px) {
  .parts {
    display: none;
  }
  td,
  th {
    padding-right: 7px;
  }
}
@media print {
  td,
  th {
    font-size: 11px;
    padding-right: 6px;
  }
}
</style>
