<script setup lang="ts">
import { computed, onMounted } from 'vue'

import type { Box, Panel } from '../../api/client'
import type { Field, Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { useBoxWords } from '../../stores/boxWords'
import { useJob } from '../../stores/job'
import { BOX_FIELDS, PANEL_FIELDS } from './boxFields'

/** Everything about a box or a panel that can be changed by hand. */
const props = defineProps<{ kind: 'box' | 'panel'; part: Box | Panel }>()
const store = useJob()
const words = useBoxWords()
onMounted(() => void words.load())

const floor = computed(() => store.levelOf(store.room?.level)?.floor_in ?? 0)
const lists = computed(() => ({
  models: [
    { value: '', title: 'usual, larger if it must be' },
    ...words.models.map((m) => ({ value: m.key, title: m.name })),
  ],
  gangs: [1, 2, 3, 4].map((value) => ({ value, title: String(value) })),
  lugs: [{ value: '', title: 'as usual for its main' }, ...store.sizes],
  holes: [{ value: '', title: 'not said' }, ...store.sizes],
}))
const set = (values: Part, field: Field) =>
  store.edit(
    [{ op: 'set', kind: props.kind, id: props.part.id, set: values }],
    `${props.part.name}: ${field.label.toLowerCase()}`,
  )
</script>

<template>
  <PartFields
    :kind="kind"
    :fields="kind === 'box' ? BOX_FIELDS : PANEL_FIELDS"
    :part="part"
    :set="set"
    :lists="lists"
    :over="{ height_in: floor }"
  />
</template>
