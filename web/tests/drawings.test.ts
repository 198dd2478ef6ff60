import { describe, expect, it } from 'vitest'

import type { WalkRound } from '../src/api/client'
import { LEAST, POLE, roundScale, snapped, wallAt } from '../src/stages/boxes/roundScale'
import { wrapped } from '../src/stages/circuits/breakerText'

const stud = (x0: number, side: number, y0 = 0) => ({ x0, x1: x0 + 1.5, y0, y1: 96, side, kind: 'stud' })
const round = {
  length_in: 240,
  height_in: 96,
  walls: [
    { side: 0, x0: 0, x1: 144, name: 'north' },
    { side: 1, x0: 144, x1: 240, name: 'east' },
  ],
  studs: [stud(0, 0), stud(15.25, 0), stud(31.25, 0), stud(47.25, 0, 80), stud(144, 1), stud(159.25, 1)],
} as unknown as WalkRound

describe('the unrolled walls', () => {
  it('show all walls, or lengths and heights to one scale', () => {
    const fitted = roundScale(round, 720, 330, false)
    expect(fitted.x(round.length_in)).toBeCloseTo(720 - 16)
    expect(fitted.stretch).toBeCloseTo(fitted.tall / fitted.per)
    const exact = roundScale(round, 720, 330, true)
    expect(exact.per).toBe(exact.tall)
    expect(exact.inches(exact.x(33))).toBeCloseTo(33)
    expect(exact.x(0)).toBe(POLE)
  })

  it('draw no box narrower than can be seen', () => {
    const scale = roundScale(round, 720, 330, false)
    expect(scale.rect({ x0: 40, x1: 42.25, y0: 12, y1: 16 }, LEAST).width).toBe(LEAST)
    expect(scale.rect({ x0: 0, x1: 144, y0: 0, y1: 96 }).width).toBeCloseTo(144 * scale.per)
  })

  it.each([
    [18.4, 17.875],
    [13.0, 14.125],
    [23.2, 23.0],
    [-5, 1.125],
    [500, 142.875],
  ])('catch a single-gang box dragged to %s in at %s in', (to, at) => {
    expect(snapped(round, to, 1.125, 0)).toBeCloseTo(at)
  })

  it('know the wall under a place', () => {
    expect(wallAt(round, 100)?.name).toBe('north')
    expect(wallAt(round, 200)?.name).toBe('east')
    expect(wallAt(round, 300)).toBeUndefined()
  })
})

describe('the name on a breaker', () => {
  it.each([
    ['9 Common room', ['9 Common room']],
    ['6 Kitchen counter L', ['6 Kitchen', 'counter L']],
    ['15 Lights Common room, Porch and more', ['15 Lights Common', 'room, Porch and…']],
    ['3 Unpronounceableequipment', ['3', 'Unpronounceable…']],
  ])('%s', (name, lines) => {
    expect(wrapped(name, 100, 2)).toEqual(lines)
  })

  it('of a tandem stands on one line', () => {
    expect(wrapped('1a Lights of the whole hall', 100, 1)).toEqual(['1a Lights of th…'])
  })
})
