<script setup lang="ts">
import type { Figure } from '../api/client'
import { useRules } from '../stores/rules'

/** Wraps a number: a click or Enter shows formula, inputs, section, and where the value comes from. */
defineProps<{ figure: Figure }>()
const rules = useRules()
</script>

<template>
  <v-menu :close-on-content-click="false" max-width="380" location="start">
    <template #activator="{ props: on }">
      <button class="plain reason" type="button" v-bind="on" :data-figure="figure.key">
        <slot /><span class="unseen">. Why?</span>
      </button>
    </template>
    <v-card class="sheet" data-testid="reason">
      <h3>{{ figure.label }}</h3>
      <p class="mute">{{ figure.formula }}</p>
      <table class="num">
        <tbody>
          <tr v-for="(value, name) in figure.inputs" :key="name">
            <td>{{ name }}</td>
            <td>{{ value }}</td>
          </tr>
          <tr class="sum">
            <td>{{ figure.label }}</td>
            <td>{{ figure.text }}</td>
          </tr>
          <tr v-if="figure.limit_text">
            <td>limit</td>
            <td>{{ figure.limit_text }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mute">{{ figure.rule }} · {{ figure.basis }}</p>
      <v-btn size="small" variant="outlined" @click="rules.lookUp(figure.rule)">Look up the source</v-btn>
    </v-card>
  </v-menu>
</template>

<style scoped>
.reason {
  display: block;
  width: 100%;
  border-radius: 4px;
}
.reason:hover {
  background: var(--note-wash);
}
.sheet {
  padding: 14px 16px;
  border: 1px solid var(--rule);
}
p {
  margin: 4px 0 8px;
  font-size: 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
td {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
  vertical-align: top;
}
td + td {
  text-align: right;
  padding-left: 16px;
}
.sum td {
  font-weight: 600;
}
</style>
