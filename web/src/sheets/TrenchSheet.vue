<script setup lang="ts">
import LongSection from '../stages/trench/LongSection.vue'
import SpanPicture from '../stages/trench/SpanPicture.vue'
import YardPicture from '../stages/trench/YardPicture.vue'
import { useJob } from '../stores/job'
import { useOutside } from './useOutside'

/** The trench sheet, for the digger and the inspector: plan, section, depths, order, locate ticket. */
const store = useJob()
const { data, loaded, print } = useOutside()
</script>

<template>
  <div class="sheet-page" data-testid="trench-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/trench`">Back to Trench</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: trenches</h2>
    <p class="mute">
      Depths are from the finished ground to the top of the pipe or cable. Call for marks, dig by hand beside
      them. Nothing is covered before the hold is lifted.
    </p>
    <p v-if="loaded && !data?.trenches.length && !data?.spans.length" class="mute">No trench yet.</p>
    <div v-if="data && (data.trenches.length || data.spans.length)" class="plan">
      <YardPicture :yard="data.yard" :here="null" :metric="store.metric" fixed />
    </div>
    <section v-for="trench in data?.trenches" :key="trench.id" :data-trench="trench.id">
      <LongSection
        :section="trench.section"
        :title="`${trench.name}, ${trench.long_text}`"
        :metric="store.metric"
      />
      <p
        v-for="f in trench.findings.filter((one) => one.severity === 'stop')"
        :key="f.code + f.title"
        class="stopline"
      >
        Stop: {{ f.title }}. {{ f.text }} {{ f.section }}
      </p>
      <table class="num">
        <thead>
          <tr>
            <th>in it</th>
            <th>carries</th>
            <th>cover needed</th>
            <th>cover read or set</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in trench.lain" :key="item.way">
            <td>{{ item.name }}</td>
            <td>{{ item.carries }}</td>
            <td>{{ item.needed_text }}</td>
            <td>{{ item.cover_text }}</td>
          </tr>
        </tbody>
      </table>
      <p class="num">{{ trench.earth.join(' · ') }}</p>
      <ol class="steps">
        <li v-for="step in trench.steps" :key="step.key">
          <span class="box">{{ step.state === 'done' ? '✓' : '' }}</span> {{ step.title }}
          <span class="mute num">{{ [step.on, step.text].filter(Boolean).join(', ') }}</span>
          <b v-if="step.key === 'inspection' && step.state !== 'done'"> hold</b>
        </li>
      </ol>
      <p class="num ticket">Locate ticket: {{ trench.ticket || 'none yet' }}</p>
    </section>
    <section v-for="span in data?.spans" :key="span.id" :data-span="span.id">
      <SpanPicture
        :section="span.section"
        :title="`${span.name}, ${span.long_text} overhead`"
        :metric="store.metric"
      />
      <p class="num">{{ span.wires }}</p>
    </section>
  </div>
</template>

<style scoped>
.plan {
  max-width: 900px;
  height: 380px;
}
section {
  max-width: 900px;
  margin-top: 18px;
  break-inside: avoid;
}
table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 8px;
  font-size: 14.5px;
}
th,
td {
  text-align: left;
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
}
.steps {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  columns: 300px 2;
  font-size: 14.5px;
}
.box {
  display: inline-block;
  width: 15px;
  height: 15px;
  border: 1.5px solid var(--ink);
  text-align: center;
  line-height: 13px;
  font-size: 13px;
}
.stopline {
  color: var(--stop);
  font-weight: 600;
}
</style>
