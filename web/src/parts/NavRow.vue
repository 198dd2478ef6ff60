<script setup lang="ts">
/** A row of the list at the left: its verdict as a bar, its name, what it counts. */
defineProps<{ name: string; text: string; verdict: string; here: boolean; note?: string }>()
</script>

<template>
  <button type="button" class="plain side-row cols num" :class="{ here }" :aria-current="here">
    <i :class="verdict" :title="verdict || undefined" />
    <span class="name"
      >{{ name }}<small v-if="note" class="mute"> {{ note }}</small></span
    >
    <span class="mute">{{ text }}</span>
  </button>
</template>

<style scoped>
.cols {
  grid-template-columns: 6px 1fr auto;
}
small {
  display: inline;
  margin-left: 6px;
  font-weight: 500;
}
i.none {
  background: var(--rule);
}
</style>
