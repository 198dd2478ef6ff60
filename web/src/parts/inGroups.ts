/** Rows by what they have in common, in the order in which each group first stands there. */
export function inGroups<Row>(rows: readonly Row[], common: (row: Row) => string): [string, Row[]][] {
  const found = new Map<string, Row[]>()
  for (const row of rows) {
    const own = found.get(common(row))
    if (own) own.push(row)
    else found.set(common(row), [row])
  }
  return [...found]
}
