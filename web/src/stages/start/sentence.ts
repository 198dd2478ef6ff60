/** The blanks of the sentence that starts a job, and the line that they make. */
export interface Blanks {
  panel: string
  length: string
  place: string
  depth: string
  method: string
  amps: string
  volts: string
  name: string
  load: string
  room: string
  mca: string
  mocp: string
  fed: string
}
export type Blank = keyof Blanks

export const NONE: Blanks = {
  panel: '',
  length: '',
  place: '',
  depth: '',
  method: '',
  amps: '',
  volts: '',
  name: '',
  load: '',
  room: '',
  mca: '',
  mocp: '',
  fed: '',
}
const words = (key: string) => key.replaceAll('_', ' ').toLowerCase()
const quoted = (name: string) => (/^[\w-]+$/.test(name) ? name : `"${name}"`)

/** What is said of a circuit of its kind, in the order in which one would say it. */
function about(kind: { key: string; feeds: boolean }, b: Blanks) {
  if (kind.feeds) return [quoted(b.fed || 'S'), b.amps]
  if (kind.key === 'vehicle' || kind.key === 'water-heater') return [b.load]
  const said = [b.amps, b.volts]
  if (b.mca) said.push(`mca ${b.mca}`)
  if (b.mocp) said.push(`mocp ${b.mocp}`)
  if (b.name) said.push(`for ${b.name}`, b.load)
  else if (b.load) said.push(`load ${b.load}`)
  return said
}

/** The line of the blanks, as it could be typed. */
export function composed(kind: { key: string; word: string; feeds: boolean }, b: Blanks) {
  const word = kind.key === 'machine' ? 'outlet' : kind.word
  const parts = [
    'from',
    b.panel,
    b.length,
    words(b.place),
    b.depth && `${b.depth} deep`,
    b.method && `in ${words(b.method)}`,
    `to ${word}`,
    ...about(kind, b),
    b.room && (b.room === 'outside' ? 'outside' : `in ${b.room}`),
  ]
  return parts.filter(Boolean).join(' ')
}

/** Spaces as they are said: 1-14 17 19. */
export function ranges(taken: number[]) {
  const found: string[] = []
  const sorted = taken.toSorted((a, b) => a - b)
  let first = 0
  sorted.forEach((space, i) => {
    if (sorted[i + 1] === space + 1) return
    found.push(first === i ? `${space}` : `${sorted[first]}-${space}`)
    first = i + 1
  })
  return found.join(' ')
}
