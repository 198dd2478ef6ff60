<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { BuyItem, Edit, Mend, OfferRow, Problem } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import { money } from './bars'

/** The row looked at: what is wrong with it, how it is bought, where each goes, what it costs where. */
const props = defineProps<{
  item: BuyItem
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ mend: [mend: Mend]; place: [kind: string, ident: string] }>()
const wrong = ref<{ at: string; text: string } | null>(null)
const urgent = computed(() => props.item.findings.filter((one) => one.severity !== 'note'))
const here = computed(() => props.item.row.item)
watch(here, () => (wrong.value = null))
const today = () => new Date().toLocaleDateString('sv')
const keyOf = (offer: OfferRow) => `${offer.supplier} ${offer.pack}`
const suppliers = computed(() => [...new Set(props.item.offers.map((one) => one.supplier))])

async function say(values: Record<string, unknown>, label: string, at = '') {
  const problem = await props.edit([{ op: 'buy', item: here.value, ...values }], label)
  wrong.value = problem ? { at, text: problem.detail } : null
}
async function price(offer: OfferRow, text: string) {
  const dollars = Number.parseFloat(text.replace('$', ''))
  if (!(dollars > 0)) return (wrong.value = { at: keyOf(offer), text: `“${text}”: allowed: dollars over 0` })
  const problem = await props.edit(
    [
      {
        op: 'price',
        item: props.item.priced_as,
        supplier: offer.supplier,
        pack: offer.pack,
        unit: offer.unit,
        dollars,
        on: today(),
      },
    ],
    `price of ${here.value}`,
  )
  wrong.value = problem ? { at: keyOf(offer), text: problem.detail } : null
}
const cheapest = () =>
  say({ packs: [], by_foot: false, supplier: '', instead: '', needed_on: '', due_on: '' }, 'as is cheapest')
const WORDS: Record<string, string> = {
  bought: 'bought',
  received: 'received',
  returned: 'taken back',
  open: 'open again',
}
</script>

