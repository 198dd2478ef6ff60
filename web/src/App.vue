<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, watch, watchEffect } from 'vue'
import { useDisplay, useTheme } from 'vuetify'

import { traffic, type StageKey } from './api/client'
import { dropReading } from './parts/tape'
import { router } from './router'
import AppHeader from './shell/AppHeader.vue'
import { useJump } from './shell/jump'
import NoSuchPlace from './shell/NoSuchPlace.vue'
import { installKeys, useKeys } from './stage/keys'
import { PLACES, SHEETS, STAGES } from './stage/stages'
import { everShown } from './stage/whenShown'
import { useJob } from './stores/job'
import { isText, keep, kept } from './stores/keep'
import { useLook } from './stores/look'
import { useNotice } from './stores/notice'
import { useOutbox } from './stores/outbox'
import { useRules } from './stores/rules'

const NoJob = defineAsyncComponent(() => import('./shell/NoJob.vue'))
const KeysDialog = defineAsyncComponent(() => import('./shell/KeysDialog.vue'))
const PocketDrawer = defineAsyncComponent(() => import('./pocket/PocketDrawer.vue'))
const RulesDialog = defineAsyncComponent(() => import('./rules/RulesDialog.vue'))

const store = useJob()
const look = useLook()
const notice = useNotice()
const outbox = useOutbox()
const rules = useRules()
const theme = useTheme()
const { width } = useDisplay()
const jump = useJump()
const keys = look.dialogOpen('keys')
const pocket = look.dialogOpen('pocket')
const keysUsed = everShown(() => keys.value)
const pocketUsed = everShown(() => pocket.value)
const rulesUsed = everShown(() => rules.shown)
const system = window.matchMedia('(prefers-color-scheme: dark)')

function swapTheme() {
  const next = theme.global.name.value === 'bench' ? 'basement' : 'bench'
  theme.change(next)
  keep('theme', next)
}
function followSystem() {
  const saved = kept('theme', isText)
  theme.change(saved === 'bench' || saved === 'basement' ? saved : system.matches ? 'basement' : 'bench')
}

/** Another stage of the job looked at; from an address that is none of ours, of the last one. */
function toStage(key: StageKey) {
  const last = store.jobs[0]
  if (nothing.value) return
  if (look.jobId) look.go({}, key)
  else if (last) look.open(last.id, key)
}

useKeys({
  ...Object.fromEntries(STAGES.map((stage, i) => [`${i + 1}`, () => toStage(stage.key)])),
  '?': () => (keys.value = true),
  n: () => void jump.next(),
  t: () => void dropReading(),
  p: () => (pocket.value = true),
  'ctrl+z': () => void store.undo(),
  'ctrl+shift+z': () => void store.redo(),
  'ctrl+y': () => void store.redo(),
})

const title = computed(() => {
  const stage = look.sheet
    ? SHEETS.find((item) => item.key === look.sheet)?.name
    : PLACES.find((item) => item.key === look.stage)?.name
  const what = {
    start: '',
    walls: store.room?.name,
    boxes: store.room?.name,
    circuits: store.view?.circuit?.summary.name,
    runs: store.plan?.summary.name,
    pipe: store.view?.pull?.summary.name,
    trench: store.view?.trench?.name ?? store.view?.span?.name ?? store.view?.ground?.name,
    buy: store.viewOf('buy')?.item?.row.item,
    test: store.view?.tested?.name ?? '',
    rough_in: store.view?.wall ? `${store.view.wall.room_name}, ${store.view.wall.name}` : '',
  }[look.stage]
  return [look.sheet ? null : what, stage, store.job?.name, 'Level Run'].filter(Boolean).join(' · ')
})
watchEffect(() => (document.title = title.value))

/** Nothing was begun, or the last job was taken away. */
const nothing = computed(() => !store.loading && !store.jobs.length && !store.view)

/** Anything on its way: tests wait for it to be over. */
const busy = computed(() => store.loading || store.busy || look.moving || outbox.busy || traffic.asking > 0)
watch(busy, (now) => document.documentElement.toggleAttribute('data-busy', now), {
  immediate: true,
  flush: 'post',
})
const slow = ref(false)
let timer = 0
watch(
  () => traffic.asking > 0,
  (now) => {
    clearTimeout(timer)
    if (now) timer = window.setTimeout(() => (slow.value = true), 1500)
    else slow.value = false
  },
)

onMounted(() => {
  followSystem()
  system.addEventListener('change', followSystem)
  installKeys(() => !!look.dialog)
  look.follow(router)
  const { job } = router.resolve(location.pathname).params
  void store.start(job?.toString(), router.isReady())
})
</script>

<template>
  <v-app>
    <a href="#work" class="skip no-print">To the work</a>
    <div class="frame">
      <AppHeader @keys="keys = true" @theme="swapTheme" @pocket="pocket = !pocket" />
      <p v-if="traffic.away" class="away" role="alert" data-testid="away">
        Level Run is not answering. Nothing is lost: what you did waits here and goes on by itself when it is
        back.
      </p>
      <p v-else-if="slow" class="away mild" role="status">Waiting for Level Run…</p>
      <main id="work" class="work" tabindex="-1">
        <NoJob v-if="nothing" />
        <NoSuchPlace v-else-if="store.missing" :why="store.missing" />
        <router-view v-else />
      </main>
    </div>
    <KeysDialog v-if="keysUsed" v-model="keys" />
    <RulesDialog v-if="rulesUsed" />
    <PocketDrawer v-if="pocketUsed" v-model="pocket" />
    <v-snackbar
      v-model="notice.shown"
      :timeout="notice.tone === 'stop' ? 9000 : 5000"
      :location="width > 1000 ? 'bottom left' : 'top'"
      class="told"
    >
      <span data-testid="notice">{{ notice.text }}</span>
      <template v-if="notice.action" #actions>
        <v-btn variant="text" color="lime" @click="notice.run()">{{ notice.action.label }}</v-btn>
      </template>
    </v-snackbar>
  </v-app>
</template>

<style scoped>
.frame {
  height: 100dvh;
  display: flex;
  flex-direction: column;
}
.work {
  flex: 1;
  min-height: 0;
  outline: none;
}
/* Over the list at the left: on the entry line the next sentence is being typed, over it the answers stand. */
@media (min-width: 1001px) {
  .told :deep(.v-snackbar__wrapper) {
    min-width: 0;
    max-width: calc(clamp(190px, 17.5vw, 224px) - 16px);
  }
}
/* Where all stands in one column, under the header: at the bottom it would lie on the line and the answers. */
@media (max-width: 1000px) {
  .told :deep(.v-snackbar__wrapper) {
    margin-top: 84px;
  }
}
.skip {
  position: absolute;
  left: -999px;
  top: 4px;
  z-index: 20;
  padding: 8px 14px;
  background: var(--card);
  color: var(--ink);
}
.skip:focus {
  left: 8px;
}
.away {
  margin: 0;
  padding: 6px 14px;
  background: var(--stop-wash);
  color: var(--ink);
  font-weight: 600;
}
.away.mild {
  background: var(--check-wash);
}
@media print {
  .frame {
    height: auto;
  }
}
</style>
