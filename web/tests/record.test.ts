import { describe, expect, it } from 'vitest'

import type { SurfaceRow, XCable, XRay } from '../src/api/client'
import { grouped, laid, lifted, longest, type Point, tickOf, xScale } from '../src/stages/rough_in/record'

const cable = (letter: string, points: Point[]): XCable => ({
  circuit: 'c', box: letter, letter, name: 'Den', wire: '12', state: 'planned', points,
}) // prettier-ignore
const wall = (cables: XCable[]): XRay => ({
  room: 'm', surface: '0', title: '', edges: '', wide_in: 144, tall_in: 96, outline: [], framing: [], openings: [],
  fixtures: [], boxes: [], cables, holes: [], staples: [], extras: [], photos: [], marks: [],
}) // prettier-ignore

describe('a surface to one scale', () => {
  it('has the same scale both ways and fits its picture', () => {
    for (const [width, height] of [
      [360, 330],
      [740, 330],
      [1200, 330],
    ] as const) {
      const shown = wall([])
      const scale = xScale(shown, width, height)
      expect(scale.x(12) - scale.x(0)).toBeCloseTo(scale.y(0) - scale.y(12))
      expect(scale.x(shown.wide_in)).toBeLessThanOrEqual(width)
      expect(scale.y(0)).toBeLessThanOrEqual(scale.height)
    }
  })
  it('reads back what it draws', () => {
    const scale = xScale(wall([]), 740, 330)
    const [at, up] = scale.back(scale.x(50), scale.y(40))
    expect(at).toBeCloseTo(50)
    expect(up).toBeCloseTo(40)
  })
})

describe('cables in a wall', () => {
  const level: Point[] = [[20, 16], [20, 36], [100, 36], [100, 16]] // prettier-ignore
  it('lie side by side where they would lie on one another, and else where they are', () => {
    const apart: Point[] = level.map(([x, y]) => [x, y + 30])
    const shown = wall([cable('1', level), cable('2', level), cable('3', apart)])
    const scale = xScale(shown, 740, 330)
    const [one, two, three] = laid(shown, scale)
    expect(one?.points[1]?.[1]).toBeCloseTo(scale.y(36))
    expect((one?.points[1]?.[1] ?? 0) - (two?.points[1]?.[1] ?? 0)).toBeGreaterThan(3)
    expect(three?.points[1]?.[1]).toBeCloseTo(scale.y(66))
  })
  it('are lifted by their level piece, and stay within the wall', () => {
    expect(longest(level)).toEqual([[20, 36], [100, 36]]) // prettier-ignore
    expect(lifted(level, 6.1, 96)).toEqual([[20, 16], [20, 42], [100, 42], [100, 16]]) // prettier-ignore
    expect(lifted(level, 900, 96)[1]).toEqual([20, 96])
    expect(lifted(level, -900, 96)[1]).toEqual([20, 0])
    const upright: Point[] = [[20, 16], [20, 90]] // prettier-ignore
    expect(lifted(upright, 6, 96)).toEqual(upright)
  })
})

it('walls stand by room, the worst first', () => {
  const row = (room: string, name: string, verdict: string) =>
    ({ room, surface: name, name, group: `House, main floor: ${room}`, verdict }) as unknown as SurfaceRow
  const found = grouped([row('Den', 'a', 'fine'), row('Den', 'b', 'stop'), row('Hall', 'c', 'check')])
  expect(found.map((group) => [group.name, group.rows.map((item) => item.name)])).toEqual([
    ['Den, House', ['b', 'a']],
    ['Hall, House', ['c']],
  ])
})

it('a tick has its day, and a tick taken off has none', () => {
  expect(tickOf('b1', ['free'], true)).toMatchObject({
    op: 'do_card',
    node: 'b1',
    steps: ['free'],
    done: true,
  })
  expect(tickOf('b1', ['free'], true).on).toMatch(/^\d{4}-\d{2}-\d{2}$/)
  expect(tickOf('b1', ['free'], false).on).toBe('')
})
