import type { Component } from 'vue'

import type { StageKey } from '../api/client'

/** Keys as they are listed for people: what to press, and what it does. */
export type KeyList = [string, string][]

/** One stage: its name, its key, its keys, its parts of a look, and the code that is loaded when it is opened. */
export interface Stage {
  key: StageKey
  name: string
  load: () => Promise<{ default: Component }>
  keys: KeyList
}

/** Where a job begins: one sentence, before there is anything to look at. It has no place in the row of stages. */
const START: Stage = {
  key: 'start',
  name: 'Start',
  load: () => import('../stages/start/StartStage.vue'),
  keys: [['/', 'type what the job is']],
}

/** Finished stages, in the order of the work. The header shows these and no others. */
export const STAGES: Stage[] = [
  {
    key: 'walls',
    name: 'Walls',
    load: () => import('../stages/walls/WallsStage.vue'),
    keys: [
      ['J  K', 'next, previous room'],
      ['R  D  W  C', 'type a room, door, window, counter'],
      ['Delete', 'remove what is picked'],
      ['Esc', 'pick nothing'],
    ],
  },
  {
    key: 'boxes',
    name: 'Boxes',
    load: () => import('../stages/boxes/BoxesStage.vue'),
    keys: [
      ['J  K', 'next, previous room'],
      ['[  ]', 'previous, next box'],
      ['R  S  I', 'type a receptacle, switch, light'],
      ['F', 'place what the room lacks'],
      ['X', 'marked on the frame'],
      ['Z', 'true scale, or all walls'],
      ['← →', 'move the box an inch'],
      ['Delete', 'remove what is picked'],
    ],
  },
  {
    key: 'circuits',
    name: 'Circuits',
    load: () => import('../stages/circuits/CircuitsStage.vue'),
    keys: [
      ['J  K', 'next, previous circuit'],
      ['C', 'type a circuit'],
      ['F', 'propose circuits'],
      ['Arrows', 'move the breaker a space'],
      ['Esc', 'let go of held boxes'],
    ],
  },
  {
    key: 'runs',
    name: 'Runs',
    load: () => import('../stages/runs/RunsStage.vue'),
    keys: [
      ['J  K', 'next, previous circuit'],
      ['[  ]', 'previous, next leg'],
      ['V', 'plan or strip'],
      ['← →', 'the next school of routing for the cable'],
      ['Esc', 'the whole way'],
      ['R', 'new way'],
      ['C', 'the way and what takes it'],
      ['In the table', 'arrows move, Enter changes, Delete removes, Insert puts a leg before'],
    ],
  },
  {
    key: 'pipe',
    name: 'Pipe',
    load: () => import('../stages/pipe/PipeStage.vue'),
    keys: [
      ['J  K', 'next, previous pull'],
      ['[  ]', 'previous, next bend'],
      ['B', 'type a bend'],
      ['F', 'feed at the other end'],
      ['+  −', 'a size up, a size down'],
      ['Esc', 'pick nothing'],
    ],
  },
  {
    key: 'trench',
    name: 'Trench',
    load: () => import('../stages/trench/TrenchStage.vue'),
    keys: [
      ['J  K', 'next, previous trench, span or building'],
      ['T', 'type a trench'],
      ['X', 'tick the next step'],
      ['C', 'a corner more in the trench'],
      ['Shift and arrows', 'move a corner a foot'],
      ['Delete', 'remove what is looked at'],
    ],
  },
  {
    key: 'buy',
    name: 'Buy',
    load: () => import('../stages/buy/BuyStage.vue'),
    keys: [
      ['J  K', 'next, previous row'],
      ['B', 'type what is bought, had or priced'],
      ['O', 'other ways of the same job'],
      ['L', 'the list to buy by'],
    ],
  },
  {
    key: 'rough_in',
    name: 'Rough-in',
    load: () => import('../stages/rough_in/RoughStage.vue'),
    keys: [
      ['J  K', 'next, previous wall'],
      ['[  ]', 'previous, next box of the wall'],
      ['X', 'tick the next step of the box'],
      ['U', 'the whole box is made up'],
      ['F', 'a photo to this wall'],
      ['C', 'close this wall'],
      ['B', 'type what is done, or ask what is behind'],
      ['Shift and arrows', 'where a box or cable really went'],
    ],
  },
  {
    key: 'test',
    name: 'Test',
    load: () => import('../stages/test/TestStage.vue'),
    keys: [
      ['J  K', 'next, previous circuit or panel'],
      ['Enter', 'in a field: the reading is written down, the next step is looked at'],
      ['R', 'to the field of the next step'],
      ['Y', 'the next step is done, trips, works'],
      ['B', 'type a reading'],
      ['H', 'hide a fault and find it'],
      ['L', 'lessons before the meter'],
    ],
  },
]

/** Sheets to print: part of the look, not of the work. */
export const SHEETS = [
  { key: 'box-schedule', name: 'Box schedule', load: () => import('../sheets/BoxSheet.vue') },
  { key: 'pull-list', name: 'Pull list', load: () => import('../sheets/PullSheet.vue') },
  { key: 'sticks', name: 'Sticks', load: () => import('../sheets/StickSheet.vue') },
  { key: 'wire-pulls', name: 'Wire pulls', load: () => import('../sheets/WireSheet.vue') },
  { key: 'trenches', name: 'Trenches', load: () => import('../sheets/TrenchSheet.vue') },
  { key: 'electrodes', name: 'Electrodes', load: () => import('../sheets/RodSheet.vue') },
  { key: 'buying-list', name: 'Buying list', load: () => import('../sheets/ListSheet.vue') },
  { key: 'coil-cards', name: 'Coil cards', load: () => import('../sheets/CoilSheet.vue') },
  { key: 'quote', name: 'Quote', load: () => import('../sheets/QuoteSheet.vue') },
  { key: 'box-cards', name: 'Box cards', load: () => import('../sheets/CardSheet.vue') },
  { key: 'photos', name: 'Photos', load: () => import('../sheets/PhotoSheet.vue') },
  { key: 'handover-book', name: 'Handover book', load: () => import('../sheets/BookSheet.vue') },
  { key: 'readings', name: 'Readings', load: () => import('../sheets/LogSheet.vue') },
  { key: 'drilling', name: 'Drilling', load: () => import('../sheets/DrillingSheet.vue') },
  { key: 'directory', name: 'Directory', load: () => import('../sheets/DirectorySheet.vue') },
] as const
export type SheetKey = (typeof SHEETS)[number]['key']

/** Every place of work with an address of its own. */
export const PLACES = [START, ...STAGES]

export const isStage = (key: string): key is StageKey => PLACES.some((stage) => stage.key === key)
