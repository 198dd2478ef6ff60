import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'

import type { Vocabulary } from '../src/api/client'
import type { Field, Part } from '../src/parts/fields/field'
import PartFields from '../src/parts/fields/PartFields.vue'
import { useJob } from '../src/stores/job'

const FIELDS: Field[] = [
  { name: 'name', label: 'Name' },
  { name: 'at_in', label: 'From the corner', as: 'inches' },
  { name: 'kind', label: 'Kind', titles: { light: 'a light' } },
  { name: 'wire', label: 'Wire', list: 'wires' },
  { name: 'marked', label: 'Marked' },
  { name: 'watts', label: 'Watts', when: (part: Part) => part.kind === 'light' },
]
const WORDS = [
  { name: 'name', type: 'text' },
  { name: 'at_in', type: 'number' },
  { name: 'kind', type: 'choice', choices: ['light', 'fan'] },
  { name: 'wire', type: 'choice' },
  { name: 'marked', type: 'yes_no' },
  { name: 'watts', type: 'number', open: true },
]
const PART = { name: 'L-1', at_in: 30, kind: 'fan', wire: '12', marked: false, watts: null }
/** Vuetify's fields, as far as a form sees them; what is drawn is noted. */
const drawn: string[] = []
const stub = (name: string) => ({
  name,
  props: ['label', 'modelValue', 'items', 'errorMessages', 'text', 'refused'],
  emits: ['update:modelValue', 'inches'],
  template: '<label>{{ label }} {{ modelValue ?? text }} {{ errorMessages || refused }}</label>',
  updated(this: { label: string }) {
    drawn.push(this.label)
  },
})
const stubs = {
  VTextField: stub('VTextField'),
  VSelect: stub('VSelect'),
  VCheckbox: stub('VCheckbox'),
  MeasureField: stub('MeasureField'),
}

function form(set: (values: Part, field: Field) => Promise<null>) {
  const pinia = createPinia()
  setActivePinia(pinia)
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:all(.*)', component: {} }],
  })
  const wrapper = mount(PartFields, {
    props: { kind: 'box', fields: FIELDS, part: PART, set, lists: { wires: [{ title: '12', value: '12' }] } },
    global: { plugins: [pinia, router], stubs },
  })
  useJob().vocabulary = { fields: { box: WORDS } } as unknown as Vocabulary
  return wrapper
}

describe('the form of a part', () => {
  beforeEach(() => {
    drawn.length = 0
    vi.stubGlobal('fetch', () => new Promise(() => {}))
  })

  it('draws anew what an edit has changed, and no other field', async () => {
    const wrapper = form(async () => null)
    await wrapper.vm.$nextTick()
    expect(wrapper.findAll('label').map((one) => one.text())).toEqual([
      'Name L-1',
      expect.stringContaining('From the corner 30'),
      'Kind fan',
      'Wire 12',
      'Marked false',
    ])
    await wrapper.setProps({ part: { ...PART, at_in: 31 } })
    expect(drawn).toEqual(['From the corner'])
    await wrapper.setProps({ part: { ...PART, at_in: 31, kind: 'light' } })
    expect(drawn).toEqual(['From the corner', 'Kind'])
    expect(wrapper.text()).toContain('Watts')
  })

  it('hands on what is typed, a height over what it is shown over, and tells a refusal at its field', async () => {
    const told: Part[] = []
    const wrapper = form(async (values) => {
      told.push(values)
      return ('kind' in values ? { status: 422, title: '', detail: 'no such kind' } : null) as null
    })
    await wrapper.setProps({ over: { at_in: 96 } })
    wrapper.getComponent({ name: 'MeasureField' }).vm.$emit('inches', 12)
    wrapper.getComponent({ name: 'VCheckbox' }).vm.$emit('update:modelValue', true)
    wrapper.getComponent({ name: 'VSelect' }).vm.$emit('update:modelValue', 'light')
    await new Promise((done) => setTimeout(done))
    expect(told).toEqual([{ at_in: 108 }, { marked: true }, { kind: 'light' }])
    expect(wrapper.findAll('label').filter((one) => one.text().includes('no such kind'))).toHaveLength(1)
    expect(wrapper.getComponent({ name: 'VSelect' }).text()).toContain('no such kind')
  })
})
