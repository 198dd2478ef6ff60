<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type Edit, type FaultRow, type HoldRow, type Offer, type VisitRow } from '../../api/client'
import { today } from './record'

/**
 * Holds with what they wait for, inspections with what they found. A hold is held or lifted; what was found is mended,
 * then seen. The desk that gives dates is simulated.
 */
const props = defineProps<{
  holds: HoldRow[]
  visits: VisitRow[]
  faults: FaultRow[]
  structure: string
  job: string
  /** Boxes of the wall looked at, where something may have been found. */
  boxes: { id: string; name: string }[]
  act: (edits: Edit[], label?: string) => Promise<unknown>
}>()
const emit = defineEmits<{
  go: [fault: FaultRow]
  photo: [trench: string]
  wait: [node: string, wall: string]
}>()

const others = ref(false)
const shown = computed(() =>
  props.holds.filter(
    (hold) => others.value || !props.structure || hold.place === props.structure || hold.kind === 'backfill',
  ),
)
const faults = computed(() => props.faults.filter((fault) => fault.state !== 'seen'))
const coming = (hold: HoldRow) =>
  props.visits.filter((visit) => visit.kind === hold.kind && visit.place === hold.place && !visit.result)

const opened = ref('')
const who = ref('')
const found = ref('')
const section = ref('')
const at = ref('')
const offers = ref<Offer[]>([])
const wrong = ref('')
function open(key: string) {
  opened.value = opened.value === key ? '' : key
  who.value = found.value = section.value = at.value = wrong.value = ''
  offers.value = []
}
async function made(edits: Edit[], label: string) {
  const problem = (await props.act(edits, label)) as { detail: string } | null
  wrong.value = problem?.detail ?? ''
  if (!problem) opened.value = ''
}

async function call(hold: HoldRow) {
  const { data, problem } = await ask(
    api.POST('/api/desk/permit', { body: { what: `${hold.kind} ${hold.where}` } }),
  )
  if (problem) wrong.value = problem.detail
  else offers.value = data
}
const book = (hold: HoldRow, offer: Offer) =>
  made(
    [
      {
        op: 'add',
        kind: 'visit',
        item: {
          kind: hold.kind,
          place: hold.place,
          on: offer.on,
          hour: offer.hour,
          ticket: offer.ticket,
          who: 'simulated desk',
        },
      },
    ],
    `inspection ${offer.on} ${offer.hour}`,
  )
async function outcome(visit: VisitRow) {
  const path = { job_id: props.job, visit: visit.id }
  const { data, problem } = await ask(
    api.POST('/api/jobs/{job_id}/visits/{visit}/outcome', { params: { path } }),
  )
  if (problem) wrong.value = problem.detail
  else
    await made(
      [
        {
          op: 'end_visit',
          visit: visit.id,
          result: data.result,
          who: data.who,
          found: data.found.map((text: string) => ({ text })),
        },
      ],
      `inspection ${data.result}`,
    )
}
const foundThere = () => ({
  text: found.value.trim(),
  section: section.value.trim(),
  node: at.value || null,
})
const end = (visit: VisitRow, result: 'passed' | 'failed') =>
  made(
    [
      {
        op: 'end_visit',
        visit: visit.id,
        result,
        who: who.value.trim(),
        found: result === 'failed' && found.value.trim() ? [foundThere()] : [],
      },
    ],
    `inspection ${result}`,
  )
const lift = (hold: HoldRow, by: string) =>
  made(
    [
      hold.kind === 'backfill'
        ? { op: 'lift_hold', trench: hold.place, by, on: by ? today() : '' }
        : { op: 'lift_building', kind: hold.kind, structure: hold.place, by, on: by ? today() : '' },
    ],
    by ? `lift the hold ${hold.title.toLowerCase()}` : `hold it ${hold.title.toLowerCase()}`,
  )
const mend = (fault: FaultRow, mended: boolean) =>
  made(
    [{ op: 'mend_fault', fault: fault.id, mended, on: mended ? today() : '' }],
    mended ? 'mended' : 'not mended',
  )
</script>

