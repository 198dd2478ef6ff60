import type { WalkRound } from '../../api/client'

type Fixture = WalkRound['fixtures'][number]

/** Another thing stands where this one's label would go. */
export const covered = (round: WalkRound, f: Fixture) =>
  round.fixtures.some(
    (o) => o.id !== f.id && o.kind !== 'counter' && o.x0 < (f.x0 + f.x1) / 2 && o.x1 > (f.x0 + f.x1) / 2,
  )

/** The name of each wall and how it is built, as far as there is room; `per`: pixels an inch. */
export function wallTitles(round: WalkRound, per: number) {
  return round.walls.map((wall) => {
    const room = (wall.x1 - wall.x0) * per
    const full = `${wall.name}, ${wall.behind}`
    const name =
      full.length * 7 < room ? full : wall.name.length * 7 < room ? wall.name : wall.name.slice(0, 1)
    return { ...wall, name, sub: wall.build.length * 6.4 < room ? wall.build : '' }
  })
}

/** The marks of the story pole; of marks that touch the lower one loses its words. */
export function poleMarks(round: WalkRound, y: (inches: number) => number) {
  let last = -99
  return round.pole.map((line) => {
    const at = y(line.y)
    const shown = at - last > 12
    if (shown) last = at
    return { ...line, at, shown }
  })
}

const ROWS = 2

/**
 * What no cord reaches, in words, each in a row where it touches no other. Where two rows are taken the length alone
 * is written, and where even that has no room the red line speaks for itself.
 */
export function missingLabels(round: WalkRound, x: (inches: number) => number, left: number, width: number) {
  const ends: number[] = []
  return round.reach
    .filter((r) => r.kind === 'missing' && r.text)
    .toSorted((a, b) => a.x0 - b.x0)
    .flatMap((r) => {
      for (const text of [r.text, r.text.split(' of ')[0] ?? r.text]) {
        const half = (text.length * 6.8) / 2
        const at = Math.min(Math.max(x((r.x0 + r.x1) / 2), left + half), width - half - 2)
        for (let line = 0; line < ROWS; line++) {
          if (at - half <= (ends[line] ?? -99) + 6) continue
          ends[line] = at + half
          return [{ ...r, text, at, line }]
        }
      }
      return []
    })
}
