/** What the browser keeps between visits. Works without storage, and takes nothing that is not of the wanted shape. */
function storage(kind: 'local' | 'session'): Storage | null {
  try {
    return kind === 'local' ? window.localStorage : window.sessionStorage
  } catch {
    return null
  }
}

export function kept<T>(
  key: string,
  isGood: (value: unknown) => value is T,
  kind: 'local' | 'session' = 'local',
) {
  try {
    const value: unknown = JSON.parse(storage(kind)?.getItem(`levelrun-${key}`) ?? 'null')
    return isGood(value) ? value : null
  } catch {
    return null
  }
}

export function keep(key: string, value: unknown, kind: 'local' | 'session' = 'local') {
  try {
    if (value === null || value === '') storage(kind)?.removeItem(`levelrun-${key}`)
    else storage(kind)?.setItem(`levelrun-${key}`, JSON.stringify(value))
  } catch {
    // full or forbidden: the work goes on without
  }
}

export const isText = (value: unknown): value is string => typeof value === 'string'
export const isFlag = (value: unknown): value is boolean => typeof value === 'boolean'
export const isTexts = (value: unknown): value is string[] => Array.isArray(value) && value.every(isText)
