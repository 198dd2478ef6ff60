import { describe, expect, it } from 'vitest'

import type { DrawnRoom, WalkRound } from '../src/api/client'
import { roomName, wallLength, wallLengths } from '../src/parts/planNames'
import { planScale } from '../src/parts/planScale'
import { missingLabels } from '../src/stages/boxes/roundLabels'
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

describe('what no cord reaches', () => {
  const reach = (x0: number, x1: number, text: string) => ({ x0, x1, y: 0, kind: 'missing', text })
  const labels = (...spans: ReturnType<typeof reach>[]) =>
    missingLabels({ reach: spans } as unknown as WalkRound, (inches) => inches, 0, 900)

  it('is written in full in two rows, then in short, and never in a third row', () => {
    const text = '6′ of wall, no receptacle'
    const found = labels(...[100, 160, 220, 280, 340].map((at) => reach(at, at + 40, text)))
    expect(found.map((one) => one.line).every((line) => line < 2)).toBe(true)
    expect(found[0]?.text).toBe(text)
    expect(found.some((one) => one.text === '6′')).toBe(true)
    for (const line of [0, 1]) {
      const row = found.filter((one) => one.line === line)
      row.slice(1).forEach((one, i) => {
        const before = row[i] as (typeof row)[number]
        const ends = before.at + (before.text.length * 6.8) / 2
        expect(one.at - (one.text.length * 6.8) / 2).toBeGreaterThan(ends)
      })
    }
  })
})

/** A room of 20 by 18 ft on a plan. */
const corners = [
  [0, 216],
  [240, 216],
  [240, 0],
  [0, 0],
]
const scale = planScale(corners as [number, number][], 620, 560)

describe('the name of a room', () => {
  const room = (more: object) =>
    ({
      name: 'Kitchen',
      size_text: '20′ × 18′',
      corners,
      middle: [120, 108],
      fixtures: [],
      boxes: [],
      ...more,
    }) as unknown as DrawnRoom

  it('stands in the middle where nothing else does', () => {
    expect(roomName(room({}), scale)).toMatchObject({ x: scale.x(120), y: scale.y(108), sub: '20′ × 18′' })
  })

  it('stands clear of an island and of a light in the middle of the ceiling', () => {
    const quad = [
      [90, 90],
      [150, 90],
      [150, 126],
      [90, 126],
    ]
    const aside = roomName(room({ fixtures: [{ id: 'f', quad }] }), scale)
    const half = 4.5 * 7
    const beside = aside.x + half < scale.x(90) || aside.x - half > scale.x(150)
    expect(beside || aside.y - 12 >= scale.y(90) || aside.y + 18 <= scale.y(126)).toBe(true)
    const under = roomName(room({ boxes: [{ id: 'b', x: 120, y: 108 }] }), scale)
    expect(Math.hypot(under.x - scale.x(120), under.y - scale.y(108))).toBeGreaterThan(20)
  })
})

describe('the length of a wall', () => {
  const room = { corners } as unknown as DrawnRoom
  const wall = { side: 2, length_text: '20′' }

  it('stands at its middle', () => {
    expect(wallLength(room, wall, scale)).toMatchObject({
      x: scale.x(120),
      upright: false,
      text: '20′',
      room: true,
    })
  })

  it('makes way for a door that swings there, along the wall', () => {
    const leaf = {
      x: scale.x(140),
      y: scale.y(36),
      w: scale.x(104) - scale.x(140),
      h: scale.y(0) - scale.y(36),
    }
    const swung = { ...leaf, x: Math.min(scale.x(104), scale.x(140)), w: Math.abs(leaf.w) }
    const at = wallLength(room, wall, scale, [swung])
    expect(at.x + 20 <= swung.x || at.x - 20 >= swung.x + swung.w).toBe(true)
    expect(at.y).toBeCloseTo(wallLength(room, wall, scale).y)
    const away = { ...swung, y: scale.y(200), h: 10 }
    expect(wallLength(room, wall, scale, [away]).x).toBe(scale.x(120))
  })

  it('stands at its middle where doors swing all along it', () => {
    const all = { x: -1e4, y: -1e4, w: 2e4, h: 2e4 }
    expect(wallLength(room, wall, scale, [all]).x).toBe(scale.x(120))
  })

  it('is written over no name and over no other length in a narrow room', () => {
    const outline = [
      [0, 0],
      [0, 144],
      [48, 144],
      [48, 0],
    ] as [number, number][]
    const narrow = {
      name: 'Hall',
      size_text: '4′ × 12′',
      corners: outline,
      middle: [24, 72],
      fixtures: [],
      boxes: [],
      walls: ['12′', '4′', '12′', '4′'].map((length_text, side) => ({ side, length_text })),
    } as unknown as DrawnRoom
    const shown = planScale(outline, 240, 320)
    const name = roomName(narrow, shown)
    const found = wallLengths(narrow, shown, [], name).filter((one) => one.room)
    expect(found.length).toBeGreaterThan(0)
    const frames = found.map((one) => one.frame)
    frames.push({ x: name.x - name.text.length * 3.5, y: name.y - 12, w: name.text.length * 7, h: 15 })
    for (const [i, one] of frames.entries())
      for (const other of frames.slice(i + 1))
        expect(
          one.x + one.w <= other.x ||
            other.x + other.w <= one.x ||
            one.y + one.h <= other.y ||
            other.y + other.h <= one.y,
        ).toBe(true)
  })
})
