import { describe, expect, it } from 'vitest'

import type { DrawnRoom } from '../src/api/client'
import { STEP } from '../src/parts/picture/things'
import { toward } from '../src/parts/planScale'
import { ghostOf, noteOf } from '../src/parts/usePlanDrag'
import { makeMoves } from '../src/stores/moving'

describe('moves on their way', () => {
  it('gather until their turn comes and are shown until they are answered', () => {
    const moves = makeMoves()
    moves.add('wall.den.1', { by_in: 1 })
    const first = moves.take('wall.den.1')
    moves.add('wall.den.1', { by_in: 1 })
    moves.add('wall.den.1', { by_in: 1 })
    expect(first).toEqual({ by_in: 1 })
    expect(moves.moving.value).toEqual({ 'wall.den.1': { by_in: 3 } })
    moves.done('wall.den.1', first!)
    expect(moves.moving.value).toEqual({ 'wall.den.1': { by_in: 2 } })
    const second = moves.take('wall.den.1')
    expect(second).toEqual({ by_in: 2 })
    moves.done('wall.den.1', second!)
    expect(moves.moving.value).toEqual({})
  })

  it('there and back is nothing to send and nothing to show', () => {
    const moves = makeMoves()
    moves.add('box.a', { at_in: 1 })
    moves.add('box.a', { at_in: -1 })
    expect(moves.moving.value).toEqual({})
    expect(moves.take('box.a')).toBeNull()
  })

  it('keep things and fields apart, and sixteenths whole', () => {
    const moves = makeMoves()
    moves.add('box.a', { x_in: 0.1 })
    moves.add('box.a', { y_in: 0.2 })
    moves.add('box.a', { x_in: 0.2 })
    moves.add('box.b', { at_in: 2 })
    expect(moves.take('box.a')).toEqual({ x_in: 0.3, y_in: 0.2 })
    expect(moves.moving.value['box.b']).toEqual({ at_in: 2 })
  })
})

/** Den, 12 by 10 ft, clockwise from its north-west corner: 0 north, 1 east, 2 south, 3 west. */
const den = {
  id: 'den',
  corners: [
    [0, 120],
    [144, 120],
    [144, 0],
    [0, 0],
  ],
  openings: [{ id: 'd', side: 2, at_in: 30, width_in: 32 }],
  boxes: [{ id: 'l', x: 72, y: 60 }],
} as unknown as DrawnRoom
const held = (kind: string, side: number, by: Record<string, number>, start = 0, id = 'x') => ({
  kind,
  id,
  room: den,
  side,
  start,
  by,
})

describe('a thing moved by keys goes where the arrow points', () => {
  it.each([
    ['north wall up', 0, 'up', { along: 0, out: 1 }],
    ['north wall right', 0, 'right', { along: 1, out: 0 }],
    ['south wall up', 2, 'up', { along: 0, out: -1 }],
    ['along the south wall, read from its left as faced', 2, 'right', { along: -1, out: 0 }],
    ['east wall right', 1, 'right', { along: 0, out: 1 }],
    ['west wall right', 3, 'right', { along: 0, out: -1 }],
    ['along the west wall', 3, 'up', { along: 1, out: 0 }],
  ] as const)('%s', (_name, side, way, to) => {
    const { along, out } = toward(den, side, STEP[way])
    expect([along + 0, out + 0]).toEqual([to.along, to.out])
  })
})

describe('where it will stand', () => {
  it('a wall, with the length of the wall beside it', () => {
    const wall = held('wall', 1, { by_in: 6 })
    expect(ghostOf(wall)).toEqual([
      [150, 120],
      [150, 0],
    ])
    expect(noteOf(wall, false)).toBe('12′ 6″, out 6″')
    expect(noteOf(held('wall', 2, { by_in: -3 }), false)).toBe('9′ 9″, in 3″')
  })

  it('a door as wide as it is, on its wall', () => {
    const door = held('opening', 2, { at_in: 4 }, 30, 'd')
    expect(ghostOf(door)).toEqual([
      [110, -2],
      [78, -2],
    ])
    expect(noteOf(door, false)).toBe('2′ 10″')
  })

  it('a box on its wall, and one that hangs in the open', () => {
    expect(ghostOf(held('box', 3, { at_in: 12 }, 24))[0]).toEqual([0, 36])
    const light = held('box', -1, { x_in: -2, y_in: 3 }, 0, 'l')
    expect(ghostOf(light)[0]).toEqual([70, 63])
    expect(noteOf(light, false)).toBeNull()
  })
})
