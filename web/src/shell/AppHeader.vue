<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { mdiHelpCircleOutline, mdiRedo, mdiThemeLightDark, mdiUndo } from '@mdi/js'

import { focusWork } from '../stage/keys'
import { STAGES } from '../stage/stages'
import { useLook } from '../stores/look'
import { useJob } from '../stores/job'
import { useRules } from '../stores/rules'
import JobMenu from './JobMenu.vue'
import { useJump } from './jump'

const store = useJob()
const emit = defineEmits<{ keys: []; theme: []; pocket: [] }>()
const rules = useRules()
const jump = useJump()
const look = useLook()
/** The job looked at; from an address that is none of ours, the last one. */
const here = computed(() => look.jobId ?? store.jobs[0]?.id)
/** Another stage keeps what is looked at, and opens without a dialog. */
const links = computed(() => {
  const query = Object.fromEntries(
    Object.entries(look.at).filter(([key, value]) => value !== undefined && key !== 'dialog'),
  ) as Record<string, string>
  return STAGES.map(({ key, name }) => ({
    key,
    name,
    to: { path: here.value ? `/jobs/${here.value}/${key}` : '/', query },
  }))
})
const at = computed(() => (look.sheet || look.lost ? null : look.stage))
/** On a phone the row of stages is wider than the glass: the one looked at is brought into it. */
const row = useTemplateRef<HTMLElement>('row')
watch(
  () => look.stage,
  () =>
    void nextTick(() =>
      row.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
    ),
  { immediate: true },
)
function go(severity: 'stop' | 'check') {
  focusWork()
  void jump.next(severity)
}
</script>

<template>
  <header class="bar no-print">
    <svg viewBox="0 0 36 18" class="mark" aria-hidden="true">
      <rect x="1" y="1" width="34" height="16" rx="8" />
      <path d="M12 1v16M24 1v16" />
      <ellipse cx="18" cy="8" rx="4.6" ry="4" />
    </svg>
    <h1 class="num brand">Level Run</h1>
    <JobMenu @keys="emit('keys')" @theme="emit('theme')" @pocket="emit('pocket')" />
    <nav ref="row" class="stages num" aria-label="Stages">
      <router-link
        v-for="stage in links"
        :key="stage.key"
        v-memo="[links, at === stage.key]"
        :to="stage.to"
        :class="{ here: at === stage.key }"
        :aria-current="at === stage.key ? 'page' : undefined"
        >{{ stage.name }}</router-link
      >
    </nav>
    <span class="gap" />
    <v-btn
      :icon="mdiUndo"
      size="small"
      variant="text"
      :disabled="!store.view?.undo"
      :title="store.view?.undo ? `Undo: ${store.view.undo}` : 'Nothing to undo'"
      aria-label="Undo"
      data-testid="undo"
      @click="(focusWork(), store.undo())"
    />
    <v-btn
      :icon="mdiRedo"
      class="redo"
      size="small"
      variant="text"
      :disabled="!store.view?.redo"
      :title="store.view?.redo ? `Redo: ${store.view.redo}` : 'Nothing to redo'"
      aria-label="Redo"
      data-testid="redo"
      @click="(focusWork(), store.redo())"
    />
    <button
      v-if="store.view"
      type="button"
      class="plain chip num rules"
      title="Rule set, local notes, look it up"
      data-testid="open-rules"
      @click="rules.open('set')"
    >
      {{ store.view.rules_title.replace('local ', '') }}
    </button>
    <button
      v-if="store.view"
      type="button"
      class="plain chip num"
      :class="{ stop: store.view.stops }"
      title="Go to the next stop"
      data-testid="stops"
      @click="go('stop')"
    >
      {{ store.view.stops }} {{ store.view.stops === 1 ? 'stop' : 'stops' }}
    </button>
    <button
      v-if="store.view"
      type="button"
      class="plain chip num"
      :class="{ check: store.view.checks }"
      title="Go to the next check"
      data-testid="checks"
      @click="go('check')"
    >
      {{ store.view.checks }} to check
    </button>
    <button
      type="button"
      class="plain chip num pocket"
      title="Single calculations (P)"
      data-testid="open-pocket"
      @click="emit('pocket')"
    >
      Pocket
    </button>
    <v-btn
      :icon="mdiThemeLightDark"
      class="dark"
      size="small"
      variant="text"
      title="Light or dark"
      aria-label="Light or dark"
      @click="emit('theme')"
    />
    <v-btn
      :icon="mdiHelpCircleOutline"
      size="small"
      variant="text"
      class="help"
      title="Keys (?)"
      aria-label="Keys"
      @click="emit('keys')"
    />
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 50px;
  padding: 0 12px;
  background: rgb(var(--v-theme-header));
  color: #f3f0e8;
}
.mark {
  width: 34px;
  flex: none;
}
.mark rect {
  fill: #c9db3b;
  stroke: #7f8f10;
}
.mark path {
  stroke: #20262a;
  stroke-width: 1.6;
}
.mark ellipse {
  fill: #fcfbf7;
}
.brand {
  margin: 0;
  font-weight: 600;
  font-size: 18px;
  white-space: nowrap;
}
.stages {
  display: flex;
  flex: none;
  height: 100%;
  margin-left: 6px;
}
.stages a {
  color: #cfd2cf;
  text-decoration: none;
  font-weight: 600;
  font-size: 15.5px;
  white-space: nowrap;
  padding: 14px clamp(7px, 0.62vw, 12px) 0;
  border-bottom: 3px solid transparent;
}
.stages a.here {
  color: #fff;
  background: #343c41;
  border-bottom-color: #c9db3b;
}
.gap {
  flex: 1;
}
.chip {
  flex: none;
  border: 1px solid #6b7277;
  border-radius: 4px;
  padding: 3px 9px;
  font-weight: 600;
  font-size: 14.5px;
  white-space: nowrap;
}
.chip.stop {
  border-color: #e0614a;
  color: #ff9d8a;
}
.chip.check {
  border-color: #c98508;
  color: #f0b84e;
}
/* Too narrow for one row: the stages stand below. */
@media (max-width: 1240px) {
  .bar {
    flex-wrap: wrap;
    height: auto;
    padding-top: 4px;
  }
  .stages {
    order: 9;
    width: 100%;
    height: 38px;
    margin: 0;
    overflow-x: auto;
  }
  .stages a {
    padding: 7px 13px 0;
  }
}
@media (max-width: 700px) {
  .bar {
    gap: 4px;
    padding: 4px 8px 0;
  }
  .mark,
  .help,
  .dark,
  .pocket,
  .rules {
    display: none;
  }
  .brand {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .bar :deep(.v-btn--icon) {
    width: 32px;
    height: 36px;
  }
  .bar :deep(.clip) {
    max-width: 84px;
  }
  .chip {
    padding: 3px 5px;
  }
}
</style>
