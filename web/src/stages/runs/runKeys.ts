/** The keys of the Runs stage. They rest while something is being typed. */
export const KEYS: [string, string][] = [
  ['/', 'type a leg'],
  ['J  K', 'next, previous run'],
  ['[  ]', 'previous, next leg'],
  ['Esc', 'the whole run'],
  ['N', 'next stop or check'],
  ['M', 'tap the first mend'],
  ['R', 'new run'],
  ['C', 'circuit and ends'],
  ['P', 'pocket: single calculations'],
  ['Ctrl Z  Ctrl Y', 'undo, redo'],
  ['? ', 'these keys'],
  ['In the table', 'arrows move, Enter changes, Delete removes, Insert puts a leg before'],
  ['In the entry line', 'Tab takes the first word, up and down for words and history, Esc leaves'],
]

export interface RunActions {
  focusEntry: () => void
  select: (leg: number | null) => void
  leg: () => number | null
  legs: () => number
  runs: () => string[]
  run: () => string | null
  look: (id: string) => void
  next: () => void
  newRun: () => void
  setup: () => void
  mend: () => void
}

export const isTyping = (event: KeyboardEvent) => {
  const at = event.target as HTMLElement | null
  return !!at?.closest('input, textarea, select, [contenteditable], .v-overlay')
}

/** Something stands open over the work: a dialog, a menu, a reason. Its keys are its own. */
const isCovered = () => !!document.querySelector('.v-overlay--active:not(.v-snackbar, .v-tooltip)')

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
  const acts: Record<string, () => void> = {
    '/': on.focusEntry,
    j: () => step(1),
    k: () => step(-1),
    '[': () => leg(-1),
    ']': () => leg(1),
    Escape: () => on.select(null),
    n: on.next,
    m: on.mend,
    r: on.newRun,
    c: on.setup,
  }
  return (event: KeyboardEvent) => {
    if (isTyping(event) || isCovered() || event.ctrlKey || event.metaKey || event.altKey) return
    const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (!act) return
    event.preventDefault()
    act()
  }
}
