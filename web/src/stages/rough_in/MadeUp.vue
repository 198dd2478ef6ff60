<script setup lang="ts">
import type { BoxCard, PanelCard } from '../../api/client'
import BoxFigure from './BoxFigure.vue'
import PanelFigure from './PanelFigure.vue'
import StepTicks from './StepTicks.vue'

/** How the box or the panel looked at is made up: its steps, and its figure with what is joined to what. */
defineProps<{ card: BoxCard | null; panel: PanelCard | null }>()
defineEmits<{
  tick: [steps: string[], done: boolean]
  torque: [at: string, read: number, label: number | null]
}>()
</script>

<template>
  <section v-if="card">
    <header class="num headed">
      <h2>{{ card.name }}, {{ card.title }}: how it is made up</h2>
      <span class="mute">{{ card.circuits }}</span>
    </header>
    <p class="num mute where">{{ card.where }}</p>
    <div class="two">
      <StepTicks
        :node="card.node"
        :name="card.name"
        :steps="card.steps"
        :asks="card.asks"
        @tick="(steps, done) => $emit('tick', steps, done)"
      />
      <BoxFigure :card="card" />
    </div>
  </section>
  <section v-else-if="panel">
    <header class="num headed">
      <h2>{{ panel.name }}: how it is made up</h2>
      <span class="mute">{{ panel.where }}</span>
    </header>
    <div class="one">
      <PanelFigure
        :card="panel"
        @torque="(at: string, read: number, label: number | null) => $emit('torque', at, read, label)"
      />
      <StepTicks
        :node="panel.node"
        :name="panel.name"
        :steps="panel.steps"
        :asks="panel.asks"
        @tick="(steps, done) => $emit('tick', steps, done)"
      />
    </div>
  </section>
</template>

<style scoped>
section {
  background: var(--card);
  border-top: 1px solid var(--rule);
  padding-bottom: 12px;
}
.where {
  margin: 0;
  padding: 0 14px 4px;
  font-size: 14px;
}
.two {
  display: grid;
  grid-template-columns: minmax(200px, 250px) minmax(0, 1fr);
  gap: 18px;
  padding: 0 14px;
}
.one {
  padding: 0 14px;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
