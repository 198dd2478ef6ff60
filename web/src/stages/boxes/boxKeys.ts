import type { KeyList } from '../../shell/keys'

/** The keys of the Boxes stage. */
export const KEYS: KeyList = [
  ['R  S  I', 'type a receptacle, a switch, a light (I for illumination)'],
  ['F', 'place what the room still lacks'],
  ['J  K', 'next, previous room'],
  ['[  ]', 'previous, next box of the room'],
  ['← →', 'the picked box along its wall, an inch a tap'],
  ['X', 'mark or unmark the picked box on the frame'],
  ['Z', 'all walls, or true scale'],
  ['Delete', 'remove what is picked'],
  ['Esc', 'the whole room'],
]
