<script setup lang="ts">
import { computed } from 'vue'

import type { Ask, CardStep } from '../../api/client'
import { useOutbox } from '../../stores/outbox'

/** Steps of a box, and questions before one acts there: large enough for a thumb. What waits for the signal says so. */
const props = defineProps<{ node: string; name: string; steps: CardStep[]; asks: Ask[] }>()
const emit = defineEmits<{ tick: [steps: string[], done: boolean] }>()
const outbox = useOutbox()
const rows = computed(() => [
  ...props.asks.map((ask) => ({
    key: ask.key,
    title: ask.text,
    sub: `${ask.when}: ${ask.why}`,
    done: ask.done,
    on: '',
    ask: true,
  })),
  ...props.steps.map((step) => ({
    key: step.key,
    title: step.title,
    sub: [step.why, step.section].filter(Boolean).join(' · '),
    done: step.done,
    on: step.on,
    ask: false,
  })),
])
const before = computed(() => rows.value.filter((row) => row.ask))
const toDo = computed(() => rows.value.filter((row) => !row.ask))
const will = (key: string) => outbox.willBe(props.node, key)
const isDone = (row: { key: string; done: boolean }) => will(row.key) ?? row.done
const open = computed(() =>
  props.steps.filter((step) => step.needed && !isDone(step)).map((step) => step.key),
)
</script>

<template>
  <div class="ticks">
    <h3 v-if="asks.length" class="caps">Ask before you act</h3>
    <h3 v-else class="caps">Tick as you go</h3>
    <template v-for="(own, i) in [before, toDo]" :key="i">
      <h3 v-if="i && asks.length && own.length" class="caps">Tick as you go</h3>
      <button
        v-for="row in own"
        :key="row.key"
        type="button"
        class="plain row"
        role="checkbox"
        :aria-checked="isDone(row)"
        :data-step="row.key"
        @click="emit('tick', [row.key], !isDone(row))"
      >
        <svg
          viewBox="0 0 20 20"
          aria-hidden="true"
          :class="{ on: isDone(row), wait: will(row.key) !== undefined }"
        >
          <rect x="1" y="1" width="18" height="18" rx="2" />
          <path v-if="isDone(row)" d="M4.5 10.5l4 4 7-9" />
        </svg>
        <span class="num"
          >{{ row.title }}
          <small class="mute">{{
            will(row.key) === undefined ? row.sub : 'waits for the signal'
          }}</small></span
        >
      </button>
    </template>
    <v-btn
      v-if="open.length > 1"
      size="small"
      variant="outlined"
      class="all no-print"
      data-testid="made-up"
      @click="emit('tick', open, true)"
      >{{ name }} is made up</v-btn
    >
  </div>
</template>

<style scoped>
h3 {
  margin: 8px 0 2px;
}
.row {
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 9px;
  align-items: start;
  width: 100%;
  min-height: 40px;
  padding: 4px 0;
  text-align: left;
}
.row svg {
  width: 20px;
  margin-top: 1px;
}
.row rect {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.row .on rect {
  fill: var(--lime);
}
.row .wait rect {
  fill: var(--check-wash);
  stroke: var(--check-mark);
}
.row path {
  fill: none;
  stroke: #20262a;
  stroke-width: 2.4;
}
.row span {
  font-size: 15.5px;
  font-weight: 600;
  line-height: 1.2;
}
.row small {
  display: block;
  font-size: 13.5px;
  font-weight: 500;
}
.all {
  margin-top: 8px;
}
@media (max-width: 1000px) {
  .row {
    min-height: 46px;
  }
}
</style>
