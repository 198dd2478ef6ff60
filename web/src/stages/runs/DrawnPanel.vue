<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'

import { api, ask, type Edit, type HopRow, type Order, type SchoolRow } from '../../api/client'
import { feetText } from '../../parts/planScale'
import { useJob } from '../../stores/job'

/** How the cables of a circuit go: schools side by side, the cable looked at bent or kept, the order of its boxes. */
const props = defineProps<{ circuit: string; hop: HopRow | null; schools: SchoolRow[] }>()
const emit = defineEmits<{ edit: [edits: Edit[], label: string] }>()

const store = useJob()
const orders = shallowRef<Order[] | null>(null)
const asked = ref(false)
const several = computed(() => (store.view?.hops ?? []).filter((hop) => hop.kind === 'drawn').length > 1)

watch(
  () => [props.circuit, store.view?.revision],
  () => {
    orders.value = null
    if (asked.value) void order()
  },
)
watch(
  () => props.circuit,
  () => (asked.value = false),
)

async function order() {
  asked.value = true
  const path = { job_id: store.view?.id ?? '', circuit_id: props.circuit }
  const { data } = await ask(api.GET('/api/jobs/{job_id}/circuits/{circuit_id}/orders', { params: { path } }))
  orders.value = data ?? []
}
const all = (school: string) =>
  emit('edit', [{ op: 'bend', circuit: props.circuit, school, via: [] }], `way ${school}`)
const own = (school: string) =>
  emit(
    'edit',
    [{ op: 'bend', circuit: props.circuit, box: props.hop?.box, school, via: [] }],
    school ? `way ${school}` : 'straighten its way',
  )
const keep = () =>
  emit('edit', [{ op: 'keep', circuit: props.circuit, box: props.hop?.box }], 'keep this way')
const dollars = (row: SchoolRow) => `$${Math.round(row.dollars)}`
</script>

<template>
  <section class="drawn">
    <template v-if="hop">
      <p class="fine num" data-testid="hop-work">
        {{ hop.work ? `Through ${hop.work}.` : '' }} {{ hop.bent ? 'Bent by hand.' : '' }}
      </p>
      <div class="row no-print">
        <v-btn
          v-if="hop.bent || hop.school"
          size="small"
          variant="outlined"
          data-testid="straighten"
          @click="own('')"
          >Straighten</v-btn
        >
        <v-btn size="small" variant="text" data-testid="keep" @click="keep">Keep as walked</v-btn>
      </div>
    </template>
    <template v-if="schools.length">
      <h3 class="head">How its {{ several ? 'cables go' : 'cable goes' }}</h3>
      <button
        v-for="row in schools"
        :key="row.school"
        type="button"
        class="plain school num"
        :class="{ here: row.current }"
        :aria-pressed="row.current"
        :data-school="row.school"
        @click="all(row.school)"
      >
        <b>{{ row.name }}</b>
        <span>{{ feetText(row.length_in, store.metric) }}</span>
        <span>{{ Math.round(row.minutes) }} min</span>
        <span>{{ dollars(row) }}</span>
        <small v-if="!row.current" class="mute">{{ row.text }}</small>
      </button>
      <p class="mute small">Feet and minutes by the shop's habits; dollars for cable and time.</p>
    </template>
    <template v-if="several">
      <h3 class="head">Order of its boxes</h3>
      <button v-if="!asked" type="button" class="plain link no-print" data-testid="ask-order" @click="order">
        Look for a shorter one…
      </button>
      <p v-else-if="orders && !orders.length" class="mute">Its switches and lights keep their order.</p>
      <div v-for="one in orders ?? []" :key="one.key" class="order num">
        <b>{{ one.name }}</b>: {{ one.text }}<small v-if="one.proof" class="mute">, {{ one.proof }}</small>
        <small class="mute names">{{ one.names.join(' → ') }}</small>
        <v-btn
          v-if="one.less_in > 1 || one.key === 'clockwise'"
          size="small"
          variant="outlined"
          class="no-print"
          :data-order="one.key"
          @click="emit('edit', [...one.edits] as Edit[], `order ${one.key}`)"
          >Take this order</v-btn
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.fine {
  color: var(--fine);
  font-weight: 600;
  margin: 0 0 6px;
}
.head {
  margin: 12px 0 4px;
}
.school {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 0 12px;
  width: 100%;
  text-align: left;
  padding: 5px 8px;
  border-top: 1px solid var(--rule);
  font-size: 15px;
}
.school small {
  grid-column: 1 / -1;
}
.school.here {
  background: color-mix(in srgb, var(--lime) 26%, var(--card));
}
.small {
  font-size: 13px;
  margin: 4px 0 0;
}
.order {
  margin: 4px 0 8px;
}
.names {
  display: block;
  margin: 2px 0 4px;
}
.link {
  color: var(--chalk);
  font-weight: 600;
}
</style>
