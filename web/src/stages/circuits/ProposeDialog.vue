<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { AWAY, type Edit, type Problem, type ProposalLine } from '../../api/client'
import { streamed } from '../../api/stream'
import { feetText } from '../../parts/planScale'
import { whenShown } from '../../stage/whenShown'
import { useJob } from '../../stores/job'

/** Circuits proposed for what is on none, one line as each is settled; taken whole or by part, as one change. */
const store = useJob()
const shown = defineModel<boolean>({ required: true })
const lines = ref<ProposalLine[]>([])
const taken = ref<string[]>([])
const busy = ref(false)
const problem = ref<Problem | null>(null)
let stop: AbortController | null = null

const of = computed(() => lines.value[0]?.of ?? 0)
const total = (part: (proposal: ProposalLine['proposal']) => number) =>
  lines.value.reduce((sum, line) => sum + part(line.proposal), 0)
const feet = (length_in: number) => feetText(length_in, store.metric)
const unknown = computed(() => total((one) => one.unknown))
const names = (ids: readonly string[]) =>
  ids.map((id) => store.nodes.find((n) => n.id === id)?.name ?? id).join(' ')
const panel = (id: string) => store.job?.panels.find((item) => item.id === id)?.name ?? ''
const spaceless = computed(() => lines.value.filter((line) => line.proposal.space === null).length)

watch(shown, () => stop?.abort())
whenShown(shown, () => void ask())

async function ask() {
  lines.value = []
  taken.value = []
  problem.value = null
  busy.value = true
  stop = new AbortController()
  try {
    for await (const line of streamed<ProposalLine>(`/api/jobs/${store.view?.id}/propose`, stop.signal)) {
      lines.value.push(line)
      taken.value.push(line.proposal.key)
    }
  } catch {
    if (!stop.signal.aborted) problem.value = AWAY
  }
  busy.value = false
}

async function accept() {
  const edits = lines.value
    .filter((line) => taken.value.includes(line.proposal.key))
    .flatMap((line) => line.edits)
  problem.value = await store.edit(edits as Edit[], `take ${taken.value.length} proposed circuits`)
  if (!problem.value) shown.value = false
}
</script>

<template>
  <v-dialog aria-label="Proposed circuits" v-model="shown" max-width="860">
    <v-card class="pa-5" data-testid="proposals">
      <h2>Circuits proposed</h2>
      <v-progress-linear
        aria-label="how far the proposing is"
        v-if="busy"
        :model-value="of ? (lines.length / of) * 100 : 5"
        color="primary"
        class="my-2"
      />
      <p class="mute">
        {{ lines.length }}{{ of ? ` of ${of}` : '' }} circuits, {{ feet(total((one) => one.length_in)) }} of
        cable as it lies{{
          unknown
            ? `, and ${unknown} ${unknown === 1 ? 'cable' : 'cables'} of a length that is not known: an end stands in no drawn room`
            : ''
        }}.
        {{ spaceless ? `${spaceless} find no space in their panel yet.` : '' }}
        <button v-if="busy" type="button" class="plain link" @click="stop?.abort()">Stop</button>
      </p>
      <p v-if="!busy && !lines.length && !problem" class="mute">Every box is on a circuit already.</p>
      <p v-if="problem" class="bad" role="alert">{{ problem.detail }}</p>
      <ul>
        <li v-for="line in lines" :key="line.proposal.key">
          <v-checkbox v-model="taken" :value="line.proposal.key" :aria-label="`Take ${line.proposal.name}`" />
          <div>
            <b class="num">{{ line.proposal.name }}</b>
            <span class="num spec">
              {{ line.proposal.breaker_a }} A on {{ line.proposal.wire_size }},
              {{ line.proposal.protection }}, {{ panel(line.proposal.panel) }}
              {{
                line.proposal.space === null
                  ? 'no space'
                  : `space ${line.proposal.space}${line.proposal.half}`
              }}</span
            >
            <div class="num">{{ names(line.proposal.boxes) }}</div>
            <div class="mute">
              {{ line.proposal.reason }} <span class="num">{{ line.proposal.section }}</span>
            </div>
          </div>
          <span class="num mute"
            >{{ feet(line.proposal.length_in) }}{{ line.proposal.unknown ? ' + ?' : '' }}</span
          >
        </li>
      </ul>
      <div class="d-flex ga-2 justify-end mt-3">
        <v-btn variant="text" @click="shown = false">Leave them</v-btn>
        <v-btn
          variant="flat"
          color="ink"
          :disabled="busy || !taken.length"
          data-testid="accept"
          @click="accept"
          >Take {{ taken.length }}</v-btn
        >
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0;
  max-height: 52vh;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 40px 1fr auto;
  gap: 6px;
  border-top: 1px solid var(--rule);
  padding: 4px 0;
  font-size: 15px;
}
.spec {
  margin-left: 8px;
}
.link {
  color: var(--chalk);
  font-weight: 600;
}
.bad {
  color: var(--stop);
}
</style>
