<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api, ask, type MeterReading, type TestFocus } from '../../api/client'

/** The meter that ships: simulated. Two leads on the screws of this circuit, as it is planned. */
const props = defineProps<{ focus: TestFocus; job: string }>()
const kind = ref<'volts' | 'ohms' | 'megohms'>('volts')
const state = ref<'off' | 'on' | 'loaded'>('on')
const high = ref(false)
const leads = ref<number[]>([])
const shown = ref<MeterReading | null>(null)
const wrong = ref('')
watch(
  () => props.focus.id,
  () => {
    leads.value = []
    shown.value = null
    wrong.value = ''
  },
)
function tap(index: number) {
  leads.value = leads.value.includes(index)
    ? leads.value.filter((one) => one !== index)
    : [...leads.value, index].slice(-2)
}
const ends = computed(() => leads.value.map((index) => props.focus.leads[index]))
const UNITS = { volts: 'V ~', ohms: 'Ω', megohms: 'MΩ' }
watch([ends, kind, state, high], async () => {
  shown.value = null
  wrong.value = ''
  const [a, b] = ends.value
  if (!a || !b) return
  const body = {
    of: props.focus.id,
    a: [a[0], a[1]],
    b: [b[0], b[1]],
    kind: kind.value,
    on: state.value !== 'off',
    loaded: state.value === 'loaded',
    impedance: high.value ? 'high' : 'low',
  }
  const path = { job_id: props.job }
  const { data, problem } = await ask(
    api.POST('/api/jobs/{job_id}/meter', { params: { path }, body: body as never }),
  )
  if (problem) wrong.value = problem.detail
  else shown.value = data
})
const told = computed(() => ends.value.map((one) => one?.[2]).join(' to '))
</script>

<template>
  <section data-testid="meter">
    <div class="body num">
      <div class="glass" role="status">
        <small>{{ UNITS[kind] }} <em>simulated</em></small>
        <b>{{ shown ? (shown.value ?? 'OL') : '––' }}</b>
        <small>{{ told || 'put both leads on a screw' }}</small>
      </div>
    </div>
    <p class="set num no-print">
      <label
        ><span class="unseen">What is read</span>
        <select v-model="kind">
          <option value="volts">volts</option>
          <option value="ohms">ohms</option>
          <option value="megohms">insulation</option>
        </select>
      </label>
      <label v-if="kind === 'volts'"
        ><span class="unseen">Breaker and load</span>
        <select v-model="state">
          <option value="off">breaker off</option>
          <option value="on">on</option>
          <option value="loaded">on, 1500 W plugged in</option>
        </select>
      </label>
      <label v-if="kind === 'volts'"><input v-model="high" type="checkbox" /> high impedance</label>
    </p>
    <div class="leads no-print">
      <button
        v-for="(lead, i) in focus.leads"
        :key="lead[0] + lead[1]"
        type="button"
        class="plain num"
        :aria-pressed="leads.includes(i)"
        @click="tap(i)"
      >
        {{ lead[2] }}
      </button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.body {
  background: #2a3137;
  border-radius: 8px;
  padding: 12px 14px;
  max-width: 240px;
}
.glass {
  background: #dfe6d6;
  color: #20262a;
  border-radius: 3px;
  padding: 5px 9px 6px;
  text-align: right;
}
.glass b {
  display: block;
  font-size: 38px;
  line-height: 1.05;
  font-weight: 600;
}
.glass small {
  display: block;
  text-align: left;
  font-size: 13.5px;
  font-weight: 600;
}
.glass em {
  float: right;
  font-style: normal;
}
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 8px 0 6px;
  font-size: 14px;
}
select {
  min-height: 32px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
.leads {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  max-height: 190px;
  overflow-y: auto;
}
.leads button {
  min-height: 30px;
  padding: 2px 8px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  font-size: 14px;
}
.leads [aria-pressed='true'] {
  background: color-mix(in srgb, var(--lime) 40%, var(--card));
  border-color: var(--lime-deep);
  font-weight: 600;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
</style>
