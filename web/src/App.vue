<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useTheme } from 'vuetify'

import AppHeader from './shell/AppHeader.vue'
import PocketDrawer from './pocket/PocketDrawer.vue'
import RulesDialog from './rules/RulesDialog.vue'
import KeysDialog from './shell/KeysDialog.vue'
import { useJump } from './shell/jump'
import { isTyping } from './shell/keys'
import { dropReading } from './parts/tape'
import { STAGES, router } from './router'
import { useJob } from './stores/job'
import { useNotice } from './stores/notice'

const store = useJob()
const notice = useNotice()
const theme = useTheme()
const keys = ref(false)
const pocket = ref(false)
const jump = useJump()

function swapTheme() {
  const next = theme.global.name.value === 'bench' ? 'basement' : 'bench'
  theme.change(next)
  localStorage.setItem('levelrun-theme', next)
}

function onKey(event: KeyboardEvent) {
  const letter = event.key.toLowerCase()
  if (isTyping(event)) return
  const plainKey = !event.ctrlKey && !event.metaKey && !event.altKey
  const stage = plainKey ? STAGES[Number(event.key) - 1] : undefined
  if (event.key === '?') keys.value = true
  else if (event.key === 'Escape' && keys.value) keys.value = false
  else if (stage) void router.push(stage.path)
  else if (letter === 'n' && plainKey) void jump.next()
  else if (letter === 't' && plainKey) void dropReading()
  else if (letter === 'p' && !event.ctrlKey && !event.metaKey) pocket.value = true
  else if ((event.ctrlKey || event.metaKey) && letter === 'z')
    void (event.shiftKey ? store.redo() : store.undo())
  else if ((event.ctrlKey || event.metaKey) && letter === 'y') void store.redo()
  else return
  event.preventDefault()
}

onMounted(() => {
  const saved = localStorage.getItem('levelrun-theme')
  if (saved === 'bench' || saved === 'basement') theme.change(saved)
  window.addEventListener('keydown', onKey)
  void store.start()
})
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <v-app>
    <div class="frame">
      <AppHeader @keys="keys = true" @theme="swapTheme" @pocket="pocket = !pocket" />
      <div class="work"><router-view /></div>
    </div>
    <KeysDialog v-model="keys" />
    <RulesDialog />
    <PocketDrawer v-model="pocket" />
    <v-snackbar v-model="notice.shown" :timeout="notice.tone === 'stop' ? 9000 : 5000" location="bottom left">
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
}
@media print {
  .frame {
    height: auto;
  }
}
</style>
