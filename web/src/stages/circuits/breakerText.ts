/** Width of one letter of the label face at 12.5 px, on average, in px. */
const LETTER = 5.9

/** A name on so many lines of a width, broken between words; what does not fit ends in an ellipsis. */
export function wrapped(text: string, width: number, lines: number): string[] {
  const most = Math.max(Math.floor(width / LETTER), 2)
  const found: string[] = ['']
  for (const word of text.split(' ')) {
    const line = found.at(-1) ?? ''
    const longer = line ? `${line} ${word}` : word
    if (longer.length <= most || !line) found[found.length - 1] = longer
    else found.push(word)
  }
  const shown = found.slice(0, lines)
  const last = shown.length - 1
  if (found.length > lines) shown[last] = `${shown[last]} ${found[lines]}`
  return shown.map((line) => (line.length > most ? `${line.slice(0, most - 1)}…` : line))
}
