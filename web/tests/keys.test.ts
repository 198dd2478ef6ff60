import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent, h } from 'vue'

import { isTyping, nameOf, onKey, setLetters, tapMend, useKeys, type Acts } from '../src/stage/keys'

const key = (name: string, more: KeyboardEventInit = {}) =>
  new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true, ...more })

/** A component with keys, taken away after the test. */
function withKeys(acts: Acts, nudges: string[] = []) {
  const app = createApp(
    defineComponent({
      setup() {
        useKeys(acts, nudges)
        return () => h('i')
      },
    }),
  )
  app.mount(document.createElement('div'))
  gone.push(() => app.unmount())
}
const gone: (() => void)[] = []
/** An overlay over the work; `going`: on its way out, still drawn. */
function overlay(going: boolean) {
  document.body.innerHTML = `<div class="v-overlay ${going ? '' : 'v-overlay--active'}">
    <div class="v-overlay__content">x</div></div>`
  const content = document.querySelector('.v-overlay__content') as HTMLElement
  content.getClientRects = () => [{}] as unknown as DOMRectList
}

beforeEach(() => {
  document.body.innerHTML = '<main id="work" tabindex="-1"></main><button>header</button>'
  document.getElementById('work')?.focus()
})
afterEach(() => {
  gone.splice(0).forEach((leave) => leave())
  setLetters(true)
})

describe('keys in one layer', () => {
  it.each([
    [key('R'), 'r'],
    [key('z', { ctrlKey: true }), 'ctrl+z'],
    [key('Z', { ctrlKey: true, shiftKey: true }), 'ctrl+shift+z'],
    [key('ArrowUp', { shiftKey: true }), 'shift+ArrowUp'],
    [key('?', { shiftKey: true }), '?'],
  ])('names a key', (event, name) => expect(nameOf(event)).toBe(name))

  it('gives the newest scope the key, and the one under it what is left', () => {
    const [under, over] = [vi.fn(), vi.fn()]
    withKeys({ r: under, c: under })
    withKeys({ r: over })
    onKey(key('r'))
    onKey(key('c'))
    expect([over.mock.calls.length, under.mock.calls.length]).toEqual([1, 1])
  })

  it('repeats a held key only where it nudges', () => {
    const act = vi.fn()
    withKeys({ r: act, ArrowUp: act }, ['ArrowUp'])
    onKey(key('r', { repeat: true }))
    onKey(key('ArrowUp', { repeat: true }))
    expect(act).toHaveBeenCalledTimes(1)
  })

  it('rests under a dialog, and while one goes lets only the way to the entry line through', () => {
    const [letter, line] = [vi.fn(), vi.fn()]
    withKeys({ r: letter, '/': line })
    overlay(false)
    onKey(key('r'))
    onKey(key('/'))
    expect([letter.mock.calls.length, line.mock.calls.length]).toEqual([0, 0])
    overlay(true)
    onKey(key('r'))
    onKey(key('/'))
    expect([letter.mock.calls.length, line.mock.calls.length]).toEqual([0, 1])
  })

  it('takes no letter from the header, nor where letters are off; stage numbers go from anywhere', () => {
    const [letter, stage] = [vi.fn(), vi.fn()]
    withKeys({ r: letter, '2': stage })
    document.querySelector('button')?.focus()
    onKey(key('r'))
    onKey(key('2'))
    document.getElementById('work')?.focus()
    setLetters(false)
    onKey(key('r'))
    expect([letter.mock.calls.length, stage.mock.calls.length]).toEqual([0, 1])
  })

  it('knows what is typed', () => {
    document.body.innerHTML =
      '<label><input id="a" /></label><div contenteditable="true"><b id="b"></b></div><input id="c" type="checkbox" />'
    expect(['a', 'b', 'c'].map((id) => isTyping(document.getElementById(id)))).toEqual([true, true, false])
  })

  it('shows a mend before it makes it', () => {
    const made = vi.fn()
    document.body.innerHTML =
      '<main id="work"><button data-first>Set depth</button><button>other</button></main>'
    document.querySelector('[data-first]')?.addEventListener('click', made)
    tapMend()
    expect([made.mock.calls.length, document.activeElement?.textContent]).toEqual([0, 'Set depth'])
    tapMend()
    expect(made).toHaveBeenCalledOnce()
  })

  it('starts anew where the focus went elsewhere between', () => {
    const made = vi.fn()
    document.body.innerHTML =
      '<main id="work"><button data-first>Set depth</button><button>other</button></main>'
    document.querySelector('[data-first]')?.addEventListener('click', made)
    tapMend()
    document.querySelectorAll<HTMLElement>('button')[1]?.focus()
    tapMend()
    expect(made).not.toHaveBeenCalled()
  })
})
