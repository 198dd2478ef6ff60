<script setup lang="ts">
/** A link that asks for a file, and gives it once. */
defineProps<{ text: string; label: string; accept: string }>()
const emit = defineEmits<{ file: [file: File] }>()
function picked(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <label>
    {{ text }}
    <input type="file" :accept="accept" :aria-label="label" @change="picked" />
  </label>
</template>

<style scoped>
label {
  color: var(--chalk);
  text-decoration: underline;
  cursor: pointer;
}
label:focus-within {
  outline: 2px solid var(--chalk);
}
input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
</style>
