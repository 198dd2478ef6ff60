<script setup lang="ts">
import { ref } from 'vue'

import type { TrenchStep } from '../../api/client'

/** The order of work at a trench: a tick a step; what holds is lifted by whoever saw it. */
defineProps<{ steps: TrenchStep[] }>()
const emit = defineEmits<{
  tick: [step: string, done: boolean, why: string]
  lift: [by: string]
  call: []
}>()
const STATES: Record<string, string> = {
  done: 'done',
  next: 'next',
  hold: 'hold',
  later: '',
  skipped: 'skipped',
}
const asked = ref<string | null>(null)
const said = ref('')
function tap(step: TrenchStep) {
  if (step.key === 'inspection') {
    if (step.state === 'done') return emit('lift', '')
    return ask('inspection')
  }
  if (step.state === 'done') return emit('tick', step.key, false, '')
  emit('tick', step.key, true, '')
}
function ask(step: string) {
  asked.value = step
  said.value = ''
}
function answer() {
  const words = said.value.trim()
  if (!words || !asked.value) return
  if (asked.value === 'inspection') emit('lift', words)
  else emit('tick', asked.value, true, words)
  asked.value = null
}
defineExpose({ ask })
</script>

<template>
  <section data-testid="steps">
    <h3>Order of work</h3>
    <ol>
      <li v-for="step in steps" :key="step.key" :class="step.state" :data-step="step.key">
        <button type="button" class="plain tick" :aria-pressed="step.state === 'done'" @click="tap(step)">
          <i aria-hidden="true" />
          <span class="title">{{ step.title }}</span>
          <span class="state num">{{ step.on || STATES[step.state] }}</span>
        </button>
        <small v-if="step.text" class="mute">{{ step.text }}</small>
        <v-btn
          v-if="step.key === 'marks' && step.state === 'next'"
          size="small"
          variant="outlined"
          class="no-print"
          @click="emit('call')"
        >
          Call the desk (simulated)
        </v-btn>
        <form v-if="asked === step.key" class="ask" @submit.prevent="answer" @keydown.esc.stop="asked = null">
          <label>
            {{ step.key === 'inspection' ? 'Seen by' : 'Out of turn, because' }}
            <input v-model="said" type="text" maxlength="60" autofocus />
          </label>
          <v-btn size="small" variant="flat" color="ink" type="submit">{{
            step.key === 'inspection' ? 'Lift the hold' : 'Tick it'
          }}</v-btn>
        </form>
      </li>
    </ol>
  </section>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
ol {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  position: relative;
  border-top: 1px solid var(--rule);
  padding: 2px 0 4px;
}
.tick {
  display: grid;
  grid-template-columns: 22px 1fr auto;
  gap: 6px;
  align-items: center;
  width: 100%;
  min-height: 32px;
  text-align: left;
  font-size: 15px;
}
i {
  width: 15px;
  height: 15px;
  border-radius: 50%;
  border: 2.4px solid var(--rule);
  box-sizing: border-box;
  justify-self: center;
}
.done i {
  background: var(--fine);
  border-color: var(--fine);
}
.next i {
  background: var(--chalk);
  border-color: var(--chalk);
}
.hold i,
.skipped i {
  border-color: var(--check-mark);
}
.next .title {
  font-weight: 600;
}
.state {
  font-weight: 600;
  font-size: 14px;
  color: var(--mute);
}
.hold .state,
.skipped .state {
  color: var(--check);
}
.next .state {
  color: var(--chalk);
}
small {
  display: block;
  margin: -4px 0 2px 28px;
  font-size: 13.5px;
}
.ask {
  display: flex;
  gap: 8px;
  align-items: end;
  margin: 2px 0 6px 28px;
}
.ask label {
  flex: 1;
  font-size: 13.5px;
}
.ask input {
  display: block;
  width: 100%;
  min-height: 34px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  background: var(--card);
  color: var(--ink);
  padding: 2px 8px;
  font: inherit;
  font-size: 15px;
}
li > :deep(.v-btn) {
  margin: 2px 0 4px 28px;
}
</style>
