import type { Field } from '../../parts/fields/field'

/** What is said of a trench beside its line. */
export const TRENCH: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'width_in', label: 'Width', as: 'inches' },
  { name: 'bedding_in', label: 'Sand under it', as: 'inches' },
  { name: 'dig', label: 'Dug by' },
  { name: 'moves', label: 'Ground settles or heaves', usual: 'not said' },
  { name: 'rock', label: 'Solid rock' },
  { name: 'concrete', label: '2″ of concrete over it' },
]
export const SPAN: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'sag_in', label: 'Sag as strung', as: 'inches', usual: 'by habit' },
  { name: 'listed', label: 'Splices listed, in reach', usual: 'not said' },
]
export const END: Field[] = [
  { name: 'height_in', label: 'Held over the ground', as: 'tape', usual: 'not said' },
  { name: 'at', label: 'On a' },
  { name: 'mast', label: 'Mast, trade size', when: (part) => part.at === 'mast' },
  { name: 'guyed', label: 'Braced or guyed', usual: 'not said', when: (part) => part.at === 'mast' },
  { name: 'window_in', label: 'To a window or door', as: 'inches', usual: 'not said' },
  { name: 'over_roof_in', label: 'Runs over its roof', as: 'inches', usual: 'not over it' },
  { name: 'roof_clear_in', label: 'Over its own roof', as: 'inches', usual: 'not over it' },
  { name: 'roof_in12', label: 'Pitch of that roof in 12', usual: 'not said' },
]
export const ROD: Field[] = [
  { name: 'kind', label: 'Kind' },
  { name: 'length_in', label: 'In the earth', as: 'tape' },
  { name: 'diameter_in', label: 'Thick', as: 'inches' },
  { name: 'wire', label: 'Conductor', usual: 'as it must be' },
  { name: 'ohms', label: 'Ohms, alone', usual: 'not measured' },
  { name: 'driven_on', label: 'Driven on', usual: '2026-05-12' },
  { name: 'bonded', label: 'Joined' },
]
export const SERVICE: Field[] = [
  { name: 'entry', label: 'Comes in' },
  { name: 'rating_a', label: 'Amperes' },
  { name: 'wire_size', label: 'Wire', usual: 'not said' },
  { name: 'material', label: 'Metal' },
  { name: 'mast', label: 'Mast, trade size', usual: 'none' },
  { name: 'meter_in', label: 'Meter, its middle', as: 'tape', usual: 'not said' },
  { name: 'attach_in', label: 'Drop held at', as: 'tape', usual: 'not said' },
  { name: 'drip_in', label: 'Drip loop, lowest', as: 'tape', usual: 'not said' },
  { name: 'outside_disconnect', label: 'Disconnect outside', usual: 'not said' },
  { name: 'stub_set', label: 'Pipe set before foam', usual: 'not said' },
  { name: 'water_bond', label: 'Water pipe bonded', usual: 'not said' },
  { name: 'gas_bond', label: 'Gas pipe bonded', usual: 'not said' },
  { name: 'intersystem', label: 'Bar for other bonds', usual: 'not said' },
  { name: 'surge', label: 'Surge protection', usual: 'not said' },
]
