<script setup lang="ts">
import { useJob } from '../stores/job'
import { useOutside } from './useOutside'

/** The rod record: every electrode of every building, where it stands, its conductor, what was measured. */
const store = useJob()
const { data, loaded, print } = useOutside()
</script>

<template>
  <div class="sheet-page" data-testid="rod-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/trench`">Back to Trench</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: electrodes</h2>
    <p class="mute">
      What is in the earth must be used, and all of it joined. Rods 6 ft apart or more (250.53).
    </p>
    <p v-if="loaded && !data?.grounds.length" class="mute">No electrode yet.</p>
    <section v-for="ground in data?.grounds" :key="ground.id">
      <h3>
        {{ ground.name }} <span class="mute num">{{ ground.fed_text }}</span>
      </h3>
      <table class="num">
        <thead>
          <tr>
            <th>electrode</th>
            <th>in the earth</th>
            <th>conductor</th>
            <th>ohms, alone</th>
            <th>driven on</th>
            <th>seen by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(rod, i) in ground.rods" :key="rod.id">
            <td>{{ i + 1 }}. {{ rod.kind }}{{ rod.bonded ? '' : ', not joined' }}</td>
            <td>{{ rod.text || 'as built' }}</td>
            <td>No. {{ rod.wire }} copper</td>
            <td>{{ rod.ohms ?? '' }}</td>
            <td>{{ rod.driven_on }}</td>
            <td class="sign"></td>
          </tr>
          <tr v-if="!ground.rods.length">
            <td colspan="6">none</td>
          </tr>
        </tbody>
      </table>
      <p v-for="figure in ground.figures" :key="figure.key" class="num figure">
        {{ figure.label }}: {{ figure.text }}
      </p>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 900px;
  margin-top: 18px;
  break-inside: avoid;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 14.5px;
}
th,
td {
  text-align: left;
  padding: 5px 10px 5px 0;
  border-bottom: 1px solid var(--rule);
}
.sign {
  min-width: 120px;
}
.figure {
  margin: 4px 0 0;
  font-size: 14.5px;
}
</style>
