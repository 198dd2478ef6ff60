<script setup lang="ts">
import { api, ask, type DrillingSheet } from '../api/client'
import { inchText } from '../parts/planScale'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'

/** The drilling sheet, wall by wall: studs numbered from the left corner, bit, height, count, and a stick to mark. */
const store = useJob()
const {
  data: walls,
  loaded,
  print,
} = useSheet<DrillingSheet[]>(
  (id) => ask(api.GET('/api/jobs/{job_id}/drilling', { params: { path: { job_id: id }, query: {} } })),
  [],
)

const tape = (inches: number) => inchText(inches, store.metric)
const WIDE = 700
const x = (wall: DrillingSheet, at: number) => 10 + (at / wall.length_in) * (WIDE - 20)
const number = (wall: DrillingSheet, at: number) =>
  wall.studs.findIndex((stud) => Math.abs(stud - at) < 0.01) + 1
const bored = (wall: DrillingSheet, at: number) => wall.rows.some((row) => Math.abs(row.at_in - at) < 0.01)
</script>

<template>
  <div class="sheet-page" data-testid="drilling-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/runs`">Back to Runs</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: drilling</h2>
    <p class="mute">
      Studs count from the left corner as you face the wall, height from the floor to the middle of the hole.
      In the middle of the stud; look behind before drilling. 40 % of a bearing stud and 60 % of another at
      the most, ⅝ in from its edge (IRC R602.6). Made joists, beams and trusses by their maker's chart.
    </p>
    <p v-if="loaded && !walls.length" class="mute">
      No stud is bored yet: chain boxes on a circuit, and their cables find a way.
    </p>
    <section v-for="wall in walls" :key="wall.room + wall.side" :data-wall="wall.title">
      <h3>
        {{ wall.title }} <span class="mute num">{{ wall.length_text }}</span>
      </h3>
      <svg :viewBox="`0 0 ${WIDE} 44`" class="stick" role="img" :aria-label="`Studs of ${wall.title}`">
        <rect x="10" y="16" :width="WIDE - 20" height="12" class="lumber" />
        <g v-for="stud in wall.studs" :key="stud">
          <line
            :x1="x(wall, stud)"
            :x2="x(wall, stud)"
            y1="10"
            y2="34"
            :class="{ bored: bored(wall, stud) }"
          />
          <circle v-if="bored(wall, stud)" :cx="x(wall, stud)" cy="22" r="4" />
          <text v-if="bored(wall, stud)" :x="x(wall, stud)" y="43" text-anchor="middle">
            {{ number(wall, stud) }}
          </text>
        </g>
      </svg>
      <table class="num">
        <thead>
          <tr>
            <th>stud</th>
            <th>from the left</th>
            <th>kind</th>
            <th>height</th>
            <th>bit</th>
            <th>holes</th>
            <th>cables</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in wall.rows" :key="`${row.number}.${row.height_in}.${row.bit_in}`">
            <td>
              <b>{{ row.number }}</b>
            </td>
            <td>{{ tape(row.at_in) }}</td>
            <td>{{ row.kind }}</td>
            <td>{{ tape(row.height_in) }}</td>
            <td>{{ tape(row.bit_in) }}</td>
            <td>{{ row.count }}</td>
            <td>{{ row.cables.join(', ') }}</td>
            <td>
              <b v-if="row.allowed === false" class="stop">too large</b>
              <span v-else-if="row.plates">plate</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
h3 {
  margin: 20px 0 2px;
}
.stick {
  display: block;
  width: 100%;
  max-width: 760px;
  height: auto;
}
.lumber {
  fill: #ebd9b4;
}
line {
  stroke: var(--mute);
  stroke-width: 1.4;
}
line.bored {
  stroke: var(--ink);
  stroke-width: 2.4;
}
circle {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.6;
}
text {
  font-size: 10px;
  fill: var(--ink);
}
table {
  max-width: 760px;
  table-layout: fixed;
  font-size: 14.5px;
}
th,
td {
  padding: 3px 10px 3px 0;
  border-bottom: 1px solid var(--rule);
}
.stop {
  color: var(--keel);
}
@media print {
  section {
    break-inside: avoid;
  }
}
</style>
