<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, GroundPlan, Mend, Problem } from '../../api/client'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import FindingCard from '../../parts/FindingCard.vue'
import { useJob } from '../../stores/job'
import FigureList from './FigureList.vue'
import { ROD, SERVICE } from './lineFields'

/** The electrodes of a building: what is in the earth, how far apart, joined by what; and its service. */
const props = defineProps<{
  ground: GroundPlan
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ mend: [mend: Mend]; say: [text: string] }>()
const store = useJob()
const partOf = (id: string) => store.job?.electrodes.find((item) => item.id === id) ?? null
const service = computed(() => store.job?.services.find((item) => item.id === props.ground.service) ?? null)
const set = (kind: 'electrode' | 'service', id: string) => (values: Part) =>
  props.edit([{ op: 'set', kind, id, set: values }], `the ${kind}`)
const drop = (id: string) => props.edit([{ op: 'drop', kind: 'electrode', id }], 'remove the electrode')
</script>

<template>
  <div class="panel">
    <header class="pick-head">
      <h2>{{ ground.name }}</h2>
      <span class="num mute">electrodes</span>
    </header>
    <FindingCard
      v-for="(f, i) in ground.findings"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <p class="num fed">{{ ground.fed_text }}</p>
    <FigureList :figures="ground.figures" />
    <section v-for="(rod, i) in ground.rods" :key="rod.id" :data-electrode="rod.id">
      <h3>
        {{ i + 1 }}. {{ rod.kind }} <span class="num mute">{{ rod.text }} No. {{ rod.wire }} copper</span>
      </h3>
      <template v-if="partOf(rod.id)">
        <PartFields kind="electrode" :fields="ROD" :part="partOf(rod.id)!" :set="set('electrode', rod.id)" />
        <v-btn size="small" variant="text" class="no-print" @click="drop(rod.id)">Remove it</v-btn>
      </template>
    </section>
    <p class="taps no-print">
      <v-btn size="small" variant="outlined" @click="emit('say', `rods 1 at ${ground.name}`)"
        >A rod more</v-btn
      >
      <v-btn size="small" variant="outlined" @click="emit('say', `footing electrode at ${ground.name}`)"
        >Footing electrode</v-btn
      >
    </p>
    <section v-if="service">
      <h3>Service</h3>
      <PartFields kind="service" :fields="SERVICE" :part="service" :set="set('service', service.id)" />
    </section>
    <p class="mute caution">
      Rods go down where marks are called. Measure ohms with the rod apart from everything. Soil differs
      tenfold: the ohms shown are for ordinary soil. The local authority and a licensed electrician decide.
    </p>
  </div>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
h3 {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
h3 span {
  font-weight: 500;
}
.fed {
  font-size: 14.5px;
  margin: 2px 0 6px;
}
.taps {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.caution {
  font-size: 13.5px;
  margin: 12px 0 0;
}
</style>
