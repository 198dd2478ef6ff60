<script setup lang="ts">
import { onMounted, onUpdated, ref } from 'vue'

/**
 * The list at the left of a stage: one stop for Tab, at what is looked at; up, down, Home and End go from row to row.
 * Rows out of sight are left undrawn by the browser (`content-visibility`), however long the list is.
 */
defineProps<{ label: string }>()
const nav = ref<HTMLElement | null>(null)
const rows = () => [...(nav.value?.querySelectorAll<HTMLElement>('button, a[href]') ?? [])]

function settle() {
  const all = rows()
  const stop = all.find((row) => row.ariaCurrent === 'true') ?? all[0]
  for (const row of all) row.tabIndex = row === stop ? 0 : -1
}
onMounted(settle)
onUpdated(settle)

function go(event: KeyboardEvent) {
  if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return
  const all = rows()
  const at = all.indexOf(document.activeElement as HTMLElement)
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key]
  if (at < 0 || to === undefined) return
  event.preventDefault()
  all[Math.min(Math.max(to, 0), all.length - 1)]?.focus()
}
</script>

<template>
  <nav
    ref="nav"
    class="list"
    :aria-label="label"
    @keydown="go"
    @focusin="($event.target as HTMLElement).tabIndex = 0"
  >
    <slot />
  </nav>
</template>

<style scoped>
.list {
  padding: 10px 0 14px;
}
.list :deep(h2) {
  padding: 8px 12px 5px;
}
.list :deep(.side-row) {
  content-visibility: auto;
  contain-intrinsic-size: auto 36px;
}
</style>
