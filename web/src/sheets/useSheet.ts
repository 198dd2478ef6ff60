import { onMounted, ref, type ShallowRef, shallowRef, watch } from 'vue'

import { api, ask, type PullPlan } from '../api/client'
import { useJob } from '../stores/job'

/** What a sheet shows, fetched anew for each revision of the job; and that it has come. */
export function useSheet<T>(fetch: (id: string) => Promise<{ data?: T }>, empty: T) {
  const store = useJob()
  const data: ShallowRef<T> = shallowRef(empty)
  const loaded = ref(false)
  async function load() {
    if (!store.view) return
    const found = await fetch(store.view.id)
    data.value = found.data ?? empty
    loaded.value = true
  }
  onMounted(load)
  watch(() => store.view?.revision, load)
  return { data, loaded, load, print: () => window.print() }
}

/** Every pull of pipe of the job, whole. */
export const usePulls = () =>
  useSheet<PullPlan[]>(
    (id) => ask(api.GET('/api/jobs/{job_id}/pipe', { params: { path: { job_id: id }, query: {} } })),
    [],
  )
