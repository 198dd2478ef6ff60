<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Problem } from '../../api/client'
import { useJob } from '../../stores/job'
import MeasureField from '../MeasureField.vue'
import { inchText, tapeText } from '../planScale'
import { choicesOf, taken, type Choice, type Field, type FieldWord, type Part } from './field'

/**
 * The fields of a part, from a list of fields: every form of the program is made of this. A refusal is told at the
 * field that was changed. `over`: what a height is shown over. `refused`: a refusal of the whole, told at its field.
 */
const props = defineProps<{
  kind: string
  fields: Field[]
  part: object
  set: (values: Part, field: Field) => Promise<Problem | null> | null
  lists?: Record<string, Choice[]>
  over?: Record<string, number>
  refused?: Problem | null
  focused?: boolean
}>()
const store = useJob()
const problem = ref<{ name: string; detail: string } | null>(null)

const part = computed(() => props.part as Part)
const words = computed(
  () => new Map((store.vocabulary?.fields[props.kind] ?? []).map((w) => [w.name, w as FieldWord])),
)
const rows = computed(() =>
  props.fields.flatMap((field) => {
    const word = words.value.get(field.name) ?? listed(field)
    return word && (field.when?.(part.value) ?? true) ? [{ field, word, look: lookOf(field, word) }] : []
  }),
)
const ticks = computed(() => rows.value.filter((row) => row.look === 'tick'))
const others = computed(() => rows.value.filter((row) => row.look !== 'tick'))

/** A field that is no part of the model, with a list of its own. */
const listed = (field: Field): FieldWord | undefined =>
  field.list ? { name: field.name, type: 'choice' } : undefined

function lookOf(field: Field, word: FieldWord) {
  if (field.as) return 'length'
  if (field.list || word.type === 'choice') return 'choice'
  if (word.type === 'yes_no') return word.open ? 'choice' : 'tick'
  return 'text'
}
const items = (field: Field, word: FieldWord) =>
  field.list ? (props.lists?.[field.list] ?? []) : choicesOf(field, word)
const under = (field: Field) => props.over?.[field.name] ?? 0
function length(field: Field) {
  const value = part.value[field.name]
  if (value === null || value === undefined) return ''
  return (field.as === 'inches' ? inchText : tapeText)((value as number) - under(field), store.metric)
}
const wrong = (field: Field) =>
  problem.value?.name === field.name
    ? problem.value.detail
    : props.refused?.key?.split('.').includes(field.name)
      ? props.refused.detail
      : undefined
async function change(field: Field, value: unknown) {
  const found = await props.set({ [field.name]: value }, field)
  problem.value = found && found.status !== 409 ? { name: field.name, detail: found.detail } : null
}
const typed = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="pick-fields no-print">
    <template v-for="({ field, word, look }, i) in others" :key="field.name">
      <MeasureField
        v-if="look === 'length'"
        :label="field.label"
        :class="{ wide: field.wide }"
        :bare="field.as === 'inches' ? 'in' : undefined"
        :text="length(field)"
        :refused="wrong(field)"
        @inches="change(field, $event + under(field))"
      />
      <v-select
        v-else-if="look === 'choice'"
        :label="field.label"
        :class="{ wide: field.wide }"
        :model-value="part[field.name]"
        :items="items(field, word)"
        :error-messages="wrong(field)"
        @update:model-value="change(field, $event)"
      />
      <v-text-field
        v-else
        :label="field.label"
        :class="{ wide: field.wide }"
        :placeholder="field.usual"
        :autofocus="focused && i === 0"
        :model-value="part[field.name] as string"
        :inputmode="word.type === 'number' ? 'decimal' : undefined"
        :error-messages="wrong(field)"
        @change="change(field, taken(typed($event), word))"
      />
    </template>
    <div v-if="ticks.length" class="wide ticks">
      <v-checkbox
        v-for="{ field } in ticks"
        :key="field.name"
        :label="field.label"
        :model-value="part[field.name]"
        :error-messages="wrong(field)"
        @update:model-value="change(field, $event === true)"
      />
    </div>
    <slot />
  </div>
</template>

<style scoped>
.ticks {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
</style>
