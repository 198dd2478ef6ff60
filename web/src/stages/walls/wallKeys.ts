import type { KeyList } from '../../shell/keys'

/** The keys of the Walls stage. */
export const KEYS: KeyList = [
  ['J  K', 'next, previous room'],
  ['[  ]', 'previous, next wall of the room'],
  ['← →', 'the picked wall in or out by 1″ (Shift: 1′); a picked opening along its wall'],
  ['Delete', 'remove what is picked'],
  ['Esc', 'the whole room'],
]
