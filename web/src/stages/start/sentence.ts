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

const FEET = /\d\s*('|′|ft\b|feet\b)/i
const PANEL_FIRST = /^((an?|the)\s+)?(\d+\s*(a|amps?)\s+)?(main\s+)?panel\b/i
const SUB_FIRST = /^((an?|the)\s+)?(\d+\s*(a|amps?)\s+)?sub[\s-]?panel\b/i
/** What changes something that is there: make 9 a 15 amp; R-1 is a gfci, which no way is said in. */
const CHANGES = /^(make|raise|lower|move|mark|get|order)\s/i
const SPOKEN = /^(add|take|run|send)\s|^\S+(\s\S+){0,3}\s(is|are|was|goes on|go on)\s/i

/**
 * A line as it is sent: what is typed after "from" goes on from there; a panel's own sentence, also with its amperes
 * first, and what changes something that is there stand as they are.
 */
export function whole(
  line: string,
  panels: number,
  verbs: string[] = ['from', 'circuit', 'feed', 'structure'],
) {
  const said = line.trim()
  const first = said.split(/\s/)[0]?.toLowerCase() ?? ''
  const service = first === 'water' && /^water heater\b/i.test(said) // what stands there, no pipe in the yard
  if (first !== 'panel' && verbs.includes(first) && !service) return { text: said, added: 0 }
  const feet = FEET.test(said)
  const own = first !== 'panel' && PANEL_FIRST.test(said)
  if (!feet && (own || (!panels && SUB_FIRST.test(said)))) return { text: said, added: 0 }
  if (panels && (CHANGES.test(said) || (!feet && SPOKEN.test(said)))) return { text: said, added: 0 }
  const panel =
    /^panel\s+("[^"]*"|\S+)\s+(\d+(\.\d+)?\s*(a|amps?|spaces?|free)\b|\w+ free\b|taken\b|in\b|at\b|sub\b|lugs\b)/i
  if (panel.test(said) || (!panels && /^panel\b/i.test(said))) return { text: said, added: 0 }
  if (!panels) return { text: `panel ${said}`, added: 6 }
  return { text: `from ${said}`, added: 5 }
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
