import { describe, expect, it } from 'vitest'

import { apart, between, pathOf, sectionScale } from '../src/stages/trench/section'

const PAD = { left: 80, top: 40 }

describe('the scale of a long section', () => {
  it('draws depths a whole number of times the lengths, as many as the height takes', () => {
    const scale = sectionScale(516, -31, 12, 740, 214, PAD)
    expect(scale.times).toBe(4) // (740 − 160) / 516 = 1.124 px an inch; 43 in · 4 · 1.124 = 193 of 214
    expect(scale.x(0)).toBe(80)
    expect(scale.x(516)).toBeCloseTo(660)
    expect(scale.z(12) - scale.z(0)).toBeCloseTo(-12 * 4 * (580 / 516))
  })
  it('says that it is not to scale where even the true one would be too tall', () => {
    expect(sectionScale(40, -60, 12, 740, 214, PAD).times).toBe(0)
  })
})

describe('profiles', () => {
  const steps: [number, number][] = [
    [0, 18],
    [100, 18],
    [100, 24],
    [200, 20],
  ]
  it('are cut straight between their points, a step staying a step', () => {
    expect(between(steps, 50, 150)).toEqual([
      [50, 18],
      [100, 18],
      [100, 24],
      [150, 22],
    ])
  })
  it('go on level beyond their ends', () => {
    expect(between(steps, 200, 240).at(-1)).toEqual([240, 20])
    expect(between([], 0, 1)).toEqual([
      [0, 0],
      [1, 0],
    ])
  })
  it('become a path of the picture', () => {
    const scale = sectionScale(100, 0, 10, 260, 100, { left: 80, top: 0 })
    expect(pathOf([[0, 10]], scale)).toBe('M80.0 0.0')
  })
})

describe('words in one row', () => {
  it('are pushed apart where they would touch, and stay where they do not', () => {
    expect(
      apart([
        { at: 100, wide: 40 },
        { at: 110, wide: 40 },
        { at: 300, wide: 40 },
      ]),
    ).toEqual([100, 140, 300])
  })
})
