import type { DrawnRoom } from '../api/client'
import { boxed, type PlanScale, wallOf } from './planScale'

const HIGH = 15
/** The length of a wall stands so far inside of it, in a frame of this size, at the first of these shares of it. */
const INWARD = 25
const [LONG, SHORT] = [40, 14]
const SHARES = [0.5, 0.25, 0.75, 0.12, 0.88]
const LEAST = 58
const GLYPH = 11
const STEP = 13
/** Over a box a name is hardly read, over a counter it is. */
const [OF_BOX, OF_FIXTURE] = [4, 1]

interface Frame {
  x: number
  y: number
  w: number
  h: number
}
/** The name of a room as written on a plan: its words as far as there is room, and where it stands. */
export interface RoomName {
  text: string
  sub: string
  x: number
  y: number
}

/** How much of two frames lies on each other, in square pixels. */
const shared = (a: Frame, b: Frame) =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y))

/** The frames of the boxes of a room. */
const glyphs = (room: DrawnRoom, scale: PlanScale): Frame[] =>
  room.boxes.map((b) => ({
    x: scale.x(b.x) - GLYPH,
    y: scale.y(b.y) - GLYPH,
    w: 2 * GLYPH,
    h: 2 * GLYPH,
  }))

/** Clear of what hangs from the ceiling and of what stands in the room: the middle if it can be, else the nearest. `leaves`: where doors swing. */
export function roomName(room: DrawnRoom, scale: PlanScale, leaves: Frame[] = []): RoomName {
  const frame = boxed(room.corners, scale)
  const fits = frame.w > room.name.length * 7.5
  const text = fits ? room.name : room.name.slice(0, Math.floor(frame.w / 8)) + '…'
  const sub = frame.w > 92 ? room.size_text : ''
  const taken = [
    ...leaves.map((leaf) => ({ ...leaf, weight: OF_FIXTURE })),
    ...room.fixtures.map((f) => ({ ...boxed(f.quad, scale), weight: OF_FIXTURE })),
    ...glyphs(room, scale).map((frame) => ({ ...frame, weight: OF_BOX })),
  ]
  const [mx, my] = [scale.x(room.middle[0] ?? 0), scale.y(room.middle[1] ?? 0)]
  const downs = Array.from({ length: Math.floor(frame.h / 2 / STEP) }, (_, i) => (i + 1) * STEP)
  const places = [0, ...downs.flatMap((dy) => [dy, -dy])].flatMap((dy) =>
    [0, 0.12, -0.12, 0.24, -0.24].map((share) => ({ x: mx + share * frame.w, y: my + dy })),
  )
  const best = (rows: number, wide: number) => {
    let found: { x: number; y: number; cost: number } | null = null
    for (const place of places) {
      const own = { x: place.x - wide / 2, y: place.y - HIGH + 3, w: wide, h: rows * HIGH }
      const out = own.w * own.h - shared(own, frame)
      if (out > 1 && found) continue
      const over = taken.reduce((sum, t) => sum + t.weight * shared(own, t), out * OF_BOX)
      const cost = over + Math.hypot(place.x - mx, place.y - my) / 20
      if (!found || cost < found.cost - 1e-6) found = { ...place, cost }
    }
    return found ?? { x: mx, y: my, cost: 0 }
  }
  const one = best(1, text.length * 7)
  const two = best(2, Math.max(text.length, sub.length) * 7)
  const both = sub !== '' && two.cost < one.cost + 30
  const { x, y } = both ? two : one
  return { text, sub: both ? sub : '', x, y }
}

const crossing = (frame: Frame, others: readonly Frame[]) => others.some((other) => shared(frame, other) > 0)

/** Where the length of a wall is written: at its middle, or where no door swings over it; not over what is written
 * there already. `room`: whether it fits. */
export function wallLength(
  room: DrawnRoom,
  wall: { side: number; length_text: string },
  scale: PlanScale,
  leaves: Frame[] = [],
  written: Frame[] = [],
) {
  const { a, along, out, length } = wallOf(room, wall.side)
  const upright = Math.abs(along[1]) > Math.abs(along[0])
  const [w, h] = upright ? [SHORT, LONG] : [LONG, SHORT]
  const inward = INWARD / scale.per
  const at = (share: number) => {
    const x = scale.x(a[0] + along[0] * length * share - out[0] * inward)
    const y = scale.y(a[1] + along[1] * length * share - out[1] * inward)
    return { x, y, frame: { x: x - w / 2, y: y - h / 2, w, h } }
  }
  const places = SHARES.map(at).filter(({ frame }) => !crossing(frame, written))
  const { x, y, frame } = places.find((place) => !crossing(place.frame, leaves)) ?? places[0] ?? at(0.5)
  const fits = places.length > 0 && length * scale.per > LEAST
  return { key: wall.side, x, y, frame, text: wall.length_text, upright, room: fits }
}

/** The lengths of all walls of a room, none over its name or over another. */
export function wallLengths(room: DrawnRoom, scale: PlanScale, leaves: Frame[] = [], name?: RoomName) {
  const written: Frame[] = []
  const kept = [...leaves, ...glyphs(room, scale)]
  if (name) {
    const wide = Math.max(name.text.length, name.sub.length) * 7
    written.push({ x: name.x - wide / 2, y: name.y - HIGH + 3, w: wide, h: (name.sub ? 2 : 1) * HIGH })
  }
  return room.walls.map((wall) => {
    const found = wallLength(room, wall, scale, kept, written)
    if (found.room) written.push(found.frame)
    return found
  })
}
