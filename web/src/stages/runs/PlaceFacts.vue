<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Leg, LegPlan } from '../../api/client'

/** What the place of this leg is like. A fact that was changed stands out; "as usual" takes it back. */
const props = defineProps<{ leg: Leg; planned: LegPlan; run: string }>()
const emit = defineEmits<{ edit: [edits: Edit[]] }>()

const yesNo = [
  { title: 'yes', value: true },
  { title: 'no', value: false },
]
const rows = computed(() => {
  const found = [
    { key: 'moisture', label: 'Moisture', items: ['dry', 'damp', 'wet'] as unknown[] },
    { key: 'damage', label: 'Can be hit', items: yesNo as unknown[] },
    { key: 'exposed', label: 'Exposed', items: yesNo as unknown[] },
    { key: 'sunlight', label: 'In sunlight', items: yesNo as unknown[] },
  ]
  if (props.planned.facts.above)
    found.push({
      key: 'above',
      label: 'Above it',
      items: [
        ['open_ground', 'open ground'],
        ['concrete_2in', '2″ of concrete'],
        ['slab_4in', '4″ slab'],
        ['driveway', 'own driveway'],
        ['street', 'street or lot'],
        ['under_building', 'building'],
      ].map(([value, title]) => ({ value, title })),
    })
  return found
})

const said = (key: string) => (props.leg.facts as Record<string, unknown>)[key] ?? null
const usual = (key: string) => (props.planned.facts as Record<string, unknown>)[key] ?? null

function change(key: string, value: unknown) {
  const facts = { ...props.leg.facts, [key]: value ?? null }
  emit('edit', [{ op: 'set_leg', run: props.run, leg: props.planned.index, set: { facts } }])
}
</script>

<template>
  <details class="facts no-print">
    <summary class="num">What this place is like</summary>
    <div class="grid">
      <v-select
        v-for="row in rows"
        :key="row.key"
        :label="said(row.key) === null ? row.label : `${row.label}, changed`"
        :items="row.items"
        :model-value="usual(row.key)"
        :placeholder="'not said'"
        :clearable="said(row.key) !== null"
        @update:model-value="change(row.key, $event)"
      />
      <v-checkbox
        v-if="planned.method_name"
        label="Pipe is a sleeve: the cable goes on through it"
        :model-value="leg.sleeve"
        class="wide"
        @update:model-value="
          emit('edit', [{ op: 'set_leg', run, leg: planned.index, set: { sleeve: $event === true } }])
        "
      />
    </div>
  </details>
</template>

<style scoped>
.facts {
  margin-top: 10px;
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  color: var(--chalk);
  font-size: 15px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 9px 8px;
  margin-top: 10px;
}
.wide {
  grid-column: span 2;
}
</style>
