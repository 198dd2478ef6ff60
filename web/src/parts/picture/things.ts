/** A thing in a picture that can be picked: where it is drawn, in the picture's own units, and what it is called. */
export interface Thing {
  id: string
  kind: string
  name: string
  x: number
  y: number
  w: number
  h: number
  /** Its true outline, where a rectangle would cover its neighbours. */
  points?: string
  picked?: boolean
  drags?: boolean
  /** Another word that tests and styles may find it by. */
  mark?: string
}

export interface Spot {
  x: number
  y: number
}

export type Way = 'left' | 'right' | 'up' | 'down'

/** Steps by which a thing is moved by keys, to the right and up the picture. */
export interface Steps {
  right: number
  up: number
}
export const STEP: Record<Way, Steps> = {
  left: { right: -1, up: 0 },
  right: { right: 1, up: 0 },
  up: { right: 0, up: 1 },
  down: { right: 0, up: -1 },
}

export const keyOf = (thing: Thing) => `${thing.kind}.${thing.id}`
const middle = (thing: Thing): Spot => ({ x: thing.x + thing.w / 2, y: thing.y + thing.h / 2 })

/** The nearest thing that way: straight ahead counts before aside. */
export function neighbour(things: readonly Thing[], from: Thing, way: Way): Thing | null {
  const here = middle(from)
  let best: Thing | null = null
  let least = Infinity
  for (const thing of things) {
    if (keyOf(thing) === keyOf(from)) continue
    const to = middle(thing)
    const [dx, dy] = [to.x - here.x, to.y - here.y]
    const ahead = { left: -dx, right: dx, up: -dy, down: dy }[way]
    const aside = Math.abs(way === 'left' || way === 'right' ? dy : dx)
    if (ahead <= 0.5 || aside > ahead * 3) continue
    const far = ahead + 2 * aside
    if (far < least) [best, least] = [thing, far]
  }
  return best
}

/** A frame of at least `least` in each direction round the same middle. */
export function hitArea(thing: Thing, least: number) {
  const [w, h] = [Math.max(thing.w, least), Math.max(thing.h, least)]
  return { x: thing.x - (w - thing.w) / 2, y: thing.y - (h - thing.h) / 2, width: w, height: h }
}

/** Large things first, so that small ones lie on top and are hit. */
export const layered = (things: readonly Thing[]) => things.toSorted((a, b) => b.w * b.h - a.w * a.h)
