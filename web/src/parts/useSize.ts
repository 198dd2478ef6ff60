import { onBeforeUnmount, onMounted, type Ref, ref } from 'vue'

/** The inner size of an element in pixels, kept while it changes. */
export function useSize(host: Ref<HTMLElement | null>, width0 = 760, height0 = 400) {
  const width = ref(width0)
  const height = ref(height0)
  let watcher: ResizeObserver | undefined
  onMounted(() => {
    watcher = new ResizeObserver(([entry]) => {
      if (!entry) return
      width.value = entry.contentRect.width
      height.value = entry.contentRect.height
    })
    if (host.value) watcher.observe(host.value)
  })
  onBeforeUnmount(() => watcher?.disconnect())
  return { width, height }
}
