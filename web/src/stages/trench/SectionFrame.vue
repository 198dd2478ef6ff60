<script setup lang="ts">
import { ref, watch } from 'vue'

import { useSize } from '../../parts/useSize'

/** The card of a long section: its title, what is told of its scale, and how wide the picture may be. */
defineProps<{ title: string; told: string }>()
const emit = defineEmits<{ width: [px: number] }>()
const host = ref<HTMLElement | null>(null)
const { width } = useSize(host, 740)
watch(width, (now) => emit('width', now))
</script>

<template>
  <div ref="host" class="host">
    <header>
      <h3>{{ title }}</h3>
      <span class="mute num">{{ told }}</span>
    </header>
    <slot />
  </div>
</template>

<style scoped>
.host {
  background: var(--card);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding: 8px 14px 0;
}
h3 {
  margin: 0;
}
.host :deep(svg) {
  display: block;
}
</style>
