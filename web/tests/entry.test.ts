import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'

import type { Problem } from '../src/api/client'
import EntryLine from '../src/parts/EntryLine.vue'

/** A line whose words come when the test lets them, and whose sentences are taken or refused. */
function line(refusal: Problem | null = null) {
  const asked: string[] = []
  const said: string[] = []
  const answers: ((options: string[]) => void)[] = []
  const wrapper = mount(EntryLine, {
    attachTo: document.body,
    props: {
      verb: 'set',
      placeholder: '',
      buttons: [],
      action: 'say it',
      suggest: (text: string) => {
        asked.push(text)
        return new Promise<{ at: number; options: string[] }>((done) =>
          answers.push((options) => done({ at: text.lastIndexOf(' ') + 1, options })),
        )
      },
      submit: (text: string) => {
        said.push(text)
        return Promise.resolve(refusal)
      },
    },
  })
  const input = wrapper.get('input')
  const type = (text: string) => input.setValue(text)
  const answer = async (...options: string[]) => {
    answers.shift()?.(options)
    await new Promise((done) => setTimeout(done))
  }
  const words = () => wrapper.findAll('[role=option]').map((one) => one.text())
  const value = () => (input.element as HTMLInputElement).value
  return { wrapper, input, asked, said, answers, type, answer, words, value }
}

let open: ReturnType<typeof line>
beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  open = line()
})
afterEach(() => open.wrapper.unmount())

describe('words that may stand next', () => {
  it('are asked for once while one question is on its way, then for all that was typed meanwhile', async () => {
    for (const text of ['r', 're', 'rec', 'rece']) await open.type(text)
    expect(open.asked).toEqual(['r'])
    await open.answer('room')
    expect(open.words()).toEqual([])
    expect(open.asked).toEqual(['r', 'rece'])
    await open.answer('receptacle')
    expect(open.words()).toEqual(['receptacle'])
    expect(open.answers).toHaveLength(0)
  })

  it('are asked for at the next key once the last are there', async () => {
    await open.type('r')
    await open.answer('receptacle')
    await open.type('s')
    expect(open.asked).toEqual(['r', 's'])
    await open.answer('switch', 'smoke')
    expect(open.words()).toEqual(['switch', 'smoke'])
  })

  it('are waited for by Tab, and what is typed meanwhile is left alone', async () => {
    await open.type('rec')
    await open.input.trigger('keydown', { key: 'Tab' })
    expect(open.value()).toBe('rec')
    await open.answer('receptacle')
    await open.answer('north', 'east')
    expect(open.value()).toBe('receptacle ')
  })

  it('do not come up any more once the sentence is entered', async () => {
    await open.type('receptacle north 5')
    await open.wrapper.get('form').trigger('submit')
    await open.answer('north')
    expect(open.said).toEqual(['receptacle north 5'])
    expect(open.value()).toBe('')
    expect(open.words()).toEqual([])
  })

  it('go with Esc, those on their way too, and come back with the next key', async () => {
    await open.type('r')
    await open.input.trigger('keydown', { key: 'Escape' })
    await open.answer('receptacle')
    expect(open.words()).toEqual([])
    await open.type('s')
    await open.answer('switch')
    expect(open.words()).toEqual(['switch'])
  })

  it('leave out what is written already', async () => {
    await open.type('north')
    await open.answer('north', 'northeast')
    expect(open.words()).toEqual(['northeast'])
  })
})

describe('a sentence', () => {
  it('that is refused stays, with the place that could not be read', async () => {
    open.wrapper.unmount()
    open = line({ status: 422, detail: 'expected a wall', at: 11 } as Problem)
    await open.type('receptacle nroth 5')
    await open.wrapper.get('form').trigger('submit')
    await open.answer()
    expect(open.value()).toBe('receptacle nroth 5')
    expect(open.wrapper.get('mark').text()).toBe('nroth 5')
    await open.type('receptacle north 5')
    expect(open.wrapper.find('mark').exists()).toBe(false)
  })

  it('is kept over a reload until it is entered', async () => {
    await open.type('switch so')
    open.wrapper.unmount()
    open = line()
    expect(open.value()).toBe('switch so')
  })

  it('comes back with the arrow, the last one first', async () => {
    for (const text of ['fan centre', 'light centre']) {
      await open.type(text)
      await open.wrapper.get('form').trigger('submit')
      await open.answer()
      await open.answer()
    }
    await open.input.trigger('keydown', { key: 'ArrowUp' })
    expect(open.value()).toBe('light centre')
    await open.input.trigger('keydown', { key: 'ArrowUp' })
    expect(open.value()).toBe('fan centre')
    await open.input.trigger('keydown', { key: 'ArrowDown' })
    expect(open.value()).toBe('light centre')
  })
})

describe('an example behind a first word', () => {
  it('is selected, so that what is typed stands in its place, and Enter takes it as it is', async () => {
    const box = open.input.element as HTMLInputElement
    ;(open.wrapper.vm as unknown as { start: (a: string, b?: string) => void }).start(
      'set ',
      'outlet north 4′',
    )
    await new Promise((done) => setTimeout(done))
    expect(open.value()).toBe('set outlet north 4′')
    expect(open.value().slice(box.selectionStart ?? 0, box.selectionEnd ?? 0)).toBe('outlet north 4′')
    await open.wrapper.get('form').trigger('submit')
    await new Promise((done) => setTimeout(done))
    expect(open.said).toEqual(['set outlet north 4′'])
  })
})

describe('the verb of the line', () => {
  const shown = () => !open.wrapper.get('label').classes('unseen')
  it('is not said twice where the sentence brings its own', async () => {
    expect(shown()).toBe(true)
    await open.type('set outlet')
    expect(shown()).toBe(false)
    await open.type('outlet north')
    expect(shown()).toBe(true)
    await open.wrapper.setProps({ buttons: ['door'] })
    await open.type('door south')
    expect(shown()).toBe(false)
    await open.type('doorbell')
    expect(shown()).toBe(true)
  })
})
