<script setup lang="ts">
import { ref, watch } from 'vue'

import { useRules } from '../stores/rules'
import LocalNotes from './LocalNotes.vue'
import NotJudged from './NotJudged.vue'
import RuleSearch from './RuleSearch.vue'
import RuleSets from './RuleSets.vue'

/** The rules this job goes by: which set, what the authority here adds, and what each number says. */
const rules = useRules()
const tab = ref('look')
watch(
  () => rules.shown,
  (now) => {
    if (now) tab.value = rules.tab
  },
  { immediate: true },
)
</script>

<template>
  <v-dialog aria-label="Rules" v-model="rules.shown" max-width="760" scrollable>
    <v-card data-testid="rules" class="sheet">
      <v-tabs v-model="tab" density="compact" color="primary" class="tabs">
        <v-tab value="set">Rule set</v-tab>
        <v-tab value="notes">Local notes</v-tab>
        <v-tab value="look">Look it up</v-tab>
        <v-tab value="not">Not checked</v-tab>
      </v-tabs>
      <div class="body">
        <RuleSets v-if="tab === 'set'" />
        <LocalNotes v-else-if="tab === 'notes'" />
        <NotJudged v-else-if="tab === 'not'" />
        <RuleSearch v-else />
      </div>
      <div class="foot"><v-btn variant="text" @click="rules.shown = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.tabs {
  flex: none;
  border-bottom: 1px solid var(--rule);
}
.body {
  overflow-y: auto;
  height: min(62vh, 560px);
  padding: 14px 18px;
}
.foot {
  display: flex;
  justify-content: end;
  padding: 8px 12px;
  border-top: 1px solid var(--rule);
}
</style>
