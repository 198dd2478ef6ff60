<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Edit, WallPhoto } from '../../api/client'

/** A photo large, with its two readings, what is said of it, and the way to take it away. */
const props = defineProps<{
  photo: WallPhoto | null
  job: string
  act: (edits: Edit[], label?: string) => Promise<unknown>
}>()
const emit = defineEmits<{ close: [] }>()
const shown = computed({ get: () => !!props.photo, set: (open) => !open && emit('close') })
const remarks = ref('')
const broken = ref(false)
watch(
  () => props.photo?.id,
  () => {
    remarks.value = props.photo?.remarks ?? ''
    broken.value = false
  },
)
const save = () =>
  props.photo &&
  remarks.value !== props.photo.remarks &&
  props.act(
    [{ op: 'set', kind: 'photo', id: props.photo.id, set: { remarks: remarks.value } }],
    'of the photo',
  )
async function remove() {
  if (!props.photo) return
  await props.act([{ op: 'drop', kind: 'photo', id: props.photo.id }], 'take the photo away')
  emit('close')
}
</script>

<template>
  <v-dialog v-model="shown" max-width="960" aria-label="Photo">
    <v-card v-if="photo" class="pa-5">
      <h2>Photo {{ photo.number }}</h2>
      <p class="num">{{ photo.text }}</p>
      <p v-if="broken" class="mute">
        The picture is not on this machine: it stays in the data folder where it was taken in.
      </p>
      <img
        v-else
        :src="`/api/jobs/${job}/photos/${photo.id}/large.jpg`"
        :alt="`Photo ${photo.number}: ${photo.text}`"
        @error="broken = true"
      />
      <v-text-field
        v-model="remarks"
        label="What it shows"
        autocomplete="off"
        @blur="save"
        @keydown.enter="save"
      />
      <div class="d-flex ga-2 justify-end">
        <v-btn variant="text" @click="remove">Take it away</v-btn>
        <v-btn variant="flat" color="ink" @click="emit('close')">Done</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
img {
  display: block;
  max-width: 100%;
  max-height: 58vh;
  margin: 6px auto 12px;
}
p {
  margin: 4px 0;
}
</style>
