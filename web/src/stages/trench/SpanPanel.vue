<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Mend, Problem, SpanPlan } from '../../api/client'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import FindingCard from '../../parts/FindingCard.vue'
import FigureList from './FigureList.vue'
import { END, SPAN } from './lineFields'

/** The span looked at: whether it clears and bears, how it is held, what is done at its ends. */
const props = defineProps<{
  span: SpanPlan
  part: Record<string, unknown> | null
  edit: (edits: Edit[], label: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ mend: [mend: Mend] }>()
const set = (values: Part) =>
  props.edit([{ op: 'set', kind: 'span', id: props.span.id, set: values }], 'the span')
const setEnd = (key: string) => (values: Part) =>
  set({ [key]: { ...(props.part?.[key] as object), ...values } })
const ends = computed(() => [
  { key: 'start_end', name: props.span.section.names[0] },
  { key: 'end_end', name: props.span.section.names[1] },
])
</script>

<template>
  <div class="panel">
    <header class="pick-head">
      <h2>{{ span.name }}</h2>
      <span class="num mute">{{ span.long_text }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in span.findings"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="emit('mend', $event)"
    />
    <p class="num wires">{{ span.wires }}</p>
    <FigureList :figures="span.figures" />
    <template v-if="part">
      <section v-for="end in ends" :key="end.key" :data-testid="end.key" class="no-print">
        <h3>At {{ end.name }}</h3>
        <PartFields
          kind="span_end"
          :fields="END"
          :part="(part[end.key] as Part) ?? {}"
          :set="setEnd(end.key)"
        />
      </section>
      <section class="no-print">
        <h3>The span</h3>
        <PartFields kind="span" :fields="SPAN" :part="part" :set="set" />
      </section>
    </template>
    <section>
      <h3>How it is hung</h3>
      <p v-for="line in span.work" :key="line">{{ line }}</p>
    </section>
    <p class="mute caution">
      Pull in ice and wind is a planning figure by IEEE C2 rule 250B. Work dead, keep ladders off live drops.
      The local authority and a licensed electrician decide.
    </p>
  </div>
</template>

<style scoped>
section {
  margin: 12px 0 4px;
}
.wires {
  font-size: 14.5px;
  margin: 2px 0 6px;
}
section p {
  margin: 3px 0;
  font-size: 14.5px;
}
.caution {
  font-size: 13.5px;
  margin: 12px 0 0;
}
</style>
