<script setup lang="ts">
/** The levels of all structures, one tap each. */
defineProps<{ levels: { id: string; title: string }[]; current: string | null }>()
const emit = defineEmits<{ look: [id: string] }>()
</script>

<template>
  <div class="tabs num no-print" role="tablist" aria-label="Levels">
    <slot />
    <button
      v-for="level in levels"
      :key="level.id"
      type="button"
      role="tab"
      class="plain"
      :class="{ here: level.id === current }"
      :aria-selected="level.id === current"
      :data-level="level.id"
      @click="emit('look', level.id)"
    >
      {{ level.title }}
    </button>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 2px;
  overflow-x: auto;
  border-bottom: 1px solid var(--rule);
  padding: 4px 10px 0;
  flex: none;
}
.tabs :deep(button) {
  padding: 5px 10px 6px;
  font-weight: 600;
  font-size: 14px;
  color: var(--mute);
  white-space: nowrap;
  border-bottom: 3px solid transparent;
}
.tabs :deep(.here) {
  color: var(--ink);
  border-bottom-color: var(--lime);
}
</style>
