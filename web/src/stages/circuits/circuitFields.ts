import type { Field } from '../../parts/fields/field'

export const METALS = { cu: 'copper', al: 'aluminum' }

/** Everything that can be said of a circuit, but for its chain and its space. */
export const CIRCUIT_FIELDS: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'breaker_a', label: 'Breaker, A' },
  {
    name: 'protection',
    label: 'Protection',
    wide: true,
    titles: { plain: 'plain', gfci: 'ground-fault', afci: 'arc-fault', dual: 'both' },
  },
  { name: 'wire_size', label: 'Wire', list: 'sizes' },
  { name: 'material', label: 'Of', titles: METALS },
  { name: 'volts', label: 'Volts' },
  { name: 'method', label: 'In' },
  { name: 'load_a', label: 'Load expected, A', usual: 'by its boxes' },
  { name: 'insulation', label: 'Wires in pipe' },
  { name: 'ground_size', label: 'Ground', list: 'grounds' },
  { name: 'whip_size', label: 'Whip wire', list: 'whips' },
  { name: 'partner', label: 'Shares its neutral with', list: 'partners', wide: true },
  {
    name: 'least_ampacity_a',
    label: 'Nameplate: least ampacity, A',
    usual: 'not read',
    wide: true,
    when: (part) => !!part.nameplate,
  },
  {
    name: 'largest_breaker_a',
    label: 'Nameplate: largest breaker, A',
    usual: 'not read',
    wide: true,
    when: (part) => !!part.nameplate,
  },
  { name: 'tied', label: 'Handle-tied', when: (part) => !!part.partner },
  { name: 'neutral', label: 'Neutral' },
  { name: 'nonlinear', label: 'Mostly electronic', when: (part) => !!part.neutral },
  { name: 'equipment_ground', label: 'Own ground' },
  { name: 'locks', label: 'Breaker locks off' },
  { name: 'nameplate', label: 'By nameplate' },
]
