<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitPlan, WayPlan } from '../../api/client'

/** The answers of one line: breaker, wire, what it lies in, bends, what holds it, what to cut. */
const props = defineProps<{ way: WayPlan; circuit: CircuitPlan | null }>()
const facts = computed(() =>
  Object.fromEntries((props.circuit?.facts ?? []).map((fact) => [fact.label, fact.text])),
)
const legs = computed(() => [...new Set(props.way.legs.map((leg) => leg.lies_in))])
const bends = computed(() => props.way.pulls[0]?.total)
const answers = computed(() => {
  const label = props.circuit?.summary.label
  /** What else of the circuit is cut: along its other ways, and where no way is said. */
  const other = (props.circuit?.chain ?? []).some(
    (row) => row.cut_in != null || row.path.some((way) => way !== props.way.summary.id),
  )
  return [
    { what: 'breaker', big: facts.value.Breaker ?? '', small: label ? `on ${label}` : 'no space yet' },
    {
      what: 'wire',
      big: facts.value.Wire ?? '',
      small: `${props.circuit?.summary.load_a.toFixed(1)} A expected`,
    },
    {
      what: 'lies in',
      big: legs.value.join(', '),
      small: [
        bends.value
          ? `${bends.value.total_deg}° of ${bends.value.limit_deg}°`
          : props.way.summary.length_text,
        ...props.way.legs.map((leg) => leg.held.text),
      ].join(' · '),
    },
    ...props.way.cuts.map((cut) => ({
      what: 'cut',
      big: `${cut.pieces > 1 ? `${cut.pieces} × ` : ''}${cut.figure.text}`,
      small: cut.item,
    })),
    ...(other
      ? [{ what: 'whole circuit', big: props.circuit?.cables.join(' · ') ?? '', small: 'to cut in all' }]
      : []),
  ].slice(0, 6)
})
</script>

<template>
  <dl class="answers num" data-testid="answers">
    <div v-for="(one, i) in answers" :key="i">
      <dt>{{ one.what }}</dt>
      <dd>
        <b>{{ one.big }}</b><small class="mute">{{ one.small }}</small>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.answers {
  display: flex;
  flex-wrap: wrap;
  margin: 0;
  padding: 8px 12px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.answers div {
  flex: 0 1 auto;
  padding: 4px 12px;
  border-left: 1px solid var(--rule);
}
/* At a desk one row, so that nothing of it slides under the line: long words break. */
@media (min-width: 1001px) {
  .answers {
    flex-wrap: nowrap;
  }
}
dt {
  color: var(--mute);
  font-size: 14px;
}
dd {
  margin: 0;
}
b {
  font-size: 17px;
  font-weight: 600;
}
small {
  display: block;
  font-size: 14px;
}
</style>