<template>
  <section data-testid="holds">
    <h3>Holds</h3>
    <div v-for="hold in shown" :key="hold.key" class="hold num" :data-hold="hold.key">
      <button type="button" class="plain head" :aria-expanded="opened === hold.key" @click="open(hold.key)">
        <i :class="hold.lifted ? 'fine' : hold.waits.length ? 'stop' : 'check'" aria-hidden="true" />
        <span
          ><b>{{ hold.title }}</b> <small class="mute">{{ hold.where }}</small></span
        >
        <span class="state" :class="hold.lifted ? 'fine' : 'stop'">{{
          hold.lifted ? 'lifted' : 'held'
        }}</span>
      </button>
      <p class="mute told">
        {{ hold.lifted ? hold.lifted_text : hold.waits_text }}
        <span v-if="hold.visit_text" :class="{ failed: hold.failed }"> · {{ hold.visit_text }}</span>
      </p>
      <div v-if="opened === hold.key" class="more no-print">
        <p v-for="wait in hold.waits.slice(0, 8)" :key="wait.text + wait.node" class="wait">
          {{ wait.text }}
        </p>
        <p v-if="hold.waits.length > 8" class="mute">and {{ hold.waits.length - 8 }} more</p>
        <template v-if="hold.lifted">
          <v-btn size="small" variant="outlined" @click="lift(hold, '')">Hold it again</v-btn>
        </template>
        <template v-else>
          <label>Who came <input v-model="who" maxlength="60" data-testid="who-came" /> </label>
          <template v-for="visit in coming(hold)" :key="visit.id">
            <label>What was found <input v-model="found" maxlength="300" data-testid="what-found" /> </label>
            <div class="pair">
              <label>Section <input v-model="section" maxlength="40" /></label>
              <label
                >At
                <select v-model="at">
                  <option value="">no box</option>
                  <option v-for="box in boxes" :key="box.id" :value="box.id">{{ box.name }}</option>
                </select>
              </label>
            </div>
            <div class="buttons">
              <v-btn size="small" variant="flat" color="ink" @click="end(visit, 'passed')">Passed</v-btn>
              <v-btn size="small" variant="outlined" @click="end(visit, 'failed')">Failed</v-btn>
              <v-btn size="small" variant="text" @click="outcome(visit)">Ask the desk (simulated)</v-btn>
            </div>
          </template>
          <div v-if="hold.kind === 'backfill'" class="buttons">
            <v-btn size="small" variant="outlined" @click="emit('photo', hold.place)"
              >Add a photo of the trench</v-btn
            >
          </div>
          <div v-if="!coming(hold).length" class="buttons">
            <v-btn size="small" variant="outlined" @click="call(hold)"
              >Call the permit desk (simulated)</v-btn
            >
            <v-btn size="small" variant="text" :disabled="!who.trim()" @click="lift(hold, who.trim())"
              >Lift it</v-btn
            >
          </div>
          <div v-for="offer in offers" :key="offer.ticket" class="buttons">
            <v-btn size="small" variant="outlined" @click="book(hold, offer)"
              >{{ offer.on }} {{ offer.hour }}</v-btn
            >
          </div>
        </template>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      </div>
    </div>
    <button v-if="structure" type="button" class="plain all num" @click="others = !others">
      {{ others ? 'Holds of this building' : 'Holds of all buildings' }}
    </button>
    <a class="all num" :href="`/api/jobs/${job}/calendar.ics`" download>Calendar file</a>
    <template v-if="faults.length">
      <h3 class="found">Found at inspections</h3>
      <article
        v-for="fault in faults"
        :key="fault.id"
        class="fault"
        :class="fault.state"
        :data-fault="fault.id"
      >
        <p>
          <b>{{ fault.name ? `${fault.name}: ` : '' }}{{ fault.text }}</b>
          <span v-if="fault.section" class="mute section">{{ fault.section }}</span>
        </p>
        <p class="mute">{{ fault.told }}</p>
        <div class="buttons no-print">
          <v-btn
            v-if="fault.state === 'open'"
            size="small"
            variant="flat"
            color="ink"
            @click="mend(fault, true)"
            >Mended today</v-btn
          >
          <v-btn v-else size="small" variant="text" @click="mend(fault, false)">Not mended</v-btn>
          <v-btn v-if="fault.node" size="small" variant="outlined" @click="emit('go', fault)"
            >Take me there</v-btn
          >
        </div>
      </article>
    </template>
  </section>
</template>

<style scoped>
section {
  margin-top: 14px;
}
.hold {
  border-top: 1px solid var(--rule);
  padding: 5px 0 6px;
}
.head {
  display: grid;
  grid-template-columns: 12px 1fr auto;
  gap: 9px;
  align-items: center;
  width: 100%;
  min-height: 30px;
  text-align: left;
  font-size: 15.5px;
}
.head b {
  font-weight: 600;
}
.head small {
  display: block;
  font-size: 13.5px;
}
i {
  width: 12px;
  height: 18px;
  border-radius: 3px;
  border: 1px solid var(--ink);
  background: var(--stop);
}
i.fine {
  background: var(--fine);
}
i.check {
  background: var(--check-mark);
}
.state {
  font-weight: 600;
}
.state.stop {
  color: var(--stop);
}
.state.fine {
  color: var(--fine);
}
.told {
  margin: 0 0 0 21px;
  font-size: 14px;
}
.failed {
  color: var(--stop);
}
.more {
  margin: 4px 0 2px 21px;
}
.wait {
  display: block;
  margin: 0;
  padding: 2px 0;
  font-size: 14px;
  text-align: left;
}
button.wait {
  color: var(--chalk);
  font-weight: 600;
}
label {
  display: block;
  margin: 6px 0;
  font-size: 14px;
  color: var(--mute);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
label select,
label input {
  display: block;
  width: 100%;
  min-height: 34px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  padding: 4px 8px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 5px;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
  margin: 5px 0 0;
}
.all {
  display: inline-block;
  margin: 2px 14px 0 0;
  font-size: 14px;
  font-weight: 600;
  color: var(--chalk);
}
.found {
  margin-top: 14px;
}
.fault {
  border-left: 5px solid var(--check-mark);
  background: var(--check-wash);
  padding: 6px 10px 8px;
  margin-top: 6px;
}
.fault.mended {
  border-color: var(--lime-deep);
  background: var(--note-wash);
}
.section {
  margin-left: 6px;
}
.fault p {
  margin: 0;
  font-size: 14.5px;
}
</style>
