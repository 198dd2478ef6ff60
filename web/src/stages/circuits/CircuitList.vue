<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CircuitSummary, LooseBox, PanelRow } from '../../api/client'
import SideNav from '../../parts/SideNav.vue'

/** Circuits by panel, worst first; under them what is on no circuit yet. */
const props = defineProps<{
  circuits: CircuitSummary[]
  panels: PanelRow[]
  loose: LooseBox[]
  current: string | null
  panel: string | null
}>()
const emit = defineEmits<{ look: [id: string]; panel: [id: string]; loose: [box: LooseBox]; propose: [] }>()

const ORDER: Record<string, number> = { stop: 0, check: 1, fine: 2 }
/** Panels whose fine circuits are listed too; they stand in the drawing anyway. */
const unfolded = ref<string[]>([])
const groups = computed(() =>
  props.panels.map((panel) => {
    const own = props.circuits
      .filter((c) => c.panel === panel.id)
      .toSorted(
        (a, b) => (ORDER[a.verdict] ?? 2) - (ORDER[b.verdict] ?? 2) || (a.space ?? 99) - (b.space ?? 99),
      )
    const open = unfolded.value.includes(panel.id)
    const listed = own.filter(
      (c) => open || c.verdict !== 'fine' || c.space === null || c.id === props.current,
    )
    return { panel, circuits: listed, fine: own.length - listed.length, open, count: own.length }
  }),
)
const fold = (id: string) =>
  (unfolded.value = unfolded.value.includes(id)
    ? unfolded.value.filter((one) => one !== id)
    : [...unfolded.value, id])
const shown = computed(() => props.loose.slice(0, 40))
</script>

<template>
  <SideNav label="Circuits">
    <section v-for="group in groups" :key="group.panel.id">
      <button
        type="button"
        class="plain head"
        :class="[group.panel.verdict, { here: group.panel.id === panel }]"
        :data-panel-row="group.panel.name"
        @click="emit('panel', group.panel.id)"
      >
        {{ group.panel.name }}
        <small v-if="group.panel.verdict !== 'fine'">{{ group.panel.verdict }}</small>
      </button>
      <button
        v-for="c in group.circuits"
        :key="c.id"
        type="button"
        class="plain side-row cols num"
        :class="{ here: c.id === current }"
        :aria-current="c.id === current"
        :data-circuit="c.name"
        @click="emit('look', c.id)"
      >
        <i :class="c.verdict" />
        <span class="label">{{ c.label || '–' }}</span>
        <span
          >{{ c.name
          }}<small v-if="c.verdict !== 'fine'" :class="c.verdict">{{
            c.stops ? `${c.stops} ${c.stops === 1 ? 'stop' : 'stops'}` : `${c.checks} to check`
          }}</small></span
        >
        <span class="mute">{{ c.breaker_a }} A</span>
      </button>
      <button
        v-if="group.fine || group.open"
        type="button"
        class="plain fold num"
        :aria-expanded="group.open"
        :data-fold="group.panel.name"
        @click="fold(group.panel.id)"
      >
        {{ group.open ? 'Only what lacks something' : `${group.fine} fine, as in the panel` }}
      </button>
    </section>
    <section v-if="loose.length">
      <h2 class="caps loose">Not yet on a circuit</h2>
      <button type="button" class="plain side-add num" data-testid="propose" @click="emit('propose')">
        Propose circuits for {{ loose.length }}…
      </button>
      <button
        v-for="box in shown"
        :key="box.id"
        type="button"
        class="plain side-row cols num"
        :data-loose="box.name"
        @click="emit('loose', box)"
      >
        <i class="check" />
        <span class="label">{{ box.name }}</span>
        <span>{{ box.room_name }}</span>
        <span class="mute">{{ box.kind }}</span>
      </button>
      <p v-if="loose.length > shown.length" class="mute more">and {{ loose.length - shown.length }} more</p>
    </section>
  </SideNav>
</template>

<style scoped>
.head {
  font: 600 13px/1.2 var(--num);
  letter-spacing: 0.06em;
  text-transform: uppercase;
  color: var(--mute);
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 10px 12px 5px;
}
.head.here {
  color: var(--ink);
}
.head small {
  color: var(--check);
}
.head.stop small {
  color: var(--stop);
}
.loose {
  padding: 14px 12px 5px;
}
.cols {
  grid-template-columns: 6px minmax(34px, auto) 1fr auto;
}
button.plain.fold {
  padding: 6px 12px 8px 26px;
  color: var(--chalk);
  font-weight: 600;
  font-size: 14.5px;
}
.more {
  padding: 2px 20px;
}
</style>
