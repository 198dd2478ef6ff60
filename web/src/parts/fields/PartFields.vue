<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Problem } from '../../api/client'
import { useJob } from '../../stores/job'
import { inchText, tapeText } from '../planScale'
import { choicesOf, type Choice, type Field, type FieldWord, type Part } from './field'
import OneField, { type Look } from './OneField.vue'

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

function lookOf(field: Field, word: FieldWord): Look {
  if (field.as) return 'length'
  if (field.list || word.type === 'choice') return 'choice'
  if (word.type === 'yes_no') return word.open ? 'choice' : 'tick'
  return 'text'
}
/** The words of fields of choice: the same ones while the part changes. */
const choices = computed(
  () =>
    new Map(
      props.fields.flatMap((field): [string, Choice[]][] => {
        const word = words.value.get(field.name)
        return word ? [[field.name, choicesOf(field, word)]] : []
      }),
    ),
)
const items = (field: Field) => (field.list ? props.lists?.[field.list] : choices.value.get(field.name))
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
  const own = field.as ? (value as number) + under(field) : value
  const found = await props.set({ [field.name]: own }, field)
  problem.value = found && found.status !== 409 ? { name: field.name, detail: found.detail } : null
}
</script>

<template>
  <div class="pick-fields no-print">
    <OneField
      v-for="({ field, word, look }, i) in others"
      :key="field.name"
      :class="{ wide: field.wide }"
      :field="field"
      :word="word"
      :look="look"
      :value="look === 'length' ? length(field) : part[field.name]"
      :items="items(field)"
      :refused="wrong(field)"
      :focused="focused && i === 0"
      :change="change"
    />
    <div v-if="ticks.length" class="wide ticks">
      <OneField
        v-for="{ field, word, look } in ticks"
        :key="field.name"
        :field="field"
        :word="word"
        :look="look"
        :value="part[field.name]"
        :refused="wrong(field)"
        :change="change"
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
