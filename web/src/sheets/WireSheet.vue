<script setup lang="ts">
import PipeSection from '../parts/PipeSection.vue'
import { useJob } from '../stores/job'
import { usePulls } from './useSheet'
import { poundText } from '../parts/planScale'

/** The pull sheet: for each pull its wires by colour and length, where it is fed, people, rope, lubricant. */
const store = useJob()
const { data, loaded, print } = usePulls()
</script>

<template>
  <div class="sheet-page" data-testid="wire-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/pipe`">Back to Pipe</router-link>
      <span class="gap" />
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <h2>{{ store.job?.name }}: wire pulls</h2>
    <p class="mute">
      Prove every wire in the pipe dead first. The whole pull of pipe is made up before any wire goes in
      (300.18). Pounds are at usual friction, with the range that is met; stiffness of large wire comes on
      top.
    </p>
    <p v-if="loaded && !data.some((pull) => pull.how)" class="mute">No wire lies in pipe yet.</p>
    <template v-for="pull in data" :key="`${pull.summary.way}.${pull.summary.index}`">
      <section v-if="pull.how" :data-pull="`${pull.summary.way}.${pull.summary.index + 1}`">
        <PipeSection v-if="pull.section" :section="pull.section" />
        <div>
          <h3>
            {{ pull.summary.way_name }}: {{ pull.summary.name }}
            <span class="mute num">{{ pull.pipe }}, {{ pull.summary.length_text }}</span>
          </h3>
          <table class="num">
            <tbody>
              <tr v-for="wire in pull.wires" :key="wire.circuit + wire.what">
                <td>{{ wire.circuit }}</td>
                <td>{{ wire.what }}</td>
                <td>{{ wire.pieces }} × {{ wire.cut_text }}</td>
              </tr>
            </tbody>
          </table>
          <p
            v-for="band in pull.how.bands.filter((item) => item.fed === pull.how?.feed)"
            :key="band.fed"
            class="num"
          >
            <b>{{ poundText(band.usual_lb) }} lb</b> at {{ band.pulled_at }}, from
            {{ poundText(band.low_lb) }} to {{ poundText(band.high_lb) }}.
          </p>
          <p v-for="line in pull.how.lines" :key="line">{{ line }}</p>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
section {
  display: flex;
  gap: 16px;
  max-width: 860px;
  margin-top: 16px;
  padding-top: 10px;
  border-top: 1px solid var(--rule);
}
section > div {
  flex: 1;
}
p {
  margin: 3px 0;
}
td {
  padding: 2px 14px 2px 0;
  border-bottom: 1px solid var(--rule);
}
@media print {
  section {
    break-inside: avoid;
  }
}
</style>
