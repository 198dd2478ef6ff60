import type { TestStep } from '../../api/client'

/** Where a window and a reading lie on a track, in per cent: the window in its middle, what is far off at its end. */
export interface Track {
  from: number
  to: number
  at: number | null
  expected: number | null
  over: boolean
}

/** Insulation is told by powers of ten; all else evenly. */
const scaled = (step: TestStep) => (value: number) =>
  step.kind === 'megohms' ? Math.log10(Math.max(value, 0.01)) + 2 : value

export function track(step: TestStep): Track | null {
  if (step.low == null || step.high == null) return null
  const f = scaled(step)
  const [low, high] = [f(step.low), f(step.high)]
  const wide = Math.max(high - low, 1e-6)
  const reading = step.value == null ? null : f(step.value)
  const start = Math.max(Math.min(low - wide, reading ?? low), low > wide ? -Infinity : Math.min(0, low))
  const end = Math.max(high + wide, Math.min(reading ?? high, high + 4 * wide))
  const per = (value: number, edge = 1) =>
    Math.min(Math.max(((value - start) / (end - start)) * 100, edge), 100 - edge)
  return {
    from: per(low),
    to: per(high),
    at: reading === null ? null : per(reading, 5),
    expected: step.expected == null ? null : per(f(step.expected)),
    over: reading !== null && (reading < low || reading > high),
  }
}

/** A limit as it is read: three figures and no more. */
export const figure = (value: number) =>
  value >= 100
    ? value.toFixed(0)
    : value >= 10
      ? value.toFixed(1).replace(/\.0$/, '')
      : String(Number(value.toFixed(2)))

/** A number as it is typed: 123.1, 123.1 V, 0,3 ohm. */
export function typedNumber(text: string): number | null {
  const match = /^\s*(-?\d+(?:[.,]\d+)?(?:e\d+)?)\s*(?:v|volts?|Ω|ohms?|mΩ|megohms?)?\s*$/i.exec(text)
  const value = match ? Number(match[1]?.replace(',', '.')) : NaN
  return Number.isFinite(value) ? value : null
}
