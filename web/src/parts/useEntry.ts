import { api, ask, type Edit } from '../api/client'
import { useJob } from '../stores/job'
import { useNotice } from '../stores/notice'

interface About {
  room: string | null
  level: string | null
  panel?: string | null
  way?: string | null
  line?: string | null
  verb: string
}

/** What every stage with sentences does: words that may stand next, and edits by gesture whose refusal is told. */
export function useEntry(
  stage: 'walls' | 'boxes' | 'circuits' | 'runs' | 'pipe' | 'trench' | 'buy' | 'rough_in' | 'test',
  about: () => About,
) {
  const store = useJob()
  const notice = useNotice()

  async function suggest(text: string) {
    if (!store.view) return { at: 0, options: [] }
    const path = { job_id: store.view.id }
    const body = { text, stage, ...about() }
    const { data } = await ask(api.POST('/api/jobs/{job_id}/suggest', { params: { path }, body }))
    return data ?? { at: text.length, options: [] }
  }

  async function act(edits: Edit[], label?: string) {
    const problem = await store.edit(edits, label)
    if (problem && problem.status !== 409) notice.tell(problem.detail, 'stop')
    return problem
  }
  return { suggest, act }
}
