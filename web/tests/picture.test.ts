import { describe, expect, it } from 'vitest'

import { hitArea, keyOf, layered, neighbour, type Thing } from '../src/parts/picture/things'

const thing = (id: string, x: number, y: number, w = 10, h = 10): Thing => ({
  id,
  kind: 'box',
  name: id,
  x,
  y,
  w,
  h,
})
const row = [thing('a', 0, 0), thing('b', 50, 2), thing('c', 100, 0), thing('d', 50, 60)]

describe('things in a picture', () => {
  it.each([
    ['a', 'right', 'b'],
    ['b', 'right', 'c'],
    ['c', 'left', 'b'],
    ['b', 'down', 'd'],
    ['d', 'up', 'b'],
    ['a', 'left', null],
    ['c', 'right', null],
  ] as const)('from %s %s lies %s', (from, way, to) => {
    const start = row.find((one) => one.id === from) as Thing
    expect(neighbour(row, start, way)?.id ?? null).toBe(to)
  })

  it('can be hit on 24 px and more, about the same middle', () => {
    expect(hitArea(thing('a', 100, 50, 9, 12), 24)).toEqual({ x: 92.5, y: 44, width: 24, height: 24 })
    expect(hitArea(thing('a', 0, 0, 40, 30), 24)).toEqual({ x: 0, y: 0, width: 40, height: 30 })
  })

  it('lies small over large', () => {
    expect(layered([thing('small', 0, 0, 5, 5), thing('large', 0, 0, 90, 90)]).map(keyOf)).toEqual([
      'box.large',
      'box.small',
    ])
  })
})
