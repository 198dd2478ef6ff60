import type { DrawnRoom } from '../api/client'

export type XY = [number, number]

export interface PlanScale {
  per: number
  x: (inches: number) => number
  y: (inches: number) => number
  back: (px: number, py: number) => XY
}

/** Fits a plan into a picture, one scale both ways, north up. */
export function planScale(points: XY[], width: number, height: number, pad = 46): PlanScale {
  const xs = points.length ? points.map((p) => p[0]) : [0, 240]
  const ys = points.length ? points.map((p) => p[1]) : [0, 160]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const per = Math.max(
    Math.min((width - 2 * pad) / Math.max(x1 - x0, 12), (height - 2 * pad) / Math.max(y1 - y0, 12), 4.5),
    0.02,
  )
  const left = (width - (x1 - x0) * per) / 2
  const top = (height - (y1 - y0) * per) / 2
  return {
    per,
    x: (inches) => left + (inches - x0) * per,
    y: (inches) => top + (y1 - inches) * per,
    back: (px, py) => [x0 + (px - left) / per, y1 - (py - top) / per],
  }
}

/** The frame round some points, in pixels. */
export function boxed(points: readonly (readonly number[])[], scale: PlanScale) {
  const xs = points.map((p) => scale.x(p[0] ?? 0))
  const ys = points.map((p) => scale.y(p[1] ?? 0))
  const [x, y] = [Math.min(...xs), Math.min(...ys)]
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y }
}

export const corners = (rooms: DrawnRoom[]) => rooms.flatMap((room) => room.corners as XY[])

/** A wall of a room: its left end as faced, its direction, the way out, its length. */
export function wallOf(room: DrawnRoom, side: number) {
  const [a, b] = [room.corners[side] as XY, room.corners[(side + 1) % room.corners.length] as XY]
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1
  const along: XY = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
  return { a, along, out: [-along[1], along[0]] as XY, length }
}

/** Whether an inch on the plan goes along a wall or out of its room: −1, 0 or 1 of each. */
export function toward(room: DrawnRoom, side: number, step: { right: number; up: number }) {
  const wall = wallOf(room, side)
  const inch = (way: XY) => {
    const by = step.right * way[0] + step.up * way[1]
    return Math.abs(by) > 0.5 ? Math.sign(by) : 0
  }
  return { along: inch(wall.along), out: inch(wall.out) }
}

/** How far along a wall a point lies, and how far out of the room. */
export function onWall(room: DrawnRoom, side: number, point: XY) {
  const wall = wallOf(room, side)
  const [dx, dy] = [point[0] - wall.a[0], point[1] - wall.a[1]]
  return {
    at: dx * wall.along[0] + dy * wall.along[1],
    away: dx * wall.out[0] + dy * wall.out[1],
    length: wall.length,
  }
}

/** The wall of a room nearest to a point, within `reach` inches; null where none is. */
export function nearestWall(room: DrawnRoom, point: XY, reach: number) {
  let best: { side: number; at: number; away: number } | null = null
  for (let side = 0; side < room.corners.length; side++) {
    const found = onWall(room, side, point)
    if (found.at < 0 || found.at > found.length || Math.abs(found.away) > reach) continue
    if (!best || Math.abs(found.away) < Math.abs(best.away)) best = { side, at: found.at, away: found.away }
  }
  return best
}

const GLYPH: Record<string, string> = { '1/4': '¼', '1/2': '½', '3/4': '¾' }

/** Inches only, to the sixteenth, as studs, heights and depths are said; millimetres where the job is metric. */
export const inchText = (inches: number, metric = false) =>
  metric ? `${Math.round(inches * 25.4)} mm` : tapeText(inches, false, false)

/** Pounds as they are told: to the tenth where there are few. */
export const poundText = (pounds: number) => pounds.toFixed(pounds < 10 ? 1 : 0)

/** A length as it is told in a list: whole feet; metres to the decimetre where the job is metric. */
export const feetText = (inches: number, metric = false) =>
  metric ? `${(inches * 0.0254).toFixed(1)} m` : `${Math.round(inches / 12)}′`

/** Inches as feet and inches to the sixteenth; metres where the job is metric. */
export function tapeText(inches: number, metric = false, inFeet = true) {
  if (metric) return `${(inches * 0.0254).toFixed(3)} m`
  const all = Math.round(Math.abs(inches) * 16)
  const feet = inFeet ? Math.floor(all / 192) : 0
  const rest = all - feet * 192
  const whole = Math.floor(rest / 16)
  let [top, bottom] = [rest % 16, 16]
  while (top && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2]
  const part = top ? (GLYPH[`${top}/${bottom}`] ?? ` ${top}/${bottom}`) : ''
  const small = rest ? `${whole || !part ? whole : ''}${whole ? part : part.trim()}″` : ''
  const text = feet ? `${feet}′${small ? ` ${small}` : ''}` : small || '0″'
  return inches < 0 ? `−${text}` : text
}
