import type { Strip } from '../../api/client'

/** Pixels for a strip: where a reading along the tape and a height over the floor are drawn. */
export interface Scale {
  width: number
  height: number
  x: (inches: number) => number
  y: (inches: number) => number
  left: number
  right: number
  top: number
  bottom: number
  tape: number[]
  minor: number[]
  heights: number[]
  stretch: number
}

const LEFT = 84
const RIGHT = 40
const TOP = 104
const BOTTOM = 16
const FEET = [12, 24, 60, 120, 240, 600, 1200, 2400]
const MINOR: Record<number, number> = { 12: 3, 60: 12, 600: 120 }
const METRE = 1000 / 25.4
const METRES = [0.5, 1, 2, 5, 10, 20, 50, 100].map((m) => m * METRE)

function ticks(from: number, to: number, step: number): number[] {
  const found: number[] = []
  for (let at = Math.ceil(from / step) * step; at <= to + 1e-6; at += step) found.push(at)
  return found
}

const stepFor = (span: number, most: number, steps: number[]) =>
  steps.find((step) => span / step <= most) ?? 6000

/** Length and height share one scale where the way is short; a long way is drawn higher, and says by how much. */
export function scaleOf(strip: Strip, width: number, height: number, metric: boolean): Scale {
  const steps = metric ? METRES : FEET
  const tall = Math.max(strip.high_in - strip.low_in, 24)
  const perY = (height - TOP - BOTTOM) / tall
  const long = Math.max(strip.length_in, 12)
  const perX = Math.min((width - LEFT - RIGHT) / long, perY)
  const tapeStep = stepFor(long, 12, steps)
  return {
    width,
    height,
    x: (inches) => LEFT + inches * perX,
    y: (inches) => TOP + (strip.high_in - inches) * perY,
    left: LEFT,
    right: LEFT + long * perX,
    top: TOP,
    bottom: height - BOTTOM,
    tape: ticks(0, long, tapeStep),
    minor: ticks(0, long, metric ? tapeStep / 5 : (MINOR[tapeStep] ?? tapeStep / 10)),
    heights: ticks(strip.low_in, strip.high_in, stepFor(tall, 8, steps)),
    stretch: perY / perX,
  }
}

export interface Label {
  id: string
  x: number
  y: number
  text: string
  tone: string
  /** Pixels further off than usual, for what is drawn larger. */
  apart?: number
  /** Where it may stand, best first, relative to the point. */
  spots?: Spot[]
}

export type Spot =
  'above' | 'right' | 'left' | 'below' | 'above-right' | 'above-left' | 'below-right' | 'below-left'

export interface Placed extends Label {
  px: number
  py: number
  anchor: 'start' | 'middle' | 'end'
}

export interface Rect {
  x0: number
  y0: number
  x1: number
  y1: number
}

const ALL: Spot[] = [
  'above',
  'right',
  'left',
  'below',
  'above-right',
  'above-left',
  'below-right',
  'below-left',
]
const OFFSETS: Record<Spot, [number, number, 'start' | 'middle' | 'end']> = {
  above: [0, -13, 'middle'],
  right: [14, 5, 'start'],
  left: [-14, 5, 'end'],
  below: [0, 24, 'middle'],
  'above-right': [11, -11, 'start'],
  'above-left': [-11, -11, 'end'],
  'below-right': [11, 21, 'start'],
  'below-left': [-11, 21, 'end'],
}
export const CHAR = 6.9

/** Puts labels where they touch neither each other nor what is drawn; one that finds no room is left out. */
export function placeLabels(labels: Label[], taken: Rect[], bounds: Rect): Placed[] {
  const busy = [...taken]
  const placed: Placed[] = []
  for (const label of labels) {
    for (const spot of label.spots ?? ALL) {
      const [near, dy, anchor] = OFFSETS[spot]
      const dx = near + Math.sign(near) * (label.apart ?? 0)
      const wide = label.text.length * CHAR
      const x0 = label.x + dx - (anchor === 'middle' ? wide / 2 : anchor === 'end' ? wide : 0)
      const rect = { x0, y0: label.y + dy - 12, x1: x0 + wide, y1: label.y + dy + 3 }
      const inside =
        rect.x0 >= bounds.x0 && rect.x1 <= bounds.x1 && rect.y0 >= bounds.y0 && rect.y1 <= bounds.y1
      const free = busy.every((b) => rect.x1 < b.x0 || rect.x0 > b.x1 || rect.y1 < b.y0 || rect.y0 > b.y1)
      if (inside && free) {
        busy.push(rect)
        placed.push({ ...label, px: label.x + dx, py: label.y + dy, anchor })
        break
      }
    }
  }
  return placed
}
