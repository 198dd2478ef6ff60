import { defineStore } from 'pinia'
import { ref } from 'vue'

import { useLook } from './look'

/** What the rules dialog shows, so that any number can open the entry it comes from. */
export const useRules = defineStore('rules', () => {
  const shown = useLook().dialogOpen('rules')
  const tab = ref<'set' | 'notes' | 'look'>('set')
  const query = ref('')

  function open(where: 'set' | 'notes' | 'look', words = '') {
    tab.value = where
    if (where === 'look') query.value = words
    shown.value = true
  }

  /** The entries that a section names: its first part, without the local note behind it. */
  const lookUp = (section: string) => open('look', section.split(/[;,]/)[0]?.trim() ?? '')

  return { shown, tab, query, open, lookUp }
})
