import type { WalkRound } from '../../api/client'

export const POLE = 64
export const TOP = 44
export const FOOT = 70
/** No box is drawn narrower than this, so that it can be seen. */
export const LEAST = 9

/** Where the unrolled walls lie on the screen. `exact`: one scale for lengths and heights; else all walls fit. */
export function roundScale(round: WalkRound, width: number, height: number, exact: boolean) {
  const room = Math.max(height - TOP - FOOT, 130)
  const tall = room / round.height_in
  const per = exact ? tall : Math.max((Math.max(width, 560) - POLE - 16) / round.length_in, 0.2)
  const x = (inches: number) => POLE + inches * per
  const y = (inches: number) => TOP + (round.height_in - inches) * tall

  function rect(item: { x0: number; x1: number; y0: number; y1: number }, least = 0) {
    const wide = Math.max((item.x1 - item.x0) * per, least)
    const high = Math.max((item.y1 - item.y0) * tall, least ? least * 1.3 : 0)
    return {
      x: x((item.x0 + item.x1) / 2) - wide / 2,
      y: y((item.y0 + item.y1) / 2) - high / 2,
      width: wide,
      height: high,
    }
  }
  return {
    room,
    tall,
    per,
    width: POLE + round.length_in * per + 16,
    height: TOP + room + FOOT,
    stretch: tall / per,
    exact,
    x,
    y,
    rect,
    inches: (px: number) => (px - POLE) / per,
  }
}
export type RoundScale = ReturnType<typeof roundScale>

export const middle = (item: { x0: number; x1: number }) => (item.x0 + item.x1) / 2
export const wallAt = (round: WalkRound, at: number) => round.walls.find((w) => at >= w.x0 && at <= w.x1)

/** A box caught by the nearest stud face within 3 in, else to the half inch; never off its wall. */
export function snapped(round: WalkRound, at: number, half: number, side: number) {
  const wall = round.walls.find((w) => w.side === side)
  if (!wall) return at
  const spots = round.studs
    .filter((s) => s.side === side && s.y0 === 0)
    .flatMap((s) => [s.x0 - half, s.x1 + half])
  const near = spots.toSorted((a, b) => Math.abs(a - at) - Math.abs(b - at))[0]
  const found = near !== undefined && Math.abs(near - at) < 3 ? near : Math.round(at * 2) / 2
  return Math.min(Math.max(found, wall.x0 + half), wall.x1 - half)
}
