<script setup lang="ts">
import type { Finding, Mend } from '../api/client'
import { useRules } from '../stores/rules'

/** One finding: what is wrong in one line, why, the section, and the taps that mend it. */
defineProps<{ finding: Finding; where?: string; first?: boolean }>()
const rules = useRules()
const emit = defineEmits<{ mend: [mend: Mend] }>()
</script>

<template>
  <article class="card" :class="finding.severity" :data-code="finding.code">
    <div class="num head">
      <b>{{ finding.title }}</b>
      <span class="word">{{ finding.severity }}</span>
    </div>
    <p>
      <span v-if="where" class="num where">{{ where }}: </span>{{ finding.text }}
      <button type="button" class="plain mute section" @click="rules.lookUp(finding.section)">
        {{ finding.section }}
      </button>
      <b v-if="finding.decided_by === 'note'" class="num"> local note decides</b>
    </p>
    <div v-if="finding.mends?.length" class="mends no-print">
      <v-btn
        v-for="(mend, i) in finding.mends"
        :key="mend.label"
        size="small"
        :variant="i ? 'outlined' : 'flat'"
        :color="i ? undefined : 'ink'"
        :data-first="first && !i ? '' : undefined"
        @click="emit('mend', mend)"
        >{{ mend.label }}</v-btn
      >
    </div>
  </article>
</template>

<style scoped>
.card {
  border-left: 5px solid var(--rule);
  background: var(--note-wash);
  padding: 8px 10px 9px;
  margin: 0 0 8px;
  font-size: 15px;
}
.stop {
  border-color: var(--stop);
  background: var(--stop-wash);
}
.check {
  border-color: var(--check-mark);
  background: var(--check-wash);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  font-size: 16px;
}
.head b {
  font-weight: 600;
}
.word {
  font-size: 13px;
  font-weight: 600;
  color: var(--mute);
}
.stop .word {
  color: var(--stop);
}
.check .word {
  color: var(--check);
}
button.section {
  text-decoration: underline dotted;
}
p {
  margin: 2px 0 0;
}
.where {
  font-weight: 600;
}
.mends {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 7px;
}
.mends :deep(.v-btn) {
  height: auto;
  min-height: 30px;
  padding: 4px 10px;
  font-size: 14px;
  white-space: normal;
}
.mends :deep(.v-btn__content) {
  white-space: normal;
  text-align: left;
}
.mends :deep([data-first]:focus-visible .v-btn__content)::after {
  content: ' · M again';
  font-weight: 400;
}
</style>
