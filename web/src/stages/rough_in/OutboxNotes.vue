<script setup lang="ts">
import { computed } from 'vue'

import { useOutbox } from '../../stores/outbox'

/** What waits on this phone: ticks for the signal, photos with how far they are, or why they are not taken. */
const outbox = useOutbox()
const photos = computed(() =>
  outbox.mine
    .filter((item) => item.photo)
    .map((item) => ({ ...item, share: Math.round((outbox.progress[item.id] ?? 0) * 100) })),
)
const ticks = computed(() => outbox.mine.filter((item) => item.edits && !item.refused).length)
const refused = computed(() => outbox.mine.filter((item) => item.edits && item.refused))
</script>

<template>
  <p v-if="ticks" class="waits num" role="status" data-testid="waits">
    {{ ticks }} {{ ticks === 1 ? 'tick waits' : 'ticks wait' }} for the signal, and
    {{ ticks === 1 ? 'is' : 'are' }} kept on this phone.
  </p>
  <p v-for="item in [...photos, ...refused]" :key="item.id" class="waits num" role="status">
    {{ item.label }}:
    {{
      item.refused ??
      ('share' in item && item.share ? `${item.share} %` : 'waits for the signal, kept on this phone')
    }}
    <progress v-if="'share' in item && item.share && !item.refused" :value="item.share" max="100" />
    <button v-if="item.refused" type="button" class="plain" @click="outbox.forget(item.id)">Leave it</button>
  </p>
</template>

<style scoped>
.waits {
  margin: 0 0 8px;
  padding: 6px 10px;
  background: var(--check-wash);
  border-left: 5px solid var(--check-mark);
  font-size: 14.5px;
}
.waits progress {
  width: 100%;
}
.waits button {
  font-weight: 600;
  text-decoration: underline;
}
</style>
