import { describe, expect, it } from 'vitest'

import { composed, NONE, ranges, whole } from '../src/stages/start/sentence'

const kind = (key: string, word = key, feeds = false) => ({ key, word, feeds })
const blanks = (said: object) => ({ ...NONE, panel: 'H', length: "20'", place: 'stud_wall', ...said })

describe('the line that the blanks make', () => {
  it.each([
    [kind('outlet'), { amps: '20a', room: 'garage' }, "from H 20' stud wall to outlet 20a in garage"],
    [kind('outlet'), { amps: '20a', room: 'outside', method: 'NM-B' }, "from H 20' stud wall in nm-b to outlet 20a outside"],
    [
      kind('machine'),
      { place: 'masonry_inside', method: 'EMT', amps: '50a', volts: '240v', name: 'planer', load: '36a' },
      "from H 20' masonry inside in emt to outlet 50a 240v for planer 36a",
    ],
    [kind('vehicle'), { load: '48a' }, "from H 20' stud wall to vehicle 48a"],
    [kind('pump', 'well pump'), { place: 'trench', depth: '18"', mca: '10', mocp: '20' },
      "from H 20' trench 18\" deep to well pump mca 10 mocp 20"],
    [kind('building', 'building', true), { fed: 'Wood shed', amps: '60a' }, "from H 20' stud wall to building \"Wood shed\" 60a"],
    [kind('sub-panel', 'sub-panel', true), {}, "from H 20' stud wall to sub-panel S"],
  ])('%#: %o', (of, said, line) => expect(composed(of, blanks(said))).toBe(line)) // prettier-ignore
})

describe('a line as it is sent', () => {
  it.each([
    ["panel S 31' block wall to outlet", 1, "from panel S 31' block wall to outlet", 5],
    ['panel T 100a 20 spaces', 1, 'panel T 100a 20 spaces', 0],
    ['panel "Panel T" two free', 1, 'panel "Panel T" two free', 0],
    ['H 200a 30 spaces', 0, 'panel H 200a 30 spaces', 6],
    ['panel H 200a', 0, 'panel H 200a', 0],
    ["from H 20' attic to range", 1, "from H 20' attic to range", 0],
    ['circuit 3 20a Bench', 1, 'circuit 3 20a Bench', 0],
    ['a 200 amp panel H with 30 spaces', 0, 'a 200 amp panel H with 30 spaces', 0],
    ['100a panel G in garage', 1, '100a panel G in garage', 0],
    ['a 60 amp sub-panel G in the garage', 0, 'a 60 amp sub-panel G in the garage', 0],
    ["a 60 amp sub-panel G, 40' of crawl", 1, "from a 60 amp sub-panel G, 40' of crawl", 5],
    ['60 amp subpanel G', 1, 'from 60 amp subpanel G', 5],
    ['make 17 a 15 amp', 1, 'make 17 a 15 amp', 0],
    ["move R-1 to 5'", 1, "move R-1 to 5'", 0],
    ['R-1 is a gfci', 1, 'R-1 is a gfci', 0],
    ['run 9 through the attic', 1, 'run 9 through the attic', 0],
    ["run 40' of attic to a bath outlet", 1, "from run 40' of attic to a bath outlet", 5],
    ["add an outlet, 20' of wall", 1, "from add an outlet, 20' of wall", 5],
  ])('%j', (line, panels, text, added) => expect(whole(line, panels)).toEqual({ text, added }))
})

describe('a line whose first word is a sentence of its own elsewhere', () => {
  const verbs = ['from', 'water', 'panel']
  it('is that sentence, but for what stands at an end', () => {
    expect(whole('water 42" deep from street to house', 1, verbs).text).toBe(
      'water 42" deep from street to house',
    )
    expect(whole("water heater, 17' wall in 10/2", 1, verbs).text).toBe("from water heater, 17' wall in 10/2")
  })
})

describe('taken spaces', () => {
  it.each([
    [[1, 2, 3, 17, 19], '1-3 17 19'],
    [[4], '4'],
    [[], ''],
    [[9, 8, 1], '1 8-9'],
  ])('%j are said as %j', (taken, said) => expect(ranges(taken)).toBe(said))
})
