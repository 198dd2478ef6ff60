<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'

import { AWAY, type Edit, type Weighed, type WeighedLine } from '../../api/client'
import { streamed } from '../../api/stream'
import { against, money, ranked } from './bars'

/** The same job otherwise: each way planned whole, as it comes from the worker; taken with one tap. */
const props = defineProps<{ job: string; revision: number }>()
const emit = defineEmits<{ take: [edits: Edit[], label: string] }>()
const ways = ref<Weighed[]>([])
const of = ref(0)
const seen = ref(0)
const busy = ref(false)
const wrong = ref('')
const told = ref(-1)
let stop: AbortController | null = null

const now = computed(() => ways.value.find((way) => !way.key) ?? null)
const others = computed(() => ranked(ways.value.filter((way) => way.key)))
const stale = computed(() => told.value !== props.revision)

async function plan() {
  stop?.abort()
  const own = (stop = new AbortController())
  ways.value = []
  wrong.value = ''
  seen.value = of.value = 0
  told.value = props.revision
  busy.value = true
  try {
    for await (const line of streamed<WeighedLine>(`/api/jobs/${props.job}/others`, own.signal)) {
      of.value = line.of
      seen.value++
      ways.value.push(line.way)
    }
  } catch {
    if (!own.signal.aborted) wrong.value = AWAY.detail
  }
  if (stop === own) busy.value = false
}
function halt() {
  stop?.abort()
  busy.value = false
}
onBeforeUnmount(() => stop?.abort())
watch(
  () => props.job,
  () => {
    halt()
    ways.value = []
    told.value = -1
  },
)
defineExpose({ plan })
const take = (way: Weighed) => emit('take', way.edits as Edit[], way.label)
</script>

<template>
  <section class="ways" data-testid="ways" :data-seen="busy ? undefined : seen">
    <h3>Same job, other ways</h3>
    <p v-if="busy" class="busy">
      <v-progress-linear
        :model-value="of ? (seen / of) * 100 : 5"
        color="primary"
        aria-label="how far the other ways are planned"
      />
      <span class="mute num">{{ seen }}{{ of ? ` of ${of}` : '' }} planned</span>
      <button type="button" class="plain link" @click="halt">Stop</button>
    </p>
    <v-btn
      v-else-if="!ways.length || stale"
      size="small"
      variant="outlined"
      data-testid="plan-ways"
      @click="plan"
      >{{ ways.length ? 'Plan them again: the job has changed' : 'Plan other ways' }}</v-btn
    >
    <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
    <ul v-if="now" :class="{ stale }">
      <li class="here">
        <i class="fine" />
        <span>
          <b>{{ now.label }}</b><small class="mute">{{ now.takes }} · {{ now.hours.toFixed(0) }} h</small>
        </span>
        <b class="num">{{ money(now.total) }}</b>
      </li>
      <li v-for="way in others" :key="way.key" :data-way="way.key">
        <i :class="way.stops.length ? 'stop' : 'fine'" :title="way.stops.length ? 'stop' : 'allowed'" />
        <span>
          <button
            v-if="!way.stops.length"
            type="button"
            class="plain link"
            :disabled="stale"
            :aria-label="`${way.label}: take it`"
            @click="take(way)"
          >
            {{ way.label }}
          </button>
          <b v-else>{{ way.label }}</b>
          <small class="mute"
            >{{ way.takes }} · {{ way.hours.toFixed(0) }} h<template v-if="way.wait_days">
              · {{ way.wait_days.toFixed(0) }} days of waiting</template
            ></small
          >
          <small v-if="way.stops.length" class="bad">{{ way.stops[0] }}</small>
          <small v-else-if="way.later" class="mute">later: {{ way.later }}</small>
        </span>
        <b class="num">{{ against(now.total, way.total) }}</b>
      </li>
    </ul>
    <p v-if="now" class="mute note num">
      With labour, margin and tax. Material as planned {{ money(now.material) }}.
    </p>
  </section>
</template>

<style scoped>
.ways {
  margin-top: 12px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
ul.stale {
  opacity: 0.6;
}
li {
  display: grid;
  grid-template-columns: 12px 1fr auto;
  gap: 0 8px;
  align-items: baseline;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
  font-size: 15px;
}
li.here {
  background: color-mix(in srgb, var(--lime) 26%, transparent);
}
i {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--fine);
}
i.stop {
  background: var(--stop);
  border-radius: 0;
}
small {
  display: block;
  font-size: 13px;
}
small.bad {
  color: var(--stop);
}
.link {
  color: var(--chalk);
  font-weight: 600;
  padding: 0;
  min-height: 26px;
  text-align: left;
}
.busy {
  margin: 4px 0;
}
.note {
  font-size: 13px;
}
</style>
