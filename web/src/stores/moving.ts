import { shallowRef } from 'vue'

/** How far a thing is moved: by field, in the field's own unit. */
export type By = Readonly<Record<string, number>>

const sum = (a: By, b: By, sign = 1): By => {
  const all = { ...a }
  for (const [field, by] of Object.entries(b))
    all[field] = Math.round(((all[field] ?? 0) + sign * by) * 1e4) / 1e4
  return all
}
const still = (by: By) => Object.values(by).every((one) => !one)

/**
 * Moves on their way. Those that wait for their turn become one, and the pictures show where a thing goes until the
 * answer is here: `moving` holds what is not answered, by the thing that moves.
 */
export function makeMoves() {
  const moving = shallowRef<Readonly<Record<string, By>>>({})
  const waiting = new Map<string, By>()

  function put(key: string, by: By) {
    const others = Object.entries(moving.value).filter(([other]) => other !== key)
    moving.value = Object.fromEntries(still(by) ? others : [...others, [key, by]])
  }
  function add(key: string, by: By) {
    waiting.set(key, sum(waiting.get(key) ?? {}, by))
    put(key, sum(moving.value[key] ?? {}, by))
  }
  /** What waits, to be sent now; null where it adds up to nothing. */
  function take(key: string): By | null {
    const by = waiting.get(key) ?? {}
    waiting.delete(key)
    return still(by) ? null : by
  }
  const done = (key: string, by: By) => put(key, sum(moving.value[key] ?? {}, by, -1))

  return { moving, add, take, done }
}
