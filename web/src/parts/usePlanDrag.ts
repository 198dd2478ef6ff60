import { computed, ref } from 'vue'

import type { DrawnRoom } from '../api/client'
import type { By } from '../stores/moving'
import { tapeText, wallOf, type XY } from './planScale'

/** A wall, opening or box on a plan with where it would go: `start` is its place along its wall. */
export interface Held {
  kind: string
  id: string
  room: DrawnRoom
  side: number
  start: number
  by: By
}
interface Drag extends Held {
  from: XY
}

interface On {
  metric: () => boolean
  /** What is on its way already. */
  moving: () => Held[]
  wall: (room: string, side: number, by: number) => void
  move: (id: string, by: By) => void
}

/** To the face of a stud within 2 in: the edge of an opening, the side of a single-gang box; else to the half inch. */
function caught(now: Held, along: number) {
  const studs = now.room.walls.find((wall) => wall.side === now.side)?.studs ?? []
  const half = now.kind === 'opening' ? 0.75 : 1.875
  const spots = studs.flatMap((at) => [at - half, at + half])
  const near = spots.toSorted((a, b) => Math.abs(a - along) - Math.abs(b - along))[0]
  return near !== undefined && Math.abs(near - along) < 2 ? near : Math.round(along * 2) / 2
}

/** Where a thing that moves will stand on the plan, as a line. */
export function ghostOf(now: Held): XY[] {
  const wall = wallOf(now.room, now.side < 0 ? 0 : now.side)
  const at = (d: number, away: number): XY => [
    wall.a[0] + wall.along[0] * d + wall.out[0] * away,
    wall.a[1] + wall.along[1] * d + wall.out[1] * away,
  ]
  if (now.kind === 'wall') return [at(0, now.by.by_in ?? 0), at(wall.length, now.by.by_in ?? 0)]
  const along = now.start + (now.by.at_in ?? 0)
  if (now.kind === 'opening') {
    const wide = now.room.openings.find((o) => o.id === now.id)?.width_in ?? 30
    return [at(along, 2), at(along + wide, 2)]
  }
  const box = now.room.boxes.find((item) => item.id === now.id)
  const spot: XY =
    now.side < 0 && box ? [box.x + (now.by.x_in ?? 0), box.y + (now.by.y_in ?? 0)] : at(along, 0)
  return [spot, spot]
}

/** Its length or place by then, in words; none for what hangs in the open. */
export function noteOf(now: Held, metric: boolean) {
  if (now.kind === 'wall') {
    const by = now.by.by_in ?? 0
    const beside = wallOf(now.room, (now.side + 1) % now.room.corners.length).length
    return `${tapeText(beside + by, metric)}, ${by > 0 ? 'out' : 'in'} ${tapeText(Math.abs(by), metric)}`
  }
  return now.side < 0 ? null : tapeText(now.start + (now.by.at_in ?? 0), metric)
}

/** Walls, openings and boxes taken hold of on a plan: where they would go, with their lengths, until they are there. */
export function usePlanDrag(on: On) {
  const drag = ref<Drag | null>(null)

  function grab(kind: string, id: string, room: DrawnRoom, side: number, from: XY, start = 0) {
    drag.value = { kind, id, room, side, from, start, by: {} }
  }

  function pull(at: XY) {
    const now = drag.value
    if (!now) return
    const shift: XY = [at[0] - now.from[0], at[1] - now.from[1]]
    if (now.kind === 'box' && now.side < 0) {
      now.by = { x_in: Math.round(shift[0]), y_in: Math.round(shift[1]) }
      return
    }
    const wall = wallOf(now.room, now.side)
    if (now.kind === 'wall') now.by = { by_in: Math.round(shift[0] * wall.out[0] + shift[1] * wall.out[1]) }
    else {
      const along = now.start + shift[0] * wall.along[0] + shift[1] * wall.along[1]
      now.by = { at_in: Math.min(Math.max(caught(now, along), 0), wall.length) - now.start }
    }
  }

  function drop() {
    const now = drag.value
    drag.value = null
    if (!now || Object.values(now.by).every((by) => !by)) return
    if (now.kind === 'wall') on.wall(now.room.id, now.side, now.by.by_in ?? 0)
    else on.move(now.id, now.by)
  }
  const held = computed(() => (drag.value && Object.keys(drag.value.by).length ? [drag.value] : on.moving()))
  const note = computed(() => (held.value[0] ? noteOf(held.value[0], on.metric()) : null))
  const ghosts = computed(() => held.value.map(ghostOf))

  return { drag, grab, pull, drop, note, ghosts }
}
