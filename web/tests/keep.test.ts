import { afterEach, describe, expect, it, vi } from 'vitest'

import { nameOf } from '../src/stage/keys'
import { isFlag, isText, isTexts, keep, kept } from '../src/stores/keep'

afterEach(() => {
  vi.unstubAllGlobals()
  localStorage.clear()
})

describe('what the browser keeps', () => {
  it('is read as it was written', () => {
    keep('history', ["room Den 12' x 12'"])
    expect(kept('history', isTexts)).toEqual(["room Den 12' x 12'"])
    keep('history', null)
    expect(kept('history', isTexts)).toBeNull()
  })

  it.each([
    ['{"broken', isText],
    ['[1, 2]', isTexts],
    ['"yes"', isFlag],
    ['null', isText],
  ] as const)('is nothing where it is not of the wanted shape: %s', (text, isGood) => {
    localStorage.setItem('levelrun-x', text)
    expect(kept<unknown>('x', isGood as (value: unknown) => value is unknown)).toBeNull()
  })

  it('works without storage', () => {
    vi.stubGlobal('window', {
      get localStorage(): Storage {
        throw new DOMException('denied')
      },
    })
    keep('theme', 'bench')
    expect(kept('theme', isText)).toBeNull()
  })
})

describe('a key by its name', () => {
  it.each([
    [{ key: 'N' }, 'n'],
    [{ key: 'z', ctrlKey: true }, 'ctrl+z'],
    [{ key: 'Z', metaKey: true, shiftKey: true }, 'ctrl+shift+z'],
    [{ key: '?', shiftKey: true }, '?'],
    [{ key: 'ArrowLeft', shiftKey: true }, 'shift+ArrowLeft'],
  ])('%o is %s', (event, name) => {
    expect(nameOf(new KeyboardEvent('keydown', event))).toBe(name)
  })
})
