import type { KeyList } from '../../shell/keys'

/** The keys of the Circuits stage. */
export const KEYS: KeyList = [
  ['J  K', 'next, previous circuit'],
  ['← → ↑ ↓', 'the circuit’s breaker to the next space that way'],
  ['C', 'type a circuit'],
  ['F', 'propose circuits for what is on none'],
  ['Esc', 'leave what is held'],
]
