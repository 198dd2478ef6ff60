import { describe, expect, it } from 'vitest'

import type { YardShape } from '../src/api/client'
import { placeOf } from '../src/stores/where'
import {
  bandOf,
  buildingName,
  frameOf,
  inside,
  pathOf,
  sideOf,
  tagOf,
  within,
  yardScale,
} from '../src/stages/trench/yardView'

const scale = yardScale([-100, -50, 300, 150], 800, 500) // 400 by 200 in: 2 px an inch, 50 px over and under

function building(name: string, x: number, y: number, w: number, h: number): YardShape {
  const ring: [number, number][] = [
    [x, y],
    [x, y + h],
    [x + w, y + h],
    [x + w, y],
  ]
  return {
    id: name,
    kind: 'building',
    name,
    rings: [ring],
    line: [],
    at: [x + w / 2, y + h / 2],
    text: 'not drawn yet',
    drawn: false,
  }
}

describe('the yard in a picture', () => {
  it('has one scale both ways, north up, and comes back to the same place', () => {
    expect(scale.per).toBe(2)
    expect(scale.px([-100, 150])).toEqual([0, 50])
    expect(scale.px([300, -50])).toEqual([800, 450])
    expect(scale.back(...scale.px([12, 34]))).toEqual([12, 34])
  })
  it('draws lines, areas and frames', () => {
    expect(
      pathOf(
        [
          [-100, 150],
          [0, 50],
        ],
        scale,
        true,
      ),
    ).toBe('M0.0 50.0L200.0 250.0Z')
    expect(
      frameOf(
        [
          [0, 0],
          [10, 20],
        ],
        scale,
      ),
    ).toEqual({ x: 200, y: 310, w: 20, h: 40 })
    expect(bandOf([[0, 0]], scale)).toBe('208.0,358.0 192.0,342.0')
  })
})

describe('words on the yard', () => {
  it('stand in a building in one line, in two, or under it', () => {
    expect(buildingName(building('House', 0, 0, 100, 60), scale)).toMatchObject({
      lines: ['House'],
      under: false,
      text: 'not drawn yet',
    })
    expect(buildingName(building('Kiln shop', 0, 0, 30, 30), scale)).toMatchObject({
      lines: ['Kiln', 'shop'],
      under: false,
    })
    const small = buildingName(building('Cold-store shed', 0, 0, 20, 20), scale)
    expect(small).toMatchObject({ lines: ['Cold-store shed'], under: true, text: '' })
    expect(small.y).toBe(scale.px([0, 0])[1] + 16)
  })
  it('are not cut off at the edges', () => {
    expect(within(3, 'Pump house', 800)).toBe(44)
    expect(within(799, 'Pump house', 800)).toBe(756)
    expect(inside([-50, 900], scale)).toEqual([26, 452])
  })
  it('keep clear of the building left of them', () => {
    const shed = building('Shed', 0, 0, 20, 20)
    expect(sideOf([22, 10], [shed], scale)).toBe(1)
    expect(sideOf([60, 10], [shed], scale)).toBe(-1)
    expect(sideOf([22, 60], [shed], scale)).toBe(-1)
  })
  it('stand beside a service where it first shows', () => {
    expect(
      tagOf(
        [
          [0, 400],
          [0, 0],
        ],
        scale,
      )[1],
    ).toBeGreaterThan(14)
    expect(
      tagOf(
        [
          [900, 900],
          [950, 950],
        ],
        scale,
      ),
    ).toEqual([740, 34])
  })
})

describe('where a finding of the yard is seen', () => {
  const ref = { id: '', room: '', leg: 5, severity: 'stop', title: '', code: '', subject: 'h14' } as const
  it('is the trench that the way lies in, or the line itself', () => {
    expect(placeOf({ ...ref, about: 'way', stage: 'trench' })).toMatchObject({ way: 'h14', line: undefined })
    expect(placeOf({ ...ref, about: 'trench', stage: 'trench', subject: 't1' })).toMatchObject({
      line: 't1',
      way: undefined,
    })
    expect(placeOf({ ...ref, about: 'way', stage: 'runs' })).toMatchObject({ way: 'h14', leg: '6' })
  })
})
