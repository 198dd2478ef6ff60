/** How a long section is scaled: lengths to the width, depths so many times that, and a step for its tape. */
export interface SectionScale {
  x: (along: number) => number
  z: (up: number) => number
  times: number
  height: number
}

const TIMES = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 30]

/** Fits a section into a width; depths are drawn a whole number of times the lengths, as many as the height takes. */
export function sectionScale(
  long: number,
  low: number,
  high: number,
  width: number,
  room: number,
  pad: { left: number; top: number },
): SectionScale {
  const per = (width - 2 * pad.left) / Math.max(long, 12)
  const tall = Math.max(high - low, 6)
  const times = TIMES.findLast((n) => tall * per * n <= room) ?? 1
  const up = Math.min(per * times, room / tall)
  return {
    x: (along) => pad.left + along * per,
    z: (at) => pad.top + (high - at) * up,
    times: up < per ? 0 : times,
    height: pad.top + tall * up,
  }
}

export type Points = [number, number][]

/** A path through points of a profile. */
export const pathOf = (points: Points, scale: SectionScale) =>
  points.map(([at, up], i) => `${i ? 'L' : 'M'}${scale.x(at).toFixed(1)} ${scale.z(up).toFixed(1)}`).join('')

/** The part of a profile between two places, straight between its points. */
export function between(points: Points, from: number, to: number): Points {
  const at = (x: number): number => {
    const first = points[0]
    if (!first || x <= first[0]) return first?.[1] ?? 0
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1] as [number, number], points[i] as [number, number]]
      if (x <= b[0]) return b[0] > a[0] ? a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]) : b[1]
    }
    return points.at(-1)?.[1] ?? 0
  }
  return [[from, at(from)], ...points.filter(([x]) => x > from && x < to), [to, at(to)]]
}

/** Moves words that stand side by side in one row apart, so that none touch; what is nearest to its place stays. */
export function apart(places: { at: number; wide: number }[]): number[] {
  const order = places.map((_, i) => i).sort((a, b) => (places[a]?.at ?? 0) - (places[b]?.at ?? 0))
  const found = places.map((place) => place.at)
  let last = -Infinity
  for (const i of order) {
    const place = places[i]
    if (!place) continue
    found[i] = Math.max(place.at, last + place.wide / 2)
    last = (found[i] ?? 0) + place.wide / 2
  }
  return found
}
