import type { Edit, SurfaceRow, XCable, XRay } from '../../api/client'
import { inGroups } from '../../parts/inGroups'

/** Today at the site, as it is written down. */
export const today = () => new Date().toLocaleDateString('sv')
export const keyOf = (row: { room: string; surface: string }) => `${row.room}.${row.surface}`

export interface XScale {
  per: number
  left: number
  top: number
  width: number
  height: number
  x: (inches: number) => number
  y: (inches: number) => number
  back: (px: number, py: number) => [number, number]
}

/** A surface to one scale both ways, its floor at the foot. */
export function xScale(shown: XRay, width: number, height: number): XScale {
  const pad = { left: 16, right: 16, top: 20, foot: 34 }
  const per = Math.max(
    Math.min(
      (width - pad.left - pad.right) / shown.wide_in,
      (height - pad.top - pad.foot) / shown.tall_in,
      9,
    ),
    0.2,
  )
  const left = (width - shown.wide_in * per) / 2
  const tall = Math.ceil(shown.tall_in * per + pad.top + pad.foot)
  const top = pad.top
  return {
    per,
    left,
    top,
    width,
    height: tall,
    x: (inches) => left + inches * per,
    y: (inches) => top + (shown.tall_in - inches) * per,
    back: (px, py) => [(px - left) / per, shown.tall_in - (py - top) / per],
  }
}

export type Point = [number, number]
export interface Laid {
  cable: XCable
  points: Point[]
  label: Point
}

const LANE = 5

/** Cables in pixels; those that would lie on one another are drawn side by side, each with its letter. */
export function laid(shown: XRay, scale: XScale): Laid[] {
  const taken: { y: number; from: number; to: number; lane: number }[] = []
  return shown.cables.map((cable) => {
    const raw = cable.points.map((p) => [p[0] ?? 0, p[1] ?? 0] as Point)
    const level = longest(raw)
    let lane = 0
    if (level) {
      const [a, b] = level
      const span = { y: a[1], from: Math.min(a[0], b[0]), to: Math.max(a[0], b[0]) }
      const near = (one: (typeof taken)[0]) =>
        Math.abs(one.y - span.y) < 2.5 && one.from < span.to - 1 && span.from < one.to - 1
      while (taken.some((one) => one.lane === lane && near(one))) lane++
      taken.push({ ...span, lane })
    }
    const off = LANE * lane
    const points = raw.map(([x, y]) => [scale.x(x) + off, scale.y(y) - off] as Point)
    const drawn = longest(points) ?? [points[0] ?? [0, 0], points.at(-1) ?? [0, 0]]
    const label: Point = [(drawn[0][0] + drawn[1][0]) / 2, (drawn[0][1] + drawn[1][1]) / 2]
    return { cable, points, label }
  })
}

/** The longest level piece of a line of corners. */
export function longest(points: Point[]): [Point, Point] | null {
  let best: [Point, Point] | null = null
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1] as Point, points[i] as Point]
    if (Math.abs(a[1] - b[1]) > 0.5) continue
    if (!best || Math.abs(b[0] - a[0]) > Math.abs(best[1][0] - best[0][0])) best = [a, b]
  }
  return best
}

/** A cable with its level piece at another height: what is at the same height goes with it. */
export function lifted(points: Point[], by: number, tall: number): Point[] {
  const level = longest(points)
  if (!level) return points
  const at = level[0][1]
  const to = Math.min(Math.max(Math.round((at + by) * 4) / 4, 0), tall)
  return points.map(([x, y]) => [x, Math.abs(y - at) < 0.5 ? to : y])
}

/** Rows of the list, by room, the worst first in each; rooms as they come. */
export function grouped(rows: SurfaceRow[]) {
  const rank = { stop: 0, check: 1, fine: 2 } as Record<string, number>
  return inGroups(rows, (row) => row.group).map(([name, own]) => ({
    name: `${name.split(': ')[1] ?? name}, ${name.split(',')[0]}`,
    rows: own.toSorted((a, b) => (rank[a.verdict] ?? 2) - (rank[b.verdict] ?? 2)),
  }))
}

export const tickOf = (node: string, steps: string[], done: boolean): Edit => ({
  op: 'do_card',
  node,
  steps,
  done,
  on: done ? today() : '',
})
