<script setup lang="ts">
import { computed, ref, watch } from 'vue'

/** A blank of the sentence: what stands in it, and a tap away what else may. `free`: it may be typed too. */
const props = defineProps<{
  label: string
  empty: string
  choices?: { title: string; value: string }[]
  free?: boolean
  before?: string
}>()
const value = defineModel<string>({ required: true })
const open = ref(false)
const typed = ref('')
const shown = computed(
  () => props.choices?.find((choice) => choice.value === value.value)?.title ?? (value.value || props.empty),
)
const field = ref<{ $el: HTMLElement } | null>(null)
/** What is typed stands in place of what was there: its field takes the keys as soon as it can be seen. */
function select(tries: number) {
  const input = open.value ? field.value?.$el.querySelector('input') : null
  input?.focus({ preventScroll: true })
  if (input && document.activeElement === input) input.select()
  else if (open.value && tries) requestAnimationFrame(() => select(tries - 1))
}
watch(open, (now) => {
  typed.value = value.value
  if (now && props.free) requestAnimationFrame(() => select(60))
})
function take(next: string) {
  value.value = next
  open.value = false
}
</script>

<template>
  <span>
    {{ before }}
    <v-menu v-model="open" :close-on-content-click="false">
      <template #activator="{ props: on }">
        <button
          v-bind="on"
          type="button"
          class="plain blank"
          :aria-label="`${label}: ${shown}`"
          :data-blank="label"
        >
          {{ shown }}
        </button>
      </template>
      <v-card class="sheet" :aria-label="label">
        <form v-if="free" @submit.prevent="take(typed.trim())">
          <v-text-field
            ref="field"
            v-model="typed"
            :label="label"
            autocomplete="off"
            density="compact"
            hide-details
            variant="outlined"
          />
        </form>
        <v-list v-if="choices?.length" density="compact" max-height="320">
          <v-list-item
            v-for="choice in choices"
            :key="choice.value"
            :title="choice.title"
            :active="choice.value === value"
            @click="take(choice.value)"
          />
        </v-list>
      </v-card>
    </v-menu>
  </span>
</template>

<style scoped>
.blank {
  color: var(--chalk);
  font-weight: 600;
  border-bottom: 2px dotted var(--chalk);
  padding: 0 3px;
  min-height: 28px;
}
.blank:hover {
  background: var(--note-wash);
}
.sheet {
  padding: 8px;
  min-width: 180px;
}
</style>
