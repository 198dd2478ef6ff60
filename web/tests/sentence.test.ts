import { describe, expect, it } from 'vitest'

import { composed, NONE, ranges } from '../src/stages/start/sentence'

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

describe('taken spaces', () => {
  it.each([
    [[1, 2, 3, 17, 19], '1-3 17 19'],
    [[4], '4'],
    [[], ''],
    [[9, 8, 1], '1 8-9'],
  ])('%j are said as %j', (taken, said) => expect(ranges(taken)).toBe(said))
})
