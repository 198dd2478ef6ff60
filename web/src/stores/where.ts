import type { FindingRef } from '../api/client'
import type { At } from './look'

/** Where a finding is seen, in the stage where it is mended. */
export function placeOf(ref: FindingRef): At {
  const blank: At = {
    room: undefined,
    level: undefined,
    pick: undefined,
    leg: undefined,
    pull: undefined,
    panel: undefined,
    line: undefined,
    wall: undefined,
    node: undefined,
  }
  if (ref.stage === 'buy') return { ...blank, item: ref.subject }
  if (ref.stage === 'rough_in')
    return {
      ...blank,
      node: ref.about === 'box' || ref.about === 'panel' ? ref.subject : undefined,
      wall: ref.about === 'surface' ? ref.subject : undefined,
    }
  if (ref.stage === 'test')
    return ref.about === 'panel'
      ? { ...blank, panel: ref.subject, circuit: undefined }
      : { ...blank, circuit: ref.subject }
  if (ref.stage === 'trench')
    return ref.about === 'way'
      ? { ...blank, way: ref.subject }
      : { ...blank, way: undefined, line: ref.subject }
  if (ref.about === 'way')
    return {
      ...blank,
      circuit: undefined,
      way: ref.subject,
      leg: ref.leg === null ? undefined : String(ref.leg + 1),
    }
  if (ref.stage === 'pipe') return { ...blank, circuit: ref.subject, way: undefined }
  if (ref.stage === 'circuits') {
    if (ref.about === 'circuit') return { ...blank, circuit: ref.subject }
    if (ref.about === 'panel') return { ...blank, panel: ref.subject, circuit: undefined }
    return blank
  }
  const kind = ref.about === 'box' || ref.about === 'panel' ? ref.about : null
  return { ...blank, room: ref.room || undefined, pick: kind ? `${kind}.${ref.subject}` : undefined }
}
