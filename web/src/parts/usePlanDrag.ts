import { computed, ref } from 'vue'

import type { DrawnRoom } from '../api/client'
import { tapeText, wallOf, type XY } from './planScale'

interface Drag {
  kind: 'wall' | 'opening' | 'box'
  id: string
  room: DrawnRoom
  side: number
  from: XY
  start: number
  by: number
  to: Record<string, number>
}

interface On {
  metric: () => boolean
  wall: (room: string, side: number, by: number) => void
  opening: (id: string, at: number) => void
  box: (id: string, to: Record<string, number>) => void
}

/** To the face of a stud within 2 in: the edge of an opening, the side of a single-gang box; else to the half inch. */
function caught(now: Drag, along: number) {
  const studs = now.room.walls.find((wall) => wall.side === now.side)?.studs ?? []
  const half = now.kind === 'opening' ? 0.75 : 1.875
  const spots = studs.flatMap((at) => [at - half, at + half])
  const near = spots.toSorted((a, b) => Math.abs(a - along) - Math.abs(b - along))[0]
  return near !== undefined && Math.abs(near - along) < 2 ? near : Math.round(along * 2) / 2
}

/** Walls, openings and boxes taken hold of on a plan: where they would go, with their lengths, until let go. */
export function usePlanDrag(on: On) {
  const drag = ref<Drag | null>(null)

  function grab(kind: Drag['kind'], id: string, room: DrawnRoom, side: number, from: XY, start = 0) {
    drag.value = { kind, id, room, side, from, start, by: 0, to: {} }
  }

  function pull(at: XY) {
    const now = drag.value
    if (!now) return
    const shift: XY = [at[0] - now.from[0], at[1] - now.from[1]]
    if (now.kind === 'box' && now.side < 0) {
      now.to = { x_in: Math.round(at[0]), y_in: Math.round(at[1]) }
      return
    }
    const wall = wallOf(now.room, now.side)
    if (now.kind === 'wall') now.by = Math.round(shift[0] * wall.out[0] + shift[1] * wall.out[1])
    else {
      const along = now.start + shift[0] * wall.along[0] + shift[1] * wall.along[1]
      now.to = { at_in: Math.min(Math.max(caught(now, along), 0), wall.length) }
    }
  }

  function drop() {
    const now = drag.value
    drag.value = null
    if (!now) return
    if (now.kind === 'wall') {
      if (now.by) on.wall(now.room.id, now.side, now.by)
    } else if (!Object.keys(now.to).length) return
    else if (now.kind === 'opening') on.opening(now.id, now.to.at_in ?? 0)
    else on.box(now.id, now.to)
  }
  const note = computed(() => {
    const now = drag.value
    if (!now || (!now.by && !Object.keys(now.to).length)) return null
    if (now.kind !== 'wall') {
      const at = now.to.at_in
      return at === undefined ? null : tapeText(at, on.metric())
    }
    const before = wallOf(now.room, (now.side + 1) % now.room.corners.length).length
    return `${tapeText(before + now.by, on.metric())}, ${now.by > 0 ? 'out' : 'in'} ${tapeText(Math.abs(now.by), on.metric())}`
  })
  const ghost = computed(() => {
    const now = drag.value
    if (!now || (!now.by && !Object.keys(now.to).length)) return null
    const wall = wallOf(now.room, now.side < 0 ? 0 : now.side)
    const at = (d: number, away: number): XY => [
      wall.a[0] + wall.along[0] * d + wall.out[0] * away,
      wall.a[1] + wall.along[1] * d + wall.out[1] * away,
    ]
    if (now.kind === 'wall') return [at(0, now.by), at(wall.length, now.by)]
    if (now.kind === 'opening') {
      const wide = now.room.openings.find((o) => o.id === now.id)?.width_in ?? 30
      return [at(now.to.at_in ?? 0, 2), at((now.to.at_in ?? 0) + wide, 2)]
    }
    const spot: XY = now.side < 0 ? [now.to.x_in ?? 0, now.to.y_in ?? 0] : at(now.to.at_in ?? 0, 0)
    return [spot, spot]
  })

  return { drag, grab, pull, drop, note, ghost }
}
