/** The single calculations of the pocket: fields that are asked, and how the answer is read out. */

export type Values = Record<string, string | number | boolean>

export interface Field {
  key: string
  label: string
  type: 'number' | 'length' | 'choice' | 'yes' | 'words'
  options?: string[]
  start: string | boolean
  /** Where it is asked; everywhere if left out. */
  when?: (v: Values) => boolean
}

type Answer = Record<string, unknown>

export interface Card {
  key: string
  title: string
  calc: string
  fields: Field[]
  ask: (v: Values) => Record<string, unknown>
  lead: (a: Answer) => string
  lines: (a: Answer) => [string, string][]
}

const RACEWAYS = ['EMT', 'PVC40', 'PVC80', 'RMC', 'IMC', 'ENT', 'FMC', 'LFMC', 'LFNC']
const PIPES = ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2', '2-1/2', '3']
const WIRES = ['14', '12', '10', '8', '6', '4', '3', '2', '1', '1/0', '2/0', '3/0', '4/0', '250']
const pick = (key: string, label: string, options: string[], start: string): Field => ({
  key,
  label,
  type: 'choice',
  options,
  start,
})
const number = (key: string, label: string, start: string): Field => ({ key, label, type: 'number', start })
const length = (key: string, label: string, start: string): Field => ({ key, label, type: 'length', start })
const yes = (key: string, label: string): Field => ({ key, label, type: 'yes', start: false })
const n = (value: unknown, digits = 1) => (typeof value === 'number' ? String(+value.toFixed(digits)) : '–')

/** An inch reading to the nearest sixteenth, for a pencil mark. */
function mark(value: unknown): string {
  const sixteenths = Math.round(Number(value) * 16)
  const whole = Math.floor(sixteenths / 16)
  let [top, bottom] = [sixteenths % 16, 16]
  while (top && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2]
  return `${whole || !top ? whole : ''}${top ? `${whole ? ' ' : ''}${top}/${bottom}` : ''}″`
}

const shaped = (v: Values) => !['stub', 'box_offset', 'back_to_back'].includes(String(v.kind))

