import { ref } from 'vue'

import { api, ask } from '../api/client'

/**
 * The laser tape: a reading goes into the field that was typed in last. The device that ships is simulated.
 */
export const lastReading = ref('')
let field: HTMLInputElement | null = null

document.addEventListener('focusin', (event) => {
  const at = event.target
  if (at instanceof HTMLInputElement && (at.type === 'text' || at.type === '')) field = at
})

export async function dropReading() {
  const { data } = await ask(api.POST('/api/tape/read'))
  if (!data) return
  lastReading.value = data.text
  if (!field?.isConnected) return
  const at = field.selectionStart ?? field.value.length
  const gap = at && !/\s$/.test(field.value.slice(0, at)) ? ' ' : ''
  const next = `${field.value.slice(0, at)}${gap}${data.text} ${field.value.slice(field.selectionEnd ?? at)}`
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, next)
  field.dispatchEvent(new Event('input', { bubbles: true }))
  field.focus()
  const caret = at + gap.length + data.text.length + 1
  field.setSelectionRange(caret, caret)
}
