import { computed } from 'vue'

import { useJob } from '../stores/job'

/** The levels of every building, as their tabs are called. */
export function useLevels() {
  const store = useJob()
  return computed(() =>
    (store.job?.structures ?? []).flatMap((s) =>
      (s.levels ?? []).map((level) => ({ id: level.id, title: `${s.name}, ${level.name.toLowerCase()}` })),
    ),
  )
}
