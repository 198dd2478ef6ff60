<script setup lang="ts">
/** A stage with nothing in it yet: what it is for in one line, and one tap that starts it. */
defineProps<{ title: string; action?: string }>()
const emit = defineEmits<{ begin: [] }>()
</script>

<template>
  <div class="empty">
    <div>
      <h2>{{ title }}</h2>
      <p class="mute"><slot /></p>
      <v-btn v-if="action" variant="flat" color="ink" data-testid="begin" @click="emit('begin')">{{
        action
      }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.empty {
  flex: 1;
  display: flex;
  align-items: center;
  justify-content: center;
  text-align: center;
  padding: 24px 18px;
  min-height: 50%;
}
p {
  max-width: 52ch;
  margin: 6px auto 14px;
}
</style>
