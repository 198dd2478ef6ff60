<script setup lang="ts">
import { computed } from 'vue'

import { api, ask, type BoxCard, type PanelCard } from '../api/client'
import BoxFigure from '../stages/rough_in/BoxFigure.vue'
import { useJob } from '../stores/job'
import { useLook } from '../stores/look'
import { useSheet } from './useSheet'

/** One card a box, with a code that opens it on a phone; then the panels. */
const store = useJob()
const look = useLook()
const { data, loaded, print } = useSheet<{ boxes: BoxCard[]; panels: PanelCard[] } | null>(async (id) => {
  const query = look.at.room ? { room: look.at.room } : {}
  const found = await ask(api.GET('/api/jobs/{job_id}/cards', { params: { path: { job_id: id }, query } }))
  return { data: found.data }
}, null)
const code = (node: string) => `/api/jobs/${store.view?.id}/cards/${node}.svg`
const room = computed(() => store.job?.rooms.find((item) => item.id === look.at.room)?.name)
</script>

<template>
  <div class="sheet-page" data-testid="card-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/rough_in`">Back to Rough-in</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: box cards{{ room ? `, ${room}` : '' }}</h2>
    <p class="mute">One card a box. The code opens it on a phone that is paired with this machine.</p>
    <p v-if="loaded && !data?.boxes.length" class="mute">
      No box is wired yet: chain boxes on a circuit first.
    </p>
    <div class="cards">
      <article v-for="card in data?.boxes ?? []" :key="card.node" class="num">
        <img :src="code(card.node)" alt="" width="92" height="92" />
        <h3>{{ card.name }}, {{ card.title }}</h3>
        <p class="mute">{{ card.where }}</p>
        <p class="mute">{{ card.circuits }}</p>
        <BoxFigure :card="card" />
        <ul>
          <li v-for="step in card.steps" :key="step.key">{{ step.done ? '☑' : '☐' }} {{ step.title }}</li>
        </ul>
      </article>
      <article v-for="card in data?.panels ?? []" :key="card.node" class="num wide">
        <img :src="code(card.node)" alt="" width="92" height="92" />
        <h3>{{ card.name }}</h3>
        <p>
          <b>{{ card.live }}</b>
        </p>
        <p>{{ card.bond }} {{ card.bars }}</p>
        <table>
          <tbody>
            <tr v-for="row in card.screws" :key="row.at">
              <td>
                <b>{{ row.label }}</b>
              </td>
              <td>{{ row.name }}</td>
              <td>{{ row.hots }}</td>
              <td>{{ row.neutral }}</td>
              <td>{{ row.ground }}</td>
              <td>{{ row.torque === null ? '____ lb-in' : `${row.torque} lb-in` }}</td>
            </tr>
          </tbody>
        </table>
      </article>
    </div>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 14px;
  align-items: start;
}
article {
  border: 1.5px solid var(--ink);
  padding: 10px 12px;
  break-inside: avoid;
  font-size: 14.5px;
}
article > img {
  float: right;
  margin: 0 0 6px 10px;
}
.wide {
  grid-column: 1 / -1;
}
article p {
  margin: 2px 0;
}
figure {
  clear: both;
  padding-top: 4px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  columns: 2;
}
td {
  border-top: 1px solid var(--rule);
  padding: 2px 10px 2px 0;
}
@media print {
  .cards {
    display: block;
  }
  article {
    break-after: page;
  }
}
</style>
