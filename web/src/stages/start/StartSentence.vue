<script setup lang="ts">
import { computed } from 'vue'

import type { StartKind, StartWords, Vocabulary } from '../../api/client'
import BlankPick from './BlankPick.vue'
import type { Blanks } from './sentence'

/** The sentence of a kind of job with its blanks; each shows what it holds, and takes a tap or a word. */
const props = defineProps<{
  kind: StartKind
  words: StartWords | null
  vocabulary: Vocabulary | null
  panels: string[]
}>()
const blanks = defineModel<Blanks>({ required: true })
const emit = defineEmits<{ add: []; kind: [key: string] }>()

const plain = (values: (string | number)[], unit = '') =>
  values.map((value) => ({ title: `${value}${unit}`, value: `${value}` }))
const panels = computed(() => plain(props.panels))
const places = computed(() =>
  (props.vocabulary?.places ?? []).map((p) => ({ title: p.title.toLowerCase(), value: p.key })),
)
const methods = computed(() => [
  { title: 'the usual way', value: '' },
  ...(props.vocabulary?.methods ?? []).map((m) => ({ title: m.name, value: m.key })),
])
const amps = computed(() => (props.words?.breakers ?? []).map((a) => ({ title: `${a} A`, value: `${a}a` })))
const rooms = computed(() => [
  { title: 'a place not said', value: '' },
  ...plain(props.words?.rooms ?? []),
  { title: 'outside', value: 'outside' },
])
const COOKING = [
  { title: 'a range', value: 'range' },
  { title: 'a dryer', value: 'dryer' },
]
const VOLTS = [
  { title: '120 V', value: '120v' },
  { title: '240 V', value: '240v' },
]
const LENGTHS = plain(["5'", "10'", "15'", "20'", "30'", "40'", "60'", "80'", "100'"])
const buried = computed(
  () => props.vocabulary?.places.find((p) => p.key === blanks.value.place)?.buried ?? false,
)
const key = computed(() => props.kind.key)
const ends = computed(() => props.kind.title.replace(/ of its own$/, ''))
</script>

<template>
  <section class="sentence" data-testid="sentence">
    <p class="num">
      <BlankPick v-model="blanks.panel" label="Panel" before="From" empty="a panel" :choices="panels" />,
      <BlankPick v-model="blanks.length" label="Length" empty="how far" :choices="LENGTHS" free />
      <BlankPick v-model="blanks.place" label="Through" before=" through" empty="what" :choices="places" />
      <BlankPick
        v-if="buried"
        v-model="blanks.depth"
        label="Deep"
        before=","
        empty="how deep"
        :choices="plain(['6&quot;', '12&quot;', '18&quot;', '24&quot;'])"
        free
      />
      <span v-if="buried"> deep</span>
      <BlankPick v-model="blanks.method" label="In" before=" in" empty="the usual way" :choices="methods" />
      to
      <BlankPick
        v-if="key === 'range' || key === 'dryer'"
        :model-value="key"
        label="What"
        empty="a range"
        :choices="COOKING"
        @update:model-value="emit('kind', $event)"
      />
      <template v-else>{{
        kind.feeds ? (key === 'building' ? 'another building' : 'a sub-panel') : ends
      }}</template>
      <BlankPick v-if="kind.feeds" v-model="blanks.fed" label="Called" before=" called" empty="a name" free />
      <template v-if="blanks.amps || kind.feeds || key === 'outlet' || key === 'machine'">
        <BlankPick v-model="blanks.amps" label="Breaker" before=" on" empty="a breaker" :choices="amps" />
        <BlankPick
          v-if="!kind.feeds"
          v-model="blanks.volts"
          label="Volts"
          before=" of"
          empty="120 V"
          :choices="VOLTS"
        />
      </template>
      <BlankPick
        v-if="key === 'machine' || key === 'outlet'"
        v-model="blanks.name"
        label="For"
        before=" for"
        empty="what is plugged in"
        free
      />
      <BlankPick
        v-if="['machine', 'vehicle', 'water-heater'].includes(key) || (key === 'outlet' && blanks.name)"
        v-model="blanks.load"
        label="Load"
        before=" of"
        empty="its amperes"
        free
      />
      <template v-if="key === 'heat-pump' || key === 'pump'">
        <BlankPick
          v-model="blanks.mca"
          label="Least ampacity"
          before=": nameplate"
          empty="least ampacity"
          free
        />
        A least, <BlankPick v-model="blanks.mocp" label="Largest breaker" empty="largest breaker" free />{{
          ' A largest breaker'
        }}
      </template>
      <BlankPick
        v-if="key === 'outlet' || key === 'machine'"
        v-model="blanks.room"
        label="Room"
        before=" in"
        empty="a place not said"
        :choices="rooms"
      />.
    </p>
    <v-btn variant="flat" color="ink" data-testid="add-line" @click="emit('add')">Add it</v-btn>
  </section>
</template>

<style scoped>
.sentence {
  padding: 6px 22px 16px;
}
p {
  font-size: 22px;
  line-height: 1.65;
  margin: 0 0 10px;
  max-width: 46em;
}
@media (max-width: 600px) {
  p {
    font-size: 19px;
  }
}
</style>
