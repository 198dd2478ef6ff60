import { describe, expect, it } from 'vitest'

import { readAt, readPicked, writePicked } from '../src/stores/look'

describe('where one looks, as the address says it', () => {
  it('takes what is ours and leaves the rest', () => {
    const said = {
      room: 'hr2',
      leg: '6',
      evil: 'x',
      panel: '<script>',
      run: ['a', 'b'],
      circuit: '',
      dialog: 'keys',
    }
    expect(readAt(said)).toEqual({ room: 'hr2', leg: '6', dialog: 'keys' })
    expect(readAt({ room: 'r'.repeat(61) })).toEqual({})
  })

  it.each([
    [{ kind: 'box', id: 'b12' }, 'box.b12'],
    [{ kind: 'wall', id: 'hr2', side: 0 }, 'wall.hr2.0'],
  ] as const)('reads what it wrote: %o', (what, text) => {
    expect(writePicked(what)).toBe(text)
    expect(readPicked(text)).toEqual(what)
  })

  it.each(['', 'box', 'roof.1', undefined])('reads nothing from %s', (text) => {
    expect(readPicked(text)).toBeNull()
  })
})
