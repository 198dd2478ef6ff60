<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'

import { api, ask } from '../api/client'

/** A length field: takes any tape reading, tells what is wrong where it was typed, gives inches. */
const props = defineProps<{
  text: string
  label?: string
  named?: string
  bare?: 'in'
  focused?: boolean
  refused?: string
}>()
const emit = defineEmits<{ inches: [value: number]; cancel: [] }>()

const typed = ref(props.text)
const wrong = ref('')
const field = ref<{ focus: () => void; select: () => void } | null>(null)
watch(
  () => props.text,
  (next) => (typed.value = next),
)
onMounted(() => {
  if (props.focused) {
    field.value?.focus()
    field.value?.select()
  }
})

let sent = ''
async function commit() {
  if (typed.value === props.text || typed.value === sent) {
    if (typed.value === props.text) emit('cancel')
    return
  }
  sent = typed.value
  const body = { text: typed.value, bare: props.bare ?? null }
  const { data, problem } = await ask(api.POST('/api/measure', { body }))
  if (problem) {
    wrong.value = problem.detail
    sent = ''
  } else {
    wrong.value = ''
    emit('inches', data.inches)
  }
}
</script>

<template>
  <v-text-field
    ref="field"
    v-model="typed"
    :label="label"
    :aria-label="label ? undefined : named"
    :error-messages="wrong || refused"
    autocomplete="off"
    @keydown.enter.prevent="commit"
    @keydown.esc.stop="emit('cancel')"
    @blur="commit"
  />
</template>
