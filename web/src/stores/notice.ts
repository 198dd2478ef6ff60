import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Act {
  label: string
  act: () => void | Promise<void>
}

/** The one line that tells what just happened, with at most one thing to do about it. */
export const useNotice = defineStore('notice', () => {
  const text = ref('')
  const tone = ref<'stop' | 'check' | 'fine' | 'note'>('note')
  const action = ref<Act | null>(null)
  const shown = ref(false)

  function tell(message: string, kind: 'stop' | 'check' | 'fine' | 'note' = 'note', act?: Act) {
    text.value = message
    tone.value = kind
    action.value = act ?? null
    shown.value = true
  }

  /** What was told is of the step before. */
  function clear() {
    text.value = ''
    shown.value = false
  }

  async function run() {
    shown.value = false
    await action.value?.act()
  }

  return { text, tone, action, shown, tell, clear, run }
})
