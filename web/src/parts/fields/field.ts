/** What a form says of a field of a part; what may stand in it comes from the program (vocabulary.fields). */
export interface Field {
  name: string
  label: string
  /** A length: written as on a tape, or in inches where that is how it is read. */
  as?: 'tape' | 'inches'
  /** Words for choices; a choice that has none is shown as it is called. */
  titles?: Record<string, string>
  /** Choices that are no part of the model: the name of a list that is handed in. */
  list?: string
  /** What an open field means while nothing is said. */
  usual?: string
  wide?: boolean
  when?: (part: Part) => boolean
}
export type Part = Record<string, unknown>
export interface Choice {
  title: string
  value: unknown
}
export interface FieldWord {
  name: string
  type: 'choice' | 'yes_no' | 'number' | 'text' | 'parts'
  choices?: readonly (string | number)[]
  open?: boolean
}

/** The choices of a field with their words; an open one starts with what it means to say nothing. */
export function choicesOf(field: Field, word: FieldWord): Choice[] {
  const title = (value: string | number) => field.titles?.[value] ?? String(value).replaceAll('_', ' ')
  const open: Choice[] = word.open ? [{ title: field.usual ?? 'as usual', value: null }] : []
  if (word.type === 'yes_no')
    return [
      ...open,
      { title: field.titles?.true ?? 'yes', value: true },
      { title: field.titles?.false ?? 'no', value: false },
    ]
  return [...open, ...(word.choices ?? []).map((value) => ({ title: title(value), value }))]
}

/** What was typed, as the part takes it: a number where it is one; nothing said where that is allowed. */
export function taken(text: string, word: FieldWord): unknown {
  const said = text.trim()
  if (word.type !== 'number') return said
  if (said === '') return word.open ? null : said
  const number = Number(said.replace(',', '.'))
  return Number.isFinite(number) ? number : said
}
