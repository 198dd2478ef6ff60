import { type Ref, ref } from 'vue'

import type { Behind, SurfaceRow, XRay } from '../../api/client'
import { useNotice } from '../../stores/notice'
import { useOutbox } from '../../stores/outbox'
import { type Point, today } from './record'

const MOST = 25_000_000

interface At {
  wall: Ref<SurfaceRow | null>
  shown: Ref<XRay | null>
  node: Ref<string | null>
  behind: Ref<Behind | null>
}

/** Photos taken or dropped in: pinned where one looks, written down before they are sent. */
export function usePhotos({ wall, shown, node, behind }: At) {
  const notice = useNotice()
  const outbox = useOutbox()
  const file = ref<HTMLInputElement | null>(null)
  const trench = ref('')

  /** A photo goes to the spot that was asked about, else to the box looked at, else to the middle. */
  function spot(): Point {
    if (behind.value) return [behind.value.at_in, behind.value.height_in]
    const box = shown.value?.boxes.find((item) => item.id === node.value)
    if (box) return [(box.x0 + box.x1) / 2, Math.min((box.y0 + box.y1) / 2 + 18, shown.value?.tall_in ?? 96)]
    return [(shown.value?.wide_in ?? 0) / 2, (shown.value?.tall_in ?? 0) / 2]
  }
  function trenchPhoto(id: string) {
    trench.value = id
    file.value?.click()
  }
  /** Where a photo is pinned that is chosen now: along a trench that was named, on the wall, else to the box alone. */
  function pinned(): Record<string, string> | null {
    if (trench.value) return { trench: trench.value }
    if (wall.value) {
      const [at, height] = spot()
      return {
        room: wall.value.room,
        surface: wall.value.surface,
        at_in: String(at),
        height_in: String(height),
      }
    }
    return node.value ? { node: node.value } : null
  }
  function chosen(event: Event) {
    const input = event.target as HTMLInputElement
    const files = [...(input.files ?? [])]
    input.value = ''
    void take(files)
  }
  async function take(files: File[]) {
    const pin = pinned()
    trench.value = ''
    if (!pin) return
    for (const one of files) {
      if (one.size > MOST) {
        notice.tell(`${one.name} has ${Math.round(one.size / 1e6)} MB; allowed: up to 25`, 'stop')
        continue
      }
      await outbox.photo(one, { ...pin, on: takenOn(one) }, `photo ${one.name}`)
    }
  }
  /** The camera's own day is read from the picture; this is what stands where it has none. */
  const takenOn = (one: File) =>
    one.lastModified ? new Date(one.lastModified).toLocaleDateString('sv') : today()
  const dropped = (event: DragEvent) => take([...(event.dataTransfer?.files ?? [])])

  const choose = () => file.value?.click()
  return { file, chosen, dropped, trenchPhoto, choose }
}