export const CARDS: Card[] = [
  {
    key: 'fill',
    title: 'Fill',
    calc: 'fill',
    fields: [
      pick('raceway', 'Pipe', RACEWAYS, 'EMT'),
      pick('size', 'Trade size', PIPES, '3/4'),
      pick('wire', 'Wire', WIRES, '12'),
      number('count', 'How many', '3'),
      pick('wire2', 'And', ['none', ...WIRES], 'none'),
      { ...number('count2', 'How many', '1'), when: (v) => v.wire2 !== 'none' },
      yes('nipple', 'Nipple, 24″ or less'),
    ],
    ask: (v) => ({
      raceway: v.raceway,
      size: v.size,
      conductors: [
        { insulation: 'THWN-2', size: v.wire, count: v.count },
        ...(v.wire2 === 'none' ? [] : [{ insulation: 'THWN-2', size: v.wire2, count: v.count2 }]),
      ],
      nipple: v.nipple,
    }),
    lead: (a) => `${a.fits ? 'Fits' : 'Does not fit'}: ${n(a.percent)} % of ${n(a.limit_percent)} %`,
    lines: (a) => [
      ['Used', `${n(a.used_in2, 4)} in²`],
      ['Inside', `${n(a.total_in2, 3)} in²`],
      ['Smallest that fits', a.smallest_size ? `${a.smallest_size}″` : 'none'],
      [
        'Jam ratio',
        a.jam_ratio === null ? 'not three alike' : `${n(a.jam_ratio, 2)}${a.jam_risk ? ', may wedge' : ''}`,
      ],
    ],
  },
  {
    key: 'cover',
    title: 'Cover',
    calc: 'cover',
    fields: [
      pick(
        'method',
        'What lies there',
        ['PVC40', 'PVC80', 'RMC', 'IMC', 'UF-B', 'USE-2', 'MC', 'EMT', 'LFNC', 'LFMC'],
        'PVC40',
      ),
      pick(
        'above',
        'Above it',
        ['open_ground', 'driveway', 'street', 'slab_4in', 'concrete_2in', 'under_building'],
        'open_ground',
      ),
      pick('volts', 'Volts', ['120', '240'], '120'),
      number('amps', 'Breaker, A', '20'),
      yes('gfci', 'GFCI upstream'),
    ],
    ask: (v) => ({ ...v, volts: Number(v.volts) }),
    lead: (a) => `${mark(a.cover_in)} over the top`,
    lines: (a) => [
      ['Column', String(a.column).replaceAll('_', ' ')],
      ...(a.note ? ([['Note', String(a.note)]] as [string, string][]) : []),
    ],
  },
  {
    key: 'offset',
    title: 'Offset',
    calc: 'hand-bend',
    fields: [
      pick(
        'kind',
        'Bend',
        ['offset', 'box_offset', 'rolling_offset', 'kick', 'stub', 'back_to_back', 'saddle3', 'saddle4'],
        'offset',
      ),
      pick('raceway', 'Pipe', ['EMT', 'RMC', 'IMC', 'PVC40', 'PVC80'], 'EMT'),
      pick('size', 'Trade size', PIPES.slice(0, 4), '3/4'),
      { ...length('rise_in', 'Rise', '6"'), when: shaped },
      { ...number('angle_deg', 'Angle, °', '30'), when: shaped },
      { ...length('roll_in', 'And the other way', '4"'), when: (v) => v.kind === 'rolling_offset' },
      {
        ...length('distance_in', 'To the obstacle, stub, or back to back', '40"'),
        when: (v) => v.kind !== 'box_offset' && v.kind !== 'kick',
      },
      { ...length('width_in', 'Width of the obstacle', '4"'), when: (v) => v.kind === 'saddle4' },
    ],
    ask: (v) => ({ ...v }),
    lead: (a) => `Marks at ${(a.marks_in as number[]).map(mark).join(', ')}`,
    lines: (a) => [
      ['Bend each', (a.angles_deg as number[]).map((d) => `${n(d)}°`).join(', ')],
      ['Shrink', mark(a.shrink_in)],
      ['Rise', mark(a.rise_in)],
      ['Aside in all', mark(a.true_offset_in)],
      ['Gain', mark(a.gain_in)],
      ['Exact marks', (a.marks_in as number[]).map((m) => `${n(m, 3)}″`).join(', ')],
      ['Chart multiplier', a.chart_multiplier === null ? '–' : n(a.chart_multiplier)],
      ['How', String(a.note)],
    ],
  },
  {
    key: 'drop',
    title: 'Drop',
    calc: 'drop',
    fields: [
      pick('volts', 'Volts', ['120', '240'], '120'),
      number('amps', 'Load, A', '12'),
      number('length_ft', 'One way, ft', '100'),
      pick('size', 'Wire', WIRES, '12'),
      pick('material', 'Of', ['cu', 'al'], 'cu'),
    ],
    ask: (v) => ({ ...v, volts: Number(v.volts) }),
    lead: (a) => `${n(a.drop_percent, 2)} %, ${n(a.drop_v, 2)} V`,
    lines: (a) => [
      ['Resistance', `${n(a.ohm_per_kft, 3)} Ω per 1,000 ft`],
      ['Advice', '3 % branch, 5 % in all'],
    ],
  },
  {
    key: 'box',
    title: 'Box fill',
    calc: 'box-fill',
    fields: [
      pick('wire', 'Wire', WIRES.slice(0, 5), '12'),
      number('count', 'Wires, no grounds', '4'),
      number('grounds', 'Grounds', '2'),
      number('straps', 'Device straps', '1'),
      yes('clamps', 'Clamps inside'),
      number('fittings', 'Fittings', '0'),
    ],
    ask: (v) => ({
      conductors: [{ size: v.wire, count: v.count }],
      grounds: { size: v.wire, count: v.grounds },
      devices: [{ size: v.wire, straps: v.straps }],
      clamps: v.clamps,
      fittings: v.fittings,
    }),
    lead: (a) => `${n(a.needed_in3, 2)} in³ or more`,
    lines: (a) =>
      (a.parts as { name: string; in3: number }[]).map(
        (part) => [part.name, `${n(part.in3, 2)} in³`] as [string, string],
      ),
  },
  {
    key: 'conductor',
    title: 'Conductor',
    calc: 'conductor',
    fields: [
      number('load_a', 'Load, A', '24'),
      yes('continuous', 'Three hours or more'),
      pick('volts', 'Volts', ['120', '240'], '240'),
      pick('wiring', 'In', ['raceway', 'NM-B', 'UF-B', 'MC', 'AC', 'SER'], 'NM-B'),
      pick('material', 'Of', ['cu', 'al'], 'cu'),
      number('ambient_c', 'Around it, °C', '30'),
      number('current_carrying', 'Wires with current', '2'),
      number('length_ft', 'One way, ft', '60'),
      number('drop_limit_percent', 'Drop limit, %', '3'),
    ],
    ask: (v) => ({ ...v, volts: Number(v.volts) }),
    lead: (a) => `${a.size} on a ${n(a.breaker_a)} A breaker, ground ${a.ground_size}`,
    lines: (a) => [
      ['Decided by', String(a.decided_by)],
      ['Runner-up', String(a.runner_up)],
      ['Carries as it lies', `${n(a.ampacity_a)} A`],
      ['Drop', `${n(a.drop_percent, 2)} %`],
      ...Object.entries(a.by_rule as Record<string, string>).map(
        ([rule, size]) => [`Least by ${rule}`, size] as [string, string],
      ),
      ['Note', String(a.note)],
    ],
  },
]
