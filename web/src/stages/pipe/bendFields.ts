import type { Field, Part } from '../../parts/fields/field'

const kind = (part: Part) => part.kind as string
const TOWARD = {
  outward: 'out from the wall',
  inward: 'in to the wall',
  leftward: 'to the left',
  rightward: 'to the right',
  upward: 'up',
  downward: 'down',
  onward: 'on along the wall',
  backward: 'back along the wall',
}

/** The fields of an offset, saddle or kick. */
export const SHAPE: Field[] = [
  {
    name: 'kind',
    label: 'What it is',
    wide: true,
    titles: {
      box_offset: 'box offset',
      offset: 'offset',
      saddle3: 'saddle of three bends',
      saddle4: 'saddle of four bends',
      kick: 'kick',
      rolling: 'rolling offset',
    },
  },
  { name: 'rise_in', label: 'Aside', as: 'inches' },
  { name: 'roll_in', label: 'And the other way', as: 'inches', when: (part) => kind(part) === 'rolling' },
  { name: 'width_in', label: 'Over a width of', as: 'inches', when: (part) => kind(part) === 'saddle4' },
  { name: 'angle_deg', label: 'Degrees', usual: 'usual' },
  {
    name: 'at_in',
    label: 'From the start of the leg',
    as: 'tape',
    when: (part) => kind(part) !== 'kick',
  },
  { name: 'toward', label: 'Goes', titles: TOWARD },
]

/** What is said of the legs of a pull, beside its bends. */
export const CORNER: Field[] = [{ name: 'radius_in', label: 'Radius', as: 'inches' }]
export const LEG: Field[] = [
  { name: 'expansion', label: 'Expansion fitting' },
  { name: 'stands_off', label: 'Stood off' },
]

export const DAY: Field[] = [
  { name: 'day_f', label: 'How warm it is that day, °F', usual: 'not said', wide: true },
]

/** A new shape, as it is most often made. */
export const FRESH: Record<string, Part> = {
  offset: { kind: 'offset', rise_in: 4, angle_deg: 30 },
  saddle3: { kind: 'saddle3', rise_in: 2, angle_deg: 45 },
  kick: { kind: 'kick', rise_in: 3, angle_deg: 15 },
  box_offset: { kind: 'box_offset' },
  rolling: { kind: 'rolling', rise_in: 4, roll_in: 3, angle_deg: 30 },
}
