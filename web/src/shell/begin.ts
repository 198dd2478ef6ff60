import { ref } from 'vue'

import { focusWork } from '../stage/keys'
import { useJob } from '../stores/job'
import { useNotice } from '../stores/notice'

/** A job was begun where keys are at hand: its first line waits for them. */
export const typing = ref(false)

/** A new job, empty or from a sample, with the keys in its work; a refusal is told. */
export function useBegin() {
  const store = useJob()
  const notice = useNotice()
  return async (body: { sample?: string; name?: string }) => {
    const problem = await store.create(body)
    if (problem) notice.tell(problem.detail, 'stop')
    else {
      focusWork()
      typing.value = matchMedia('(pointer: fine)').matches
    }
  }
}
