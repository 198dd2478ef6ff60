import { ref } from 'vue'

import { focusWork, isOver, isTyping } from '../stage/keys'
import { useJob } from '../stores/job'
import { useNotice } from '../stores/notice'

/** A job was begun where keys are at hand: its first line waits for them. */
export const typing = ref(false)

let early = ''
let begun = false
let waits = false
/** Whether keys are kept for a first line that is on its way: until it has them nothing else gives it the focus. */
export const gathering = () => waits || early !== ''
/** What was typed before the first line was there. */
export function typedEarly() {
  const words = early
  early = ''
  waits = false
  window.removeEventListener('keydown', gather, true)
  return words
}

/** Keeps a key for the line to come. The ways to keys and entry line stay what they are as long as nothing was typed. */
function gather(event: KeyboardEvent) {
  const plain = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey
  if (!plain || isTyping(event.target) || isOver() || (!early && /[ ?/]/.test(event.key))) return false
  event.preventDefault()
  event.stopImmediatePropagation()
  early += event.key
  return true
}

/** What is typed where there is no job yet begins one. Answers with what ends it. */
export function beginsByTyping(begin: () => unknown) {
  const first = (event: KeyboardEvent) => {
    if (!begun && gather(event)) void begin()
  }
  window.addEventListener('keydown', first, true)
  return () => window.removeEventListener('keydown', first, true)
}

/** A new job, empty or from a sample, with the keys in its work; a refusal is told. One at a time. */
export function useBegin() {
  const store = useJob()
  const notice = useNotice()
  return async (body: { sample?: string; name?: string }) => {
    if (begun) return
    begun = true
    if (!body.sample) {
      waits = true
      window.addEventListener('keydown', gather, true) // its first page has a line for them
    }
    try {
      const problem = await store.create(body)
      if (problem) notice.tell(problem.detail, 'stop')
      else {
        focusWork()
        typing.value = matchMedia('(pointer: fine)').matches
      }
      if (problem || !typing.value) typedEarly()
    } finally {
      begun = false
    }
  }
}
