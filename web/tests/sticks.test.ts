import { describe, expect, it } from 'vitest'

import type { DrawnStick, PullDrawing } from '../src/api/client'
import { labelsOf, rowsOf, scaleOf, thingsOf } from '../src/stages/pipe/sticks'

const mark = (at_in: number, angle_deg = 90, sign = 'arrow') => ({
  at_in,
  to_in: null,
  at_text: `${at_in}″`,
  sign,
  faces: 'left',
  angle_deg,
  kind: 'corner',
  leg: 1,
  shape: null,
  roll_deg: null,
  text: 'up',
  assumed: false,
})
const stick = (number: number, marks: ReturnType<typeof mark>[] = [], to_in = 120) =>
  ({
    number,
    pipe: 'EMT 3/4″',
    method: 'EMT',
    length_in: 120,
    pieces: [
      {
        number,
        pull: 0,
        from_in: 0,
        to_in,
        length_text: '',
        left: '',
        right: '',
        mine: true,
        marks,
        straps: [],
      },
    ],
    left_in: 120 - to_in,
    left_text: '',
    bell: false,
    note: '',
  }) as unknown as DrawnStick
const drawing = (sticks: DrawnStick[]) => ({ sticks }) as unknown as PullDrawing

describe('sticks', () => {
  it('are drawn once where whole ones follow each other', () => {
    const rows = rowsOf(drawing([stick(1), stick(2), stick(3), stick(4, [mark(20)]), stick(5)]))
    expect(rows.map((row) => [row.stick.number, row.times, row.last])).toEqual([
      [1, 3, 3],
      [4, 1, 4],
      [5, 1, 5],
    ])
  })

  it('are told apart where one is cut', () => {
    expect(rowsOf(drawing([stick(1, [], 100), stick(2, [], 100)]))).toHaveLength(2)
  })

  it('fill the width, ten feet at the least', () => {
    const scale = scaleOf(rowsOf(drawing([stick(1)])), 800)
    expect(scale.left + 120 * scale.per).toBeCloseTo(800 - 26)
  })

  it('have words that do not cover each other', () => {
    const one = stick(1, [mark(50), mark(52), mark(54), mark(110)])
    const labels = labelsOf(one, scaleOf(rowsOf(drawing([one])), 800))
    expect(labels.map((label) => label.row)).toEqual([0, 1, 2, 0])
    expect(labels[0]?.text).toBe('90° at 50″')
  })

  it('have a thing to pick for every mark, named in full', () => {
    const one = stick(1, [mark(50, 22.5, 'star')])
    const labels = labelsOf(one, scaleOf(rowsOf(drawing([one])), 800))
    const [thing] = thingsOf([{ y: 40, labels }], '1.corner', 17)
    expect(thing?.name).toBe('22.5°, star at 50″, up')
    expect(thing?.picked).toBe(true)
    expect(thing?.mark).toBe('1.corner')
  })
})
