import { useRouter } from 'vue-router'

import type { FindingRef } from '../api/client'
import { useJob } from '../stores/job'

export const DRAWN = [
  'rooms-overlap',
  'room-shape',
  'opening-off-wall',
  'openings-overlap',
  'fixture-off-wall',
]

const IN_ROOM = ['panel-place', 'panel-space', 'switch-high', 'box-in-opening']

/** Goes to the next stop or check, in whichever stage it can be mended. */
export function useJump() {
  const store = useJob()
  const router = useRouter()
  let last = -1

  async function to(ref: FindingRef) {
    if (ref.about === 'run') {
      await router.push('/runs')
      return store.look(ref.subject, ref.leg)
    }
    if (ref.about === 'circuit') {
      await router.push('/circuits')
      return store.lookCircuit(ref.subject)
    }
    if (ref.about === 'circuits' || (ref.about === 'panel' && !IN_ROOM.includes(ref.code))) {
      await router.push('/circuits')
      if (ref.about === 'panel') await store.lookPanel(ref.subject)
      return
    }
    await router.push(DRAWN.includes(ref.code) ? '/walls' : '/boxes')
    const kind = ref.about === 'box' || ref.about === 'panel' ? ref.about : null
    await store.lookRoom(ref.room, kind ? { kind, id: ref.subject } : null)
  }

  async function next(severity?: 'stop' | 'check') {
    const all = store.view?.refs ?? []
    const refs = all.filter((item) => !severity || item.severity === severity)
    if (!refs.length) return
    const after = refs.find((item) => all.indexOf(item) > last) ?? refs[0]
    if (!after) return
    last = all.indexOf(after)
    await to(after)
  }

  return { next, to }
}
