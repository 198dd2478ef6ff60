<script setup lang="ts">
import { computed } from 'vue'

import type { Figure } from '../../api/client'
import ReasonMenu from '../../parts/ReasonMenu.vue'
import VialGauge from '../../parts/VialGauge.vue'

/** Numbers with their reasons: those with a limit as vials, the others as rows under them. */
const props = defineProps<{ figures: Figure[] }>()
const margins = computed(() => props.figures.filter((figure) => figure.limit != null))
const others = computed(() => props.figures.filter((figure) => figure.limit == null))
</script>

<template>
  <VialGauge v-for="figure in margins" :key="figure.key" :figure="figure" />
  <ReasonMenu v-for="figure in others" :key="figure.key" :figure="figure">
    <span class="row num"
      ><span>{{ figure.label }}</span
      ><b>{{ figure.text }}</b></span
    >
  </ReasonMenu>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  font-size: 15px;
  padding: 3px 0;
}
</style>
