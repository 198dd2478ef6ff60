import type { FindingRef, StageKey } from '../api/client'
import { useJob } from '../stores/job'
import { useLook } from '../stores/look'
import { placeOf } from '../stores/where'

let last = ''

/** Goes to the next stop or check, in whichever stage it is mended. One place is kept for header and key. */
export function useJump() {
  const store = useJob()
  const look = useLook()

  async function to(ref: FindingRef) {
    last = ref.id
    look.go({ ...placeOf(ref), circuit: placeOf(ref).circuit }, ref.stage as StageKey)
    await store.refresh()
  }

  async function next(severity?: 'stop' | 'check') {
    const all = store.refs
    const refs = all.filter((item) => !severity || item.severity === severity)
    const at = all.findIndex((item) => item.id === last)
    const after = refs.find((item) => all.indexOf(item) > at) ?? refs[0]
    if (after) await to(after)
  }

  return { next, to }
}
