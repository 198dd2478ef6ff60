import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import type { Figure } from '../src/api/client'
import VialGauge from '../src/parts/VialGauge.vue'

const figure = (part: Partial<Figure>) =>
  ({
    key: 'drop',
    label: 'Drop to L-1',
    value: 6.6,
    text: '6.6 %',
    unit: '%',
    formula: '',
    inputs: {},
    rule: '',
    basis: '',
    limit: 3,
    limit_text: '3 %',
    low_is_bad: false,
    beyond_text: '3.6 % over',
    advised: false,
    ...part,
  }) as Figure
const vial = (part: Partial<Figure>) =>
  mount(VialGauge, {
    props: { figure: figure(part) },
    global: { stubs: { ReasonMenu: { template: '<div><slot /></div>' } } },
  }).get('.vial')

describe('a margin as a vial', () => {
  it.each<[string, Partial<Figure>, string[]]>([
    ['over a rule', {}, ['over']],
    ['over what is advised', { advised: true }, ['over', 'advised']],
    ['close under it', { value: 2.8 }, ['close']],
    ['well under it', { value: 1 }, []],
    ['less than it needs', { value: 1, low_is_bad: true }, ['over']],
  ])('%s', (_, part, classes) => {
    const found = vial(part)
      .classes()
      .filter((name) => name !== 'vial')
    expect(found.toSorted()).toEqual(classes.toSorted())
  })
  it('has no bubble beyond its line, and says by how much', () => {
    expect(vial({}).find('.bubble').exists()).toBe(false)
    expect(vial({}).text()).toContain('3.6 % over')
    expect(vial({ value: 1, beyond_text: '' }).find('.bubble').exists()).toBe(true)
  })
})
