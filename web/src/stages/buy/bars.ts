import type { BuyRow, CutBar, CutSheet, Weighed } from '../../api/client'

/** How wide a coil or stick is drawn, per cent of the room: all on one scale, the longest as wide as the room. */
export const longest = (sheets: readonly CutSheet[], unit: string) =>
  Math.max(
    1,
    ...sheets.filter((one) => one.unit === unit).flatMap((one) => one.bars.map((bar) => bar.length)),
  )

export const widthOf = (length: number, most: number) => (100 * length) / most

/** Bars that are cut alike, gathered: ten whole sticks are one row. */
export interface Alike {
  bar: CutBar
  count: number
  first: number
}
const cutAs = (bar: CutBar) =>
  `${bar.length}|${bar.have}|${bar.price}|${bar.cuts.map((cut) => `${cut.label} ${cut.long.toFixed(2)}`).join('|')}`

export function alike(bars: readonly CutBar[]): Alike[] {
  const found: Alike[] = []
  bars.forEach((bar, index) => {
    const last = found.at(-1)
    if (last && cutAs(last.bar) === cutAs(bar)) last.count++
    else found.push({ bar, count: 1, first: index + 1 })
  })
  return found
}

/** The jacket of a cable: white 14, yellow 12, orange 10, black 8 and larger; underground grey; wire in its colour. */
export function jacket(item: string): string {
  const colours = ['black', 'red', 'blue', 'brown', 'white', 'green', 'copper']
  const colour = colours.find((word) => item.endsWith(` ${word}`))
  if (colour) return `wire-${colour}`
  if (/UF-B|USE-2|quadplex/.test(item)) return 'earth'
  const gauge = /^(\d+)-\d/.exec(item)?.[1]
  if (/ (MC|AC)$/.test(item)) return 'steel'
  if (gauge === '14' || gauge === '12' || gauge === '10') return `nm${gauge}`
  return gauge || /^\d\/0-/.test(item) ? 'nm8' : 'pipe'
}

/** Dollars as they are read: whole from a hundred on. */
export const money = (dollars: number) =>
  `$${dollars.toLocaleString('en-US', dollars >= 100 ? { maximumFractionDigits: 0 } : { minimumFractionDigits: 2, maximumFractionDigits: 2 })}`

/** More or less than now, with its sign. */
export function against(now: number, then: number): string {
  const more = Math.round(then - now)
  return more === 0 ? 'the same' : `${more > 0 ? '+' : '−'} $${Math.abs(more).toLocaleString('en-US')}`
}

/** Ways that may be taken, what saves most first; those that the rules stop come last. */
export const ranked = (ways: readonly Weighed[]) =>
  [...ways].sort((a, b) => Number(!!a.stops.length) - Number(!!b.stops.length) || a.total - b.total)

/** How many rows are done. */
export const done = (rows: readonly Pick<BuyRow, 'state'>[]) =>
  rows.filter((row) => row.state === 'bought' || row.state === 'received').length
