<script setup lang="ts">
import { computed, nextTick, reactive, ref, watch } from 'vue'

import { api, ask, type Problem } from '../api/client'
import { useJob } from '../stores/job'
import { useRules } from '../stores/rules'
import { type Card, CARDS, type Field } from './cards'

/** Single calculations for a question on a ladder. Same code as the plan; answers while you type. */
const shown = defineModel<boolean>({ required: true })
const store = useJob()
const rules = useRules()
const at = ref(0)
const card = computed<Card>(() => CARDS[at.value] ?? (CARDS[0] as Card))
const values = reactive<Record<string, Record<string, string | boolean>>>(
  Object.fromEntries(CARDS.map((c) => [c.key, Object.fromEntries(c.fields.map((f) => [f.key, f.start]))])),
)
const mine = computed(() => values[card.value.key] ?? {})
const asking = computed(() => card.value.fields.filter((f) => !f.when || f.when(mine.value)))
const answer = ref<Record<string, unknown> | null>(null)
const problem = ref<Problem | null>(null)
const bad = ref<Record<string, string>>({})
const body = ref<HTMLElement | null>(null)
let asked = 0

async function read(field: Field): Promise<string | number | boolean | undefined> {
  const raw = mine.value[field.key]
  if (field.type === 'yes') return raw === true
  if (field.type === 'choice' || field.type === 'words') return String(raw)
  if (field.type === 'number') {
    const value = Number(raw)
    if (String(raw).trim() === '' || !Number.isFinite(value))
      bad.value[field.key] = `${raw || 'nothing'} is no number`
    return value
  }
  const { data, problem: refused } = await ask(
    api.POST('/api/measure', { body: { text: String(raw), bare: 'in' } }),
  )
  if (refused) bad.value[field.key] = refused.detail
  return data?.inches
}

async function work() {
  const turn = ++asked
  const now = card.value
  bad.value = {}
  const said: Record<string, string | number | boolean> = {}
  for (const field of asking.value) {
    const value = await read(field)
    if (value !== undefined) said[field.key] = value
  }
  if (turn !== asked || Object.keys(bad.value).length) {
    if (turn === asked) answer.value = null
    return
  }
  const got = await ask(
    api.POST(`/api/calc/${now.calc}` as '/api/calc/fill', {
      body: { ...now.ask(said), rules: store.job?.rules ?? 'us-2023' } as never,
    }),
  )
  if (turn !== asked) return
  problem.value = got.problem ?? null
  answer.value = got.problem ? null : (got.data as unknown as Record<string, unknown>)
}

const HOME: Record<string, string> = { conductors: 'count', grounds: 'grounds', devices: 'straps' }
const wrong = (field: Field) => {
  if (bad.value[field.key]) return bad.value[field.key]
  const key = problem.value?.key?.split('.')[0] ?? ''
  return key === field.key || HOME[key] === field.key ? problem.value?.detail : undefined
}
const elsewhere = computed(() =>
  problem.value && !card.value.fields.some((f) => wrong(f)) ? problem.value.detail : '',
)

watch([mine, shown, () => store.job?.rules], () => shown.value && void work(), {
  deep: true,
  immediate: true,
})
watch(
  [shown, at],
  () => {
    answer.value = null
    if (shown.value)
      void nextTick(() => setTimeout(() => body.value?.querySelector<HTMLElement>('input')?.focus(), 60))
  },
  { immediate: true },
)
</script>

<template>
  <v-navigation-drawer
    v-model="shown"
    temporary
    disable-route-watcher
    location="right"
    width="372"
    class="pocket"
    data-testid="pocket"
  >
    <div class="in" @keydown.esc="shown = false">
      <div class="head">
        <h2>Pocket</h2>
        <v-btn size="small" variant="text" @click="shown = false">Close</v-btn>
      </div>
      <div class="tabs" role="tablist">
        <button
          v-for="(c, i) in CARDS"
          :key="c.key"
          type="button"
          role="tab"
          class="plain key"
          :class="{ on: i === at }"
          :aria-selected="i === at"
          @click="at = i"
        >
          {{ c.title }}
        </button>
      </div>
      <div v-if="answer" class="answer" aria-live="polite" data-testid="answer">
        <b class="num">{{ card.lead(answer) }}</b>
        <button type="button" class="plain mute" @click="rules.lookUp(String(answer.rule))">
          {{ answer.rule }} · {{ answer.basis }}
        </button>
      </div>
      <p v-else-if="elsewhere" class="bad" role="alert">{{ elsewhere }}</p>
      <div ref="body" class="grid">
        <template v-for="field in asking" :key="card.key + field.key">
          <v-select
            v-if="field.type === 'choice'"
            v-model="mine[field.key] as string"
            :label="field.label"
            :items="(field.options ?? []).map((value) => ({ value, title: value.replaceAll('_', ' ') }))"
            :error-messages="wrong(field)"
          />
          <v-checkbox v-else-if="field.type === 'yes'" v-model="mine[field.key]" :label="field.label" />
          <v-text-field
            v-else
            v-model="mine[field.key] as string"
            :label="field.label"
            :inputmode="field.type === 'number' ? 'decimal' : 'text'"
            :error-messages="wrong(field)"
          />
        </template>
      </div>
      <table v-if="answer" class="num">
        <tbody>
          <tr v-for="[name, value] in card.lines(answer)" :key="name">
            <td>{{ name }}</td>
            <td>{{ value }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mute caution">The local authority and a licensed electrician decide. Work dead.</p>
    </div>
  </v-navigation-drawer>
</template>

<style scoped>
.pocket {
  max-width: 100vw;
}
.in {
  padding: 12px 14px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 0 10px;
}
.tabs .on {
  background: var(--ink);
  color: var(--card);
}
.answer {
  background: var(--tape);
  color: #20262a;
  border: 1px solid #20262a;
  padding: 8px 10px;
  margin-bottom: 12px;
}
.answer b {
  display: block;
  font-size: 19px;
  font-weight: 600;
}
.answer .mute {
  color: #3d4448;
  font-size: 14px;
  text-decoration: underline;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 11px 9px;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 12px;
  font-size: 15px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 4px 0;
  vertical-align: top;
}
td + td {
  text-align: right;
  padding-left: 12px;
}
.bad {
  color: var(--stop);
}
.caution {
  font-size: 13.5px;
}
@media (max-width: 700px) {
  .tabs .key {
    padding: 10px 12px;
    font-size: 15px;
  }
}
</style>
