import { onBeforeUnmount, onMounted, ref } from 'vue'

import { isFlag, keep, kept } from '../stores/keep'

/**
 * Keys of the application and of the stage, in one layer. They rest while something is typed and while anything lies
 * over the work, opening and closing included. Single letters act only while the stage has the focus, and can be
 * switched off; stages, entry line and help answer from the header too. A held key repeats only where it nudges.
 */
export type Acts = Record<string, () => void>
interface Scope {
  acts: Acts
  nudges: Set<string>
}

const scopes: Scope[] = []
export const letters = ref(kept('letters', isFlag) ?? true)
export function setLetters(on: boolean) {
  letters.value = on
  keep('letters', on)
}

export const isTyping = (target: EventTarget | null) =>
  target instanceof Element &&
  !!target.closest('input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable="true"]')

/** Something lies over the work: a dialog, a menu, a reason. */
export const isOver = () => !!document.querySelector('.v-overlay--active:not(.v-snackbar, .v-tooltip)')
/** The same, also while it goes. */
const isCovered = () =>
  isOver() ||
  [...document.querySelectorAll('.v-overlay:not(.v-snackbar, .v-tooltip) > .v-overlay__content')].some(
    (item) => item.getClientRects().length > 0,
  )

/** How a key is called: as in KeyboardEvent.key, letters small, with what is held down before it. */
export function nameOf(event: KeyboardEvent) {
  const letter = event.key.length === 1
  const held = [
    event.ctrlKey || event.metaKey ? 'ctrl+' : '',
    event.altKey ? 'alt+' : '',
    event.shiftKey && (!letter || event.ctrlKey || event.metaKey) ? 'shift+' : '',
  ].join('')
  return held + (letter ? event.key.toLowerCase() : event.key)
}

export const hasFocus = () => {
  const at = document.activeElement
  return !at || at === document.body || !!at.closest('#work')
}
/** Gives the focus back to the stage, after something outside it was used. */
export const focusWork = () => document.getElementById('work')?.focus({ preventScroll: true })

const ANYWHERE = /^[1-9?/]$/
let covered: () => boolean = () => false

export function onKey(event: KeyboardEvent) {
  if (event.defaultPrevented || isTyping(event.target) || covered() || isOver()) return
  const name = nameOf(event)
  // While something goes, only the ways to the entry line (what follows is typed there, not taken as keys) and to
  // another stage are open.
  if (!ANYWHERE.test(name) && isCovered()) return
  const single = event.key.length === 1 && !event.ctrlKey && !event.metaKey
  if (!hasFocus()) {
    if (name === 'Escape') return focusWork()
    if (single && !ANYWHERE.test(name)) return
  }
  if (single && !letters.value && event.key !== '?') return
  const scope = scopes.toReversed().find((one) => one.acts[name])
  if (!scope || (event.repeat && !scope.nudges.has(name))) return
  event.preventDefault()
  scope.acts[name]?.()
}

/** Adds keys for as long as a component is there; the newest scope goes first. */
export function useKeys(acts: Acts, nudges: string[] = []) {
  const scope = { acts, nudges: new Set(nudges) }
  onMounted(() => scopes.push(scope))
  onBeforeUnmount(() => void scopes.splice(scopes.indexOf(scope), 1))
}

/** Listens; `over` says that a dialog is open or about to be. */
export function installKeys(over: () => boolean) {
  covered = over
  window.addEventListener('keydown', onKey)
}

/** Shows the first mend, by the focus on it; once more makes it: nothing is changed by a key struck by chance. */
export function tapMend() {
  const mend = document.querySelector<HTMLElement>('[data-first]')
  if (mend && document.activeElement === mend) mend.click()
  else mend?.focus()
}

export const COMMON: [string, string][] = [
  ['1 … 9', 'stages, in the order of the work'],
  ['/', 'type on the entry line'],
  ['N', 'next stop or check'],
  ['M  M', 'show the first mend, make it'],
  ['P', 'pocket: single calculations'],
  ['T', 'laser tape (simulated): a reading into the field last typed in'],
  ['Ctrl Z  Ctrl Y', 'undo, redo'],
  ['?', 'these keys'],
  ['In the entry line', 'Tab takes the first word, up and down for words and history, Esc leaves'],
  [
    'In a picture',
    'Tab to it, arrows to the next thing, Enter picks, Shift and arrows move; arrows alone move what was clicked; + − 0 zoom and fit',
  ],
]
