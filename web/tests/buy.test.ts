import { describe, expect, it } from 'vitest'

import type { CutBar, CutSheet, Weighed } from '../src/api/client'
import { against, alike, done, jacket, longest, money, ranked, widthOf } from '../src/stages/buy/bars'

const bar = (length: number, cuts: [string, number][], more: Partial<CutBar> = {}): CutBar => ({
  length,
  title: `${length}′`,
  price: '$1',
  left: 0,
  left_text: '',
  have: false,
  cuts: cuts.map(([label, long]) => ({ from_: 0, long, label, text: `${long}′`, circuit: 'c', box: 'b' })),
  ...more,
})
const sheet = (unit: string, bars: CutBar[]) => ({ unit, bars }) as unknown as CutSheet

describe('bars of coils and sticks', () => {
  it('are drawn to one scale, the longest as wide as the room; sticks apart from coils', () => {
    const sheets = [sheet('ft', [bar(250, []), bar(100, [])]), sheet('in', [bar(120, [])])]
    expect(longest(sheets, 'ft')).toBe(250)
    expect(longest(sheets, 'in')).toBe(120)
    expect(longest([], 'ft')).toBe(1)
    expect(widthOf(100, 250)).toBe(40)
  })
  it('that are cut alike are told once, with how many; one cut otherwise stands alone', () => {
    const rows = alike([
      bar(120, [['shed', 120]]),
      bar(120, [['shed', 120]]),
      bar(120, [['pump', 120]]),
      bar(120, [['pump', 120]], { have: true }),
    ])
    expect(rows.map((row) => [row.first, row.count])).toEqual([
      [1, 2],
      [3, 1],
      [4, 1],
    ])
  })
  it.each([
    ['14-2 NM-B', 'nm14'],
    ['12-3 NM-B', 'nm12'],
    ['10-2 NM-B', 'nm10'],
    ['8-3 NM-B', 'nm8'],
    ['6-3 NM-B', 'nm8'],
    ['2/0-3 SER al', 'nm8'],
    ['12-2 UF-B', 'earth'],
    ['4-3 quadplex', 'earth'],
    ['12-2 MC', 'steel'],
    ['12 THWN-2 green', 'wire-green'],
    ['6 bare copper', 'wire-copper'],
    ['PVC 40 3/4 stick', 'pipe'],
  ])('%s has the colour of its jacket', (item, colour) => expect(jacket(item)).toBe(colour))
})

const way = (key: string, total: number, stops: string[] = []) =>
  ({ key, total, stops }) as unknown as Weighed

describe('money', () => {
  it('is read in cents under a hundred, whole above', () => {
    expect(money(4.5)).toBe('$4.50')
    expect(money(1422.49)).toBe('$1,422')
  })
  it('of another way is told against now, with its sign', () => {
    expect(against(1422, 1326)).toBe('− $96')
    expect(against(1422, 2810.4)).toBe('+ $1,388')
    expect(against(1422, 1422.3)).toBe('the same')
  })
  it('puts what saves most first and what a rule stops last', () => {
    const ways = [way('a', 900), way('b', 500, ['no']), way('c', 700)]
    expect(ranked(ways).map((one) => one.key)).toEqual(['c', 'a', 'b'])
  })
})

it('counts rows that are bought or received, not those taken back', () => {
  expect(done([{ state: 'bought' }, { state: 'open' }, { state: 'returned' }, { state: 'received' }])).toBe(2)
})