<template>
  <section class="item">
    <header class="pick-head">
      <h2>{{ item.row.title }}</h2>
      <span class="num mute">{{ item.row.amount }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in urgent"
      :key="f.code"
      :finding="f"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <dl class="pick-facts num">
      <div>
        <dt>Bought as</dt>
        <dd>{{ item.row.packs || 'nothing' }}</dd>
      </div>
      <div>
        <dt>Before tax</dt>
        <dd>{{ item.row.dollars === null ? 'no price' : money(item.row.dollars) }}</dd>
      </div>
      <div v-if="item.lacking" class="short">
        <dd>{{ item.lacking }}</dd>
      </div>
      <div v-if="item.had">
        <dt>Had</dt>
        <dd>{{ item.had }}</dd>
      </div>
      <div v-if="item.left">
        <dt>Left over</dt>
        <dd>{{ item.left }}</dd>
      </div>
      <div>
        <dt>Said</dt>
        <dd>{{ item.said }}</dd>
      </div>
    </dl>
    <p class="taps no-print">
      <v-btn
        v-if="item.unit === 'ft' && !item.by_foot"
        size="small"
        variant="outlined"
        @click="say({ by_foot: true, packs: [] }, 'by the foot')"
        >By the foot</v-btn
      >
      <v-btn
        v-if="item.said !== 'as is cheapest'"
        size="small"
        variant="outlined"
        data-testid="cheapest"
        @click="cheapest"
        >As is cheapest</v-btn
      >
    </p>
    <p v-if="wrong && !wrong.at" class="bad" role="alert">{{ wrong.text }}</p>
    <details data-testid="places" :open="item.places.length <= 8">
      <summary>
        Where {{ item.places.length + item.more_places === 1 ? 'it goes' : 'each one goes' }}
        <span class="mute num">{{ item.places.length + item.more_places }}</span>
      </summary>
      <ul class="num">
        <li v-for="(place, i) in item.places" :key="i">
          <button type="button" class="plain link" @click="emit('place', place.kind, place.ident)">
            {{ place.name }}
          </button>
          <b>{{ place.amount }}</b>
          <span class="mute">{{ [place.where, place.why].filter(Boolean).join(': ') }}</span>
        </li>
        <li v-if="item.more_places" class="mute">and {{ item.more_places }} more</li>
      </ul>
    </details>
    <details data-testid="offers">
      <summary>
        What it costs where <span class="mute num">{{ item.offers.length }}</span>
      </summary>
      <table class="num">
        <tbody>
          <tr v-for="offer in item.offers" :key="keyOf(offer)" :class="{ here: offer.taken }">
            <td>
              {{ offer.supplier }}<small v-if="!offer.said" class="mute"> invented</small>
              <small v-if="offer.on" class="mute"> {{ offer.on }}</small>
              <small v-if="offer.out" class="out"> out, {{ offer.days }} days</small>
            </td>
            <td class="r">{{ offer.pack_text }}</td>
            <td class="r">
              $<input
                inputmode="decimal"
                :value="offer.dollars.toFixed(2)"
                :aria-label="`${offer.supplier}, ${offer.pack_text}, dollars`"
                :aria-invalid="wrong?.at === keyOf(offer)"
                @change="price(offer, ($event.target as HTMLInputElement).value)"
              />
              <p v-if="wrong?.at === keyOf(offer)" class="bad" role="alert">{{ wrong.text }}</p>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!item.offers.length" class="mute">Nobody sells it. Say a price below: price … $… at …</p>
      <p class="taps no-print">
        <v-btn
          v-for="name in suppliers"
          :key="name"
          size="small"
          variant="outlined"
          @click="say({ supplier: name }, `at the ${name}`)"
          >All at the {{ name }}</v-btn
        >
      </p>
      <p class="days num">
        <label
          >needed on
          <input
            type="date"
            :value="item.needed_on"
            @change="say({ needed_on: ($event.target as HTMLInputElement).value }, 'when it is needed')"
        /></label>
        <label
          >comes on
          <input
            type="date"
            :value="item.due_on"
            @change="say({ due_on: ($event.target as HTMLInputElement).value }, 'when it comes')"
        /></label>
      </p>
    </details>
    <p v-for="tick in item.ticks" :key="tick.id" class="num mute tick">
      {{ WORDS[tick.state ?? 'bought'] }} {{ (tick.at ?? '').replace('T', ' ').slice(0, 16) }} {{ tick.who
      }}{{ tick.paid != null ? `, paid ${money(tick.paid)}` : '' }}
    </p>
  </section>
</template>

<style scoped>
.item {
  border-bottom: 2px solid var(--ink);
  padding-bottom: 8px;
  margin-bottom: 10px;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 4px 0;
}
details {
  border-top: 1px solid var(--rule);
}
summary {
  padding: 7px 0;
  cursor: pointer;
  font-weight: 600;
  font-size: 15px;
}
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  font-size: 14px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  padding: 2px 0;
}
li > .mute {
  grid-column: 1 / -1;
  font-size: 13px;
}
.link {
  color: var(--chalk);
  text-align: left;
  padding: 0;
  min-height: 24px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 2px 6px 2px 0;
  vertical-align: baseline;
}
td.r {
  text-align: right;
  white-space: nowrap;
  padding-right: 0;
}
tr.here td {
  background: color-mix(in srgb, var(--lime) 26%, transparent);
}
td input {
  width: 74px;
  text-align: right;
  border: 1px solid var(--rule);
  padding: 3px 4px;
  color: var(--ink);
}
td input[aria-invalid='true'] {
  border-color: var(--stop);
}
small {
  font-size: 12.5px;
}
.out {
  color: var(--check);
  font-weight: 600;
}
.days {
  display: flex;
  gap: 10px;
  font-size: 13.5px;
  margin: 6px 0;
}
.days input {
  display: block;
  border: 1px solid var(--rule);
  padding: 3px 4px;
  color: var(--ink);
  max-width: 132px;
}
.tick {
  margin: 2px 0;
  font-size: 13.5px;
}
.bad {
  color: var(--stop);
  white-space: normal;
  text-align: left;
  margin: 2px 0;
  font-size: 13.5px;
}
</style>
