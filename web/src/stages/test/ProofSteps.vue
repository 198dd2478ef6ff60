<script setup lang="ts">
import { nextTick, ref } from 'vue'

import type { TestStep } from '../../api/client'
import { typedNumber } from './window'
import WindowGauge from './WindowGauge.vue'

/** The order of proof: each step with its window and its reading, typed, tapped, or from the simulated meter. */
const props = defineProps<{ steps: TestStep[]; busy: string }>()
const emit = defineEmits<{
  value: [step: TestStep, value: number, meter: string]
  word: [step: TestStep, word: 'yes' | 'no']
  meter: [step: TestStep]
}>()
const host = ref<HTMLElement | null>(null)
const wrong = ref<{ key: string; text: string } | null>(null)
const high = ref(false)
const MOST: Record<string, number> = { volts: 1000, ohms: 1_000_000, megohms: 100_000 }

function typed(step: TestStep, field: HTMLInputElement) {
  const text = field.value.trim()
  wrong.value = null
  if (!text || text === String(step.value ?? '')) return
  const value = typedNumber(text)
  const most = MOST[step.kind] ?? 0
  if (value === null || value < 0 || value > most) {
    wrong.value = {
      key: step.key,
      text: `“${text}”: allowed: 0 to ${most.toLocaleString('en')} ${step.unit}`,
    }
    return
  }
  emit('value', step, value, high.value ? 'high' : 'low')
  void nextTick(() => focusNext(step.key))
}
function focusNext(after: string) {
  const fields = [...(host.value?.querySelectorAll<HTMLElement>('[data-field]') ?? [])]
  const at = fields.findIndex((one) => one.dataset.field === after)
  fields[at + 1]?.focus()
}
/** The field or first button of the next step. */
function focus() {
  const next = host.value?.querySelector<HTMLElement>('li.next [data-field]')
  next?.focus()
  next?.scrollIntoView({ block: 'nearest' })
}
function yes() {
  const step = props.steps.find((one) => one.state === 'next' && one.kind === 'word')
  if (step) emit('word', step, 'yes')
}
defineExpose({ focus, yes })
</script>

<template>
  <div ref="host">
    <p class="meter num">
      <label><input v-model="high" type="checkbox" /> my meter is high-impedance (most are)</label>
    </p>
    <ol>
      <li v-for="(step, i) in steps" :key="step.key" :class="step.state" :data-proof="step.key">
        <span class="number num" aria-hidden="true">{{ i + 1 }}</span>
        <div class="what">
          <b class="num">{{ step.title }}</b>
          <small class="mute">{{ step.sub }}</small>
          <small v-if="step.state === 'next' && step.caution" class="caution">{{ step.caution }}</small>
          <small v-if="step.history.length > 1" class="mute num"
            >before:
            {{
              step.history
                .slice(0, -1)
                .slice(-3)
                .map((one) => `${one.text}${one.on ? ` on ${one.on}` : ''}${one.who ? `, ${one.who}` : ''}`)
                .join('; ')
            }}</small
          >
          <small v-if="step.text" class="said" :class="step.verdict">{{ step.text }}</small>
        </div>
        <template v-if="step.kind === 'word'">
          <div class="words">
            <button
              v-for="(word, n) in step.words"
              :key="word"
              type="button"
              class="plain num"
              :class="{ on: step.word === (n ? 'no' : 'yes'), bad: n && step.word === 'no' }"
              :aria-pressed="step.word === (n ? 'no' : 'yes')"
              :data-field="n ? undefined : step.key"
              @click="emit('word', step, n ? 'no' : 'yes')"
            >
              {{ word }}
            </button>
          </div>
          <span class="read num mute">{{ step.history.at(-1)?.on }}</span>
        </template>
        <template v-else>
          <WindowGauge :step="step" />
          <div class="read">
            <label v-if="!step.waits" class="num"
              ><span class="unseen">{{ step.title }}, {{ step.unit }}</span>
              <input
                :value="step.value ?? ''"
                inputmode="decimal"
                :class="step.verdict"
                :data-field="step.key"
                @change="typed(step, $event.target as HTMLInputElement)"
              />
              {{ step.unit }}</label
            >
            <small v-else class="mute">{{ step.waits }}</small>
            <button
              v-if="step.simulated && !step.waits"
              type="button"
              class="plain sim"
              :disabled="busy === step.key"
              :aria-label="`simulate: ${step.title}`"
              @click="emit('meter', step)"
            >
              simulate
            </button>
            <small v-if="wrong?.key === step.key" class="wrong" role="alert">{{ wrong.text }}</small>
          </div>
        </template>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.meter {
  margin: 0;
  padding: 0 14px 4px;
  font-size: 14px;
  color: var(--mute);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 26px minmax(140px, 1.25fr) minmax(100px, 1fr) 116px;
  gap: 4px 14px;
  align-items: center;
  padding: 7px 14px;
  border-top: 1px solid var(--rule);
}
li.next {
  background: color-mix(in srgb, var(--lime) 20%, var(--card));
}
li.next .mute {
  color: var(--ink);
}
.number {
  display: grid;
  place-items: center;
  width: 25px;
  height: 25px;
  border-radius: 50%;
  border: 2px solid var(--rule);
  font-size: 14px;
  font-weight: 600;
}
.done .number {
  background: var(--fine);
  border-color: var(--fine);
  color: var(--card);
}
.off .number {
  background: var(--stop);
  border-color: var(--stop);
  color: var(--card);
}
.next .number {
  border-color: var(--chalk);
  color: var(--chalk);
}
.what b {
  font-weight: 600;
  font-size: 15.5px;
}
small {
  display: block;
  font-size: 13.5px;
  line-height: 1.25;
}
.caution {
  border-left: 4px solid var(--check-mark);
  padding-left: 7px;
  margin-top: 3px;
  color: var(--ink);
}
.said.stop {
  color: var(--stop);
  font-weight: 600;
}
.said.check {
  color: var(--check);
  font-weight: 600;
}
.words {
  display: flex;
  gap: 6px;
}
.words button {
  flex: 1;
  min-height: 34px;
  padding: 2px 6px;
  border: 1.4px solid var(--ink);
  border-radius: 4px;
  background: var(--card);
  font-weight: 600;
  font-size: 14.5px;
  text-align: center;
}
.words .on {
  background: var(--fine);
  border-color: var(--fine);
  color: var(--card);
}
.words .bad {
  background: var(--stop);
  border-color: var(--stop);
}
.read {
  text-align: right;
  font-size: 14px;
}
.read input {
  width: 66px;
  min-height: 32px;
  text-align: right;
  border: 1.2px solid var(--mute);
  border-radius: 3px;
  background: var(--card);
  color: inherit;
  font: inherit;
  font-size: 16px;
  font-weight: 600;
  padding: 2px 6px;
}
.read input.stop {
  color: var(--stop);
  border-color: var(--stop);
}
.sim {
  font-size: 13px;
  color: var(--chalk);
  text-decoration: underline dotted;
  min-height: 24px;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 26px minmax(0, 1fr) 116px;
  }
  .what {
    grid-column: 2 / -1;
  }
  .gauge,
  .words {
    grid-column: 1 / 3;
  }
  .words button {
    min-height: 42px;
  }
}
</style>
