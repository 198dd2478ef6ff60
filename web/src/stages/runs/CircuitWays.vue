<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitRow, HopRow, WaySummary } from '../../api/client'
import { feetText } from '../../parts/planScale'
import SideNav from '../../parts/SideNav.vue'
import { inGroups } from '../../parts/inGroups'

/** Circuits by the panel they hang on, worst first; under the one looked at its ways, and what is not walked yet. */
const props = defineProps<{
  circuits: CircuitRow[]
  ways: WaySummary[]
  idle: string[]
  circuit: string | null
  way: string | null
  hops: HopRow[]
  metric: boolean
}>()
const emit = defineEmits<{ look: [circuit: string]; way: [id: string]; add: [] }>()

const groups = computed(() =>
  inGroups(props.circuits, (row) => row.panel_name).map(([name, circuits]) => ({ name, circuits })),
)
const byId = computed(() => new Map(props.ways.map((way) => [way.id, way])))
const waysOf = (ids: string[]) => ids.flatMap((id) => byId.value.get(id) ?? [])
const feet = (length_in: number) => feetText(length_in, props.metric)
/** What keeps a cable from being drawn, in a word or two. */
const KINDS: Record<string, string> = {
  pipe: 'pipe to be walked',
  taped: 'as taped',
  apart: 'not drawn yet',
  none: 'no way',
}
const long = (row: CircuitRow) => (row.length_in ? feet(row.length_in) : '–')
const told = (part: { stops: number; checks: number }) =>
  part.stops
    ? `${part.stops} ${part.stops === 1 ? 'stop' : 'stops'}`
    : `${part.checks} ${part.checks === 1 ? 'check' : 'checks'}`
</script>

<template>
  <SideNav label="Circuits and their ways">
    <section v-for="group in groups" :key="group.name">
      <h2 class="caps">{{ group.name }}</h2>
      <template v-for="row in group.circuits" :key="row.id">
        <button
          type="button"
          class="plain side-row cols num"
          :class="{ here: row.id === circuit }"
          :aria-current="row.id === circuit"
          :data-run="row.id"
          @click="emit('look', row.id)"
        >
          <i :class="row.verdict" :title="row.verdict" />
          <span class="label">{{ row.label || '–' }}</span>
          <span class="name"
            >{{ row.name
            }}<small v-if="row.verdict !== 'fine'" :class="row.verdict"> {{ told(row) }}</small></span
          >
          <span class="mute" title="all its cable as it lies">{{ long(row) }}</span>
        </button>
        <template v-if="row.id === circuit">
          <button
            v-for="one in row.ways.length > 1 ? waysOf(row.ways) : []"
            :key="one.id"
            type="button"
            class="plain side-row sub num"
            :class="{ here: one.id === way }"
            :data-way="one.id"
            @click="emit('way', one.id)"
          >
            <i :class="one.verdict" :title="one.verdict" />
            <span>{{ one.name }}</span>
            <span class="mute">{{ feet(one.length_in) }}</span>
          </button>
          <button
            v-for="one in hops.filter((item) => item.kind !== 'walked')"
            :key="one.box"
            type="button"
            class="plain side-row sub num"
            :class="{ here: one.way !== null && one.way === way }"
            :disabled="!one.way"
            :title="one.why || `${one.after} to ${one.name}`"
            :data-hop="one.box"
            @click="one.way && emit('way', one.way)"
          >
            <i :class="one.verdict" :title="one.verdict" />
            <span
              >{{ one.name }}<small v-if="KINDS[one.kind]" class="mute"> {{ KINDS[one.kind] }}</small></span
            >
            <span class="mute">{{ one.length_in === null ? '–' : feet(one.length_in) }}</span>
          </button>
          <button
            v-if="row.unwalked"
            type="button"
            class="plain side-add sub-add num no-print"
            data-testid="walk-next"
            @click="emit('add')"
          >
            + Walk {{ row.ways.length ? 'what is left' : 'its way' }} by hand
          </button>
        </template>
      </template>
    </section>
    <section v-if="idle.length">
      <h2 class="caps">Carry nothing yet</h2>
      <button
        v-for="one in waysOf(idle)"
        :key="one.id"
        type="button"
        class="plain side-row cols num"
        :class="{ here: one.id === way }"
        :aria-current="one.id === way && !circuit"
        :data-way="one.id"
        @click="emit('way', one.id)"
      >
        <i :class="one.verdict" :title="one.verdict" />
        <span class="label">–</span>
        <span class="name">{{ one.name }}</span>
        <span class="mute">{{ feet(one.length_in) }}</span>
      </button>
    </section>
    <button type="button" class="plain side-add num no-print" data-testid="add-way" @click="emit('add')">
      + New way
    </button>
  </SideNav>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 36px 1fr auto;
}
button.plain.sub {
  grid-template-columns: 6px 1fr auto;
  padding-left: 48px;
}
button.plain.sub-add {
  padding-left: 48px;
}
</style>
