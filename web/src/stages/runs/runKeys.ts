import { type KeyList, stageKeys, tapMend } from '../../shell/keys'

/** The keys of the Runs stage. */
export const KEYS: KeyList = [
  ['J  K', 'next, previous run'],
  ['[  ]', 'previous, next leg'],
  ['Esc', 'the whole run'],
  ['R', 'new run'],
  ['C', 'circuit and ends'],
  ['In the table', 'arrows move, Enter changes, Delete removes, Insert puts a leg before'],
]

export interface RunActions {
  focusEntry: () => void
  select: (leg: number | null) => void
  leg: () => number | null
  legs: () => number
  runs: () => string[]
  run: () => string | null
  look: (id: string) => void
  newRun: () => void
  setup: () => void
}

export function runKeys(on: RunActions) {
  const step = (by: number) => {
    const [all, now] = [on.runs(), on.run()]
    const next = all[(all.indexOf(now ?? '') + by + all.length) % all.length]
    if (next) on.look(next)
  }
  const leg = (by: number) => {
    const now = on.leg()
    const to = now === null ? (by > 0 ? 0 : on.legs() - 1) : now + by
    if (to >= 0 && to < on.legs()) on.select(to)
  }
  return stageKeys({
    '/': on.focusEntry,
    j: () => step(1),
    k: () => step(-1),
    '[': () => leg(-1),
    ']': () => leg(1),
    Escape: () => on.select(null),
    m: tapMend,
    r: on.newRun,
    c: on.setup,
  })
}
