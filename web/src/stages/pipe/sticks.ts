import type { DrawnStick, PullDrawing } from '../../api/client'
import type { Thing } from '../../parts/picture/things'

/** Whole sticks in a row that look the same are drawn once. */
export interface StickRow {
  stick: DrawnStick
  times: number
  last: number
}

const plain = (stick: DrawnStick) =>
  stick.pieces.length === 1 && stick.left_in < 0.5 && !stick.pieces[0]?.marks.length

export function rowsOf(drawing: PullDrawing): StickRow[] {
  const rows: StickRow[] = []
  for (const stick of drawing.sticks) {
    const before = rows.at(-1)
    if (before && plain(stick) && plain(before.stick) && stick.pipe === before.stick.pipe) {
      before.times += 1
      before.last = stick.number
    } else rows.push({ stick, times: 1, last: stick.number })
  }
  return rows
}

export interface Scale {
  left: number
  per: number
}

/** One scale for all sticks of a pull: the longest fills the width. */
export function scaleOf(rows: StickRow[], width: number): Scale {
  const longest = Math.max(120, ...rows.map((row) => row.stick.length_in))
  const left = Math.min(96, Math.max(66, width * 0.11))
  return { left, per: (width - left - 26) / longest }
}

export interface MarkLabel {
  x: number
  text: string
  row: number
  key: string
  leg: number
  shape: number | null
  sign: string
  faces: string
  assumed: boolean
  title: string
  to: number | null
}

/** What a bend is picked by: its leg, and its shape or what it is. */
export const bendKey = (bend: { leg: number; shape?: number | null; kind: string }) =>
  `${bend.leg}.${bend.shape ?? bend.kind}`

const DEGREES = (deg: number) => `${Number(deg.toFixed(1))}°`

/** The marks of a stick with their words, in rows so that none covers another. */
export function labelsOf(stick: DrawnStick, scale: Scale): MarkLabel[] {
  const found: MarkLabel[] = []
  const ends: number[] = []
  for (const piece of stick.pieces)
    for (const mark of piece.marks) {
      const x = scale.left + (piece.from_in + mark.at_in) * scale.per
      const text = `${DEGREES(mark.angle_deg)} at ${mark.at_text}`
      const wide = text.length * 6.6 + 10
      let row = ends.findIndex((end) => end < x - wide / 2)
      if (row < 0) row = ends.length
      ends[row] = x + wide / 2
      found.push({
        x,
        text,
        row,
        key: bendKey(mark),
        leg: mark.leg,
        shape: mark.shape ?? null,
        sign: mark.sign,
        faces: mark.faces,
        assumed: mark.assumed,
        title: `${DEGREES(mark.angle_deg)}, ${mark.sign} at ${mark.at_text}, ${mark.text}`,
        to: mark.to_in === null ? null : scale.left + (piece.from_in + mark.to_in) * scale.per,
      })
    }
  return found
}

/** What can be picked on the sticks: every mark. */
export function thingsOf(
  rows: { y: number; labels: MarkLabel[] }[],
  picked: string | null,
  high: number,
): Thing[] {
  return rows.flatMap(({ y, labels }, index) =>
    labels.map((label, n) => ({
      id: `${label.key}.${index}.${n}`,
      kind: 'bend',
      name: label.title,
      x: label.x - 9,
      y: y - 16,
      w: 18,
      h: high + 20,
      picked: picked === label.key,
      mark: label.key,
    })),
  )
}
