import { readFileSync } from 'node:fs'
import { join } from 'node:path'

import { describe, expect, it } from 'vitest'

import { choicesOf, taken, type Field, type FieldWord } from '../src/parts/fields/field'
import { BOX_FIELDS, PANEL_FIELDS } from '../src/stages/boxes/boxFields'
import { CIRCUIT_FIELDS } from '../src/stages/circuits/circuitFields'
import { END, ROD, SERVICE, SPAN, TRENCH } from '../src/stages/trench/lineFields'
import {
  FIXTURE_FIELDS,
  LEVEL_FIELDS,
  OPENING_FIELDS,
  ROOM_FIELDS,
  SIDE_FIELDS,
  STRUCTURE_FIELDS,
} from '../src/stages/walls/wallFields'

const schemas = JSON.parse(readFileSync(join(__dirname, '../openapi.json'), 'utf8')).components.schemas
const fieldsOf = (name: string) =>
  Object.keys((schemas[name] ?? schemas[`${name}-Output`]).properties).filter((key) => key !== 'id')

/** What no form shows, and where it is changed instead. */
const ELSEWHERE: Record<string, Record<string, string>> = {
  Box: { structure: 'with its room', room: 'sentence move', side: 'drag' },
  Panel: {
    structure: 'with its room', room: 'sentence move', side: 'drag', x_in: 'drag', y_in: 'drag',
    tandem_spaces: 'in the panel', taken: 'sentence panel', calculation: 'load', floor_area_ft2: 'load',
  },
  Circuit: {
    panel: 'sentence put', space: 'drag', half: 'drag', poles: 'with volts', chain: 'sentence chain', feeds: 'sentence feed',
  },
  Opening: { room: 'where it is put', side: 'where it is put', kind: 'said' },
  Fixture: { room: 'where it is put', side: 'where it is put', kind: 'said' },
  Side: {},
  Room: { level: 'where it is put', corners: 'walls are moved', sides: 'each wall' },
  Structure: { x_in: 'drag on the site', y_in: 'drag on the site', levels: 'each level' },
  Level: {},
  Trench: {
    points: 'drag', start: 'sentence trench', end: 'sentence trench', readings: 'sentence read', done: 'steps',
    ticket: 'the desk', ticket_from: 'the desk', ticket_to: 'the desk',
    meant_in: 'sentence trench', meant_method: 'sentence trench', meant_size: 'sentence trench',
  },
  Span: { points: 'drag', start: 'sentence span', end: 'sentence span', start_end: 'each end', end_end: 'each end' },
  SpanEnd: {},
  Electrode: { structure: 'where it is put', x_in: 'sentence change', y_in: 'sentence change' },
  Service: { structure: 'where it is put' },
} // prettier-ignore

describe('what can be said by hand', () => {
  it.each<[string, Field[]]>([
    ['Box', BOX_FIELDS],
    ['Panel', PANEL_FIELDS],
    ['Circuit', CIRCUIT_FIELDS],
    ['Opening', OPENING_FIELDS],
    ['Fixture', FIXTURE_FIELDS],
    ['Side', SIDE_FIELDS],
    ['Room', ROOM_FIELDS],
    ['Structure', STRUCTURE_FIELDS],
    ['Level', LEVEL_FIELDS],
    ['Trench', TRENCH],
    ['Span', SPAN],
    ['SpanEnd', END],
    ['Electrode', ROD],
    ['Service', SERVICE],
  ])('every field of %s has its place', (name, fields) => {
    const shown = fields.map((field) => field.name)
    const elsewhere = Object.keys(ELSEWHERE[name] ?? {})
    expect([...shown, ...elsewhere].toSorted()).toEqual(fieldsOf(name).toSorted())
  })
})

const word = (part: Partial<FieldWord>): FieldWord => ({ name: 'x', type: 'text', ...part })
const field: Field = { name: 'x', label: 'X' }

describe('what stands in a field', () => {
  it('shows choices by their words, and what it means to say nothing first', () => {
    const open = word({ type: 'choice', choices: ['dry', 'under_ground'], open: true })
    expect(choicesOf({ ...field, titles: { dry: 'a dry place' }, usual: 'as it is' }, open)).toEqual([
      { title: 'as it is', value: null },
      { title: 'a dry place', value: 'dry' },
      { title: 'under ground', value: 'under_ground' },
    ])
  })
  it('offers yes and no in its own words, and nothing open where nothing may be left open', () => {
    const items = choicesOf({ ...field, titles: { true: 'can be hit' } }, word({ type: 'yes_no' }))
    expect(items).toEqual([
      { title: 'can be hit', value: true },
      { title: 'no', value: false },
    ])
  })
  it.each([
    ['30', word({ type: 'number' }), 30],
    [' 2,5 ', word({ type: 'number' }), 2.5],
    ['', word({ type: 'number', open: true }), null],
    ['', word({ type: 'number' }), ''],
    ['thirty', word({ type: 'number' }), 'thirty'],
    [' Bench ', word({}), 'Bench'],
  ])('takes %j as it is meant', (text, of, value) => expect(taken(text, of)).toBe(value))
})
