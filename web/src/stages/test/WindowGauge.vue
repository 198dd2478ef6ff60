<script setup lang="ts">
import { computed } from 'vue'

import type { TestStep } from '../../api/client'
import { figure, track } from './window'

/** A vial for a reading: the fluid is its window, the bubble the reading; outside it stands red. */
const props = defineProps<{ step: TestStep }>()
const shown = computed(() => track(props.step))
const said = computed(() => {
  const { low, high, unit, value } = props.step
  if (low == null || high == null) return 'no window: a length is not known'
  const read = value == null ? 'not read yet' : `read ${value} ${unit}`
  return `${read}, window ${figure(low)} to ${figure(high)} ${unit}`
})
</script>

<template>
  <div class="gauge num" role="img" :aria-label="said">
    <template v-if="shown">
      <div class="tube" :class="{ over: shown.over }">
        <i class="fluid" :style="{ left: `${shown.from}%`, width: `${shown.to - shown.from}%` }" />
        <i v-if="shown.expected !== null" class="plan" :style="{ left: `${shown.expected}%` }" />
        <i v-if="shown.at !== null" class="bubble" :style="{ left: `${shown.at}%` }" />
      </div>
      <span class="edge" :style="{ left: `${shown.from}%` }">{{ figure(step.low ?? 0) }}</span>
      <span v-if="step.kind !== 'megohms'" class="edge" :style="{ left: `${shown.to}%` }">{{
        figure(step.high ?? 0)
      }}</span>
    </template>
    <p v-else class="mute">no window: a length of this circuit is not known</p>
  </div>
</template>

<style scoped>
.gauge {
  position: relative;
  height: 36px;
  min-width: 120px;
}
.tube {
  position: relative;
  height: 17px;
  border: 1.4px solid var(--ink);
  border-radius: 9px;
  background: var(--note-wash);
  overflow: hidden;
}
.fluid {
  position: absolute;
  inset-block: 0;
  background: var(--lime);
  border-inline: 1px solid var(--lime-deep);
}
.plan {
  position: absolute;
  inset-block: 3px;
  width: 1.5px;
  background: var(--lime-deep);
}
.bubble {
  position: absolute;
  top: 2px;
  width: 20px;
  height: 10px;
  margin-left: -10px;
  border-radius: 50%;
  background: var(--card);
  border: 1.6px solid var(--ink);
}
.over .bubble {
  border: 2.6px solid var(--stop);
}
.edge {
  position: absolute;
  top: 19px;
  transform: translateX(-50%);
  font-size: 13px;
  color: var(--ink);
}
p {
  margin: 0;
  font-size: 14px;
}
</style>
