import { computed, ref } from 'vue'

import type { DrawnBox, DrawnRoom } from '../api/client'
import type { XY } from './planScale'

/** A loop drawn over a plan: the boxes inside it are taken when it closes. */
export function useLasso(
  rooms: () => DrawnRoom[],
  world: (event: PointerEvent) => XY,
  take: (boxes: string[]) => void,
) {
  const loop = ref<{ a: XY; b: XY } | null>(null)
  function startLoop(event: PointerEvent) {
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    loop.value = { a: world(event), b: world(event) }
  }
  function endLoop() {
    const now = loop.value
    loop.value = null
    if (!now) return
    const inside = (box: DrawnBox) =>
      Math.min(now.a[0], now.b[0]) <= box.x &&
      box.x <= Math.max(now.a[0], now.b[0]) &&
      Math.min(now.a[1], now.b[1]) <= box.y &&
      box.y <= Math.max(now.a[1], now.b[1])
    take(rooms().flatMap((room) => room.boxes.filter(inside).map((box) => box.id)))
  }
  const looped = computed(() => {
    if (!loop.value) return null
    const { a, b } = loop.value
    return [a, [b[0], a[1]], b, [a[0], b[1]]] as XY[]
  })

  return { loop, startLoop, endLoop, looped }
}
