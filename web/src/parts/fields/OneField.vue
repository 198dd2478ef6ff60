<script setup lang="ts">
import MeasureField from '../MeasureField.vue'
import { taken, type Choice, type Field, type FieldWord } from './field'

/**
 * One field of a part. Each of its props is the same while nothing of the field changes, so that of a form no more is
 * drawn anew than what an edit has changed; for that `change` is handed in and not listened to.
 */
export type Look = 'length' | 'choice' | 'tick' | 'text'
const props = defineProps<{
  field: Field
  word: FieldWord
  look: Look
  /** What the part has; a length as it is written. */
  value: unknown
  items?: Choice[]
  refused?: string
  focused?: boolean
  change: (field: Field, value: unknown) => void
}>()
const typed = (event: Event) => (event.target as HTMLInputElement).value
const said = (value: unknown) => props.change(props.field, value)
</script>

<template>
  <MeasureField
    v-if="look === 'length'"
    :label="field.label"
    :bare="field.as === 'inches' ? 'in' : undefined"
    :text="value as string"
    :refused="refused"
    @inches="said"
  />
  <v-select
    v-else-if="look === 'choice'"
    :label="field.label"
    :model-value="value"
    :items="items"
    :error-messages="refused"
    @update:model-value="said"
  />
  <v-checkbox
    v-else-if="look === 'tick'"
    :label="field.label"
    :model-value="value"
    :error-messages="refused"
    @update:model-value="said($event === true)"
  />
  <v-text-field
    v-else
    :label="field.label"
    :placeholder="field.usual"
    :autofocus="focused"
    :model-value="value as string"
    :inputmode="word.type === 'number' ? 'decimal' : undefined"
    :error-messages="refused"
    @change="said(taken(typed($event), word))"
  />
</template>
