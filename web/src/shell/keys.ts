/** Keys of the whole application, and the way a stage adds its own. They rest while something is being typed. */
export type KeyList = [string, string][]

export const COMMON: KeyList = [
  ['1 … 4', 'stages, in the order of the work'],
  ['/', 'type on the entry line'],
  ['N', 'next stop or check'],
  ['M', 'tap the first mend'],
  ['P', 'pocket: single calculations'],
  ['T', 'laser tape (simulated): a reading into the field last typed in'],
  ['Ctrl Z  Ctrl Y', 'undo, redo'],
  ['?', 'these keys'],
  ['In the entry line', 'Tab takes the first word, up and down for words and history, Esc leaves'],
]

export const isTyping = (event: KeyboardEvent) => {
  const at = event.target as HTMLElement | null
  return !!at?.closest('input, textarea, select, [contenteditable], .v-overlay')
}

/** Something stands open over the work: a dialog, a menu, a reason. Its keys are its own. */
const isCovered = () => !!document.querySelector('.v-overlay--active:not(.v-snackbar, .v-tooltip)')

/** A listener for the keys of a stage: names as in KeyboardEvent.key, letters in lower case. */
export function stageKeys(acts: Record<string, () => void>) {
  return (event: KeyboardEvent) => {
    if (isTyping(event) || isCovered() || event.ctrlKey || event.metaKey || event.altKey) return
    const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (!act) return
    event.preventDefault()
    act()
  }
}

/** Taps the first mend that is shown. */
export const tapMend = () => document.querySelector<HTMLElement>('[data-first]')?.click()
