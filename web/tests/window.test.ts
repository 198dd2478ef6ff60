import { describe, expect, it } from 'vitest'

import type { TestStep } from '../src/api/client'
import { figure, track, typedNumber } from '../src/stages/test/window'

const step = (low: number | null, high: number | null, value: number | null, kind = 'volts') =>
  ({ low, high, value, kind, expected: null }) as unknown as TestStep

describe('a window and its reading on one track', () => {
  it('has the reading inside its window where it is, and outside where it is not', () => {
    const inside = track(step(114, 126, 120))
    expect(inside && inside.at && inside.from < inside.at && inside.at < inside.to).toBe(true)
    expect(inside?.over).toBe(false)
    const low = track(step(114, 126, 20))
    expect(low?.over).toBe(true)
    expect((low?.at ?? 99) < (low?.from ?? 0)).toBe(true)
    const high = track(step(1.2, 3.9, 900))
    expect(high?.over).toBe(true)
    expect(high?.at).toBeGreaterThan(high?.to ?? 0)
    expect(high?.at).toBeLessThanOrEqual(95)
  })
  it('keeps zero in sight for windows that begin there', () => {
    const ohms = track(step(0, 0.5, 0.3, 'ohms'))
    expect(ohms?.from).toBeLessThanOrEqual(5)
  })
  it('has none where a length is not known', () => {
    expect(track(step(null, null, 3))).toBeNull()
  })
  it('tells insulation by powers of ten', () => {
    const one = track(step(1, 1000, 1, 'megohms'))
    const ten = track(step(1, 1000, 10, 'megohms'))
    const hundred = track(step(1, 1000, 100, 'megohms'))
    expect((ten?.at ?? 0) - (one?.at ?? 0)).toBeCloseTo((hundred?.at ?? 0) - (ten?.at ?? 0), 5)
  })
})

it('reads numbers as they are typed, and nothing that is none', () => {
  expect([typedNumber('123.1'), typedNumber(' 123.1 V'), typedNumber('0,3 ohm'), typedNumber('1e9')]).toEqual(
    [123.1, 123.1, 0.3, 1e9],
  )
  expect([typedNumber('much'), typedNumber(''), typedNumber('12 apples'), typedNumber('-3')]).toEqual([
    null,
    null,
    null,
    -3,
  ])
})

it('tells limits by three figures', () => {
  expect([figure(121.3), figure(3.94), figure(0.456), figure(12.0)]).toEqual(['121', '3.94', '0.46', '12'])
})
