import type { Field, Part } from '../../parts/fields/field'

const onWall = (part: Part) => part.side !== null && part.side !== undefined
const inWords = (part: Part) => part.room === null || part.room === undefined
const plugged = (part: Part) => part.kind === 'receptacle'
const GIVEN = { plain: 'plain', '': 'none', gfci: 'ground-fault', afci: 'arc-fault', dual: 'both' }
const as =
  (...kinds: string[]) =>
  (part: Part) =>
    kinds.includes(String(part.kind))

/** Everything that can be said of a box. */
export const BOX_FIELDS: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'at_in', label: 'From the left corner', as: 'tape', when: onWall },
  { name: 'x_in', label: 'East of the corner', as: 'tape', when: (part) => typeof part.x_in === 'number' },
  { name: 'y_in', label: 'North of the corner', as: 'tape', when: (part) => typeof part.y_in === 'number' },
  { name: 'height_in', label: 'Middle over the floor', as: 'inches' },
  { name: 'where', label: 'Where, in words', wide: true, when: inWords },
  { name: 'use', label: 'The place is a', titles: { '': 'not said' }, when: inWords },
  { name: 'kind', label: 'Kind' },
  { name: 'serves', label: 'Serves', titles: { '': 'nothing in particular' } },
  { name: 'load_w', label: 'Load, W', usual: 'as usual' },
  { name: 'continuous', label: 'On for three hours', usual: 'as usual' },
  { name: 'nema', label: 'Receptacle, NEMA', titles: { '': 'as usual' }, when: plugged },
  {
    name: 'switched',
    label: 'A switch works',
    titles: { '': 'nothing of it', half: 'one half', whole: 'the whole' },
    when: as('receptacle', 'equipment'),
  },
  { name: 'protects', label: 'Device protects', titles: GIVEN, when: as('receptacle', 'switch', 'device') },
  { name: 'model', label: 'Box', list: 'models', wide: true },
  { name: 'gangs', label: 'Gangs', list: 'gangs' },
  {
    name: 'ways',
    label: 'Ways',
    titles: { 2: 'single-pole', 3: 'three-way', 4: 'four-way' },
    when: as('switch'),
  },
  { name: 'set_out_in', label: 'Set out from the stud', as: 'inches' },
  { name: 'clear_in', label: 'Clear behind, taped', as: 'inches' },
  { name: 'blocking', label: 'On blocking' },
  { name: 'clamps', label: 'Has clamps' },
  { name: 'outdoors', label: 'Outer face', when: onWall },
  {
    name: 'cover',
    label: 'Cover',
    titles: { '': 'as usual', flat: 'flat', damp: 'tight while shut', in_use: 'in use' },
    when: plugged,
  },
  { name: 'surface', label: 'On the surface' },
  { name: 'rating_a', label: 'Rated, A', usual: 'not said', when: as('disconnect') },
  { name: 'fused', label: 'Fuses', usual: 'not said', when: as('disconnect') },
  { name: 'line_at', label: 'Line lands at the', titles: { '': 'not said' }, when: as('disconnect') },
  { name: 'spare_in', label: 'Left hanging', as: 'inches', when: as('tail') },
  { name: 'air_tight', label: 'Air-tight' },
  { name: 'fan_rated', label: 'Rated for a fan', when: as('light', 'fan', 'junction', 'smoke') },
  { name: 'monoxide', label: 'Tells carbon monoxide', when: as('smoke') },
  { name: 'interlock', label: 'Interlocked main', when: (part) => part.serves === 'generator' },
  { name: 'fixed', label: 'Keeps its height' },
  { name: 'marked', label: 'Marked' },
  { name: 'old', label: 'Was there before' },
]

/** Everything that can be said of a panel, but for what its calculated load is worked out by. */
export const PANEL_FIELDS: Field[] = [
  { name: 'name', label: 'Name', wide: true },
  { name: 'where', label: 'Where, in words', wide: true, when: inWords },
  { name: 'main_a', label: 'Main breaker, A', usual: 'lugs only' },
  { name: 'bus_a', label: 'Bus, A' },
  { name: 'spaces', label: 'Spaces' },
  { name: 'free_said', label: 'Free, where only that is known', usual: 'by what stands there', wide: true },
  { name: 'main_at', label: 'Main at the' },
  { name: 'lug_max', label: 'Lugs take up to', list: 'lugs' },
  { name: 'neutral_holes', label: 'Neutral holes' },
  { name: 'at_in', label: 'From the left corner', as: 'tape', when: onWall },
  { name: 'height_in', label: 'Lower edge up', as: 'inches' },
  { name: 'width_in', label: 'Wide', as: 'inches' },
  { name: 'tall_in', label: 'Tall', as: 'inches' },
  { name: 'set_out_in', label: 'Out of the stud', as: 'inches', usual: 'on the surface', when: onWall },
  {
    name: 'disconnect_elsewhere',
    label: 'Service disconnect',
    usual: 'not said',
    titles: { true: 'stands ahead of it', false: 'is in it' },
    wide: true,
  },
  { name: 'bonded', label: 'Bonding screw in' },
  { name: 'ground_bar', label: 'Ground bar' },
  { name: 'ground_holes', label: 'Ground holes', usual: 'not counted' },
  { name: 'hole_max', label: 'Bar holes take up to', list: 'holes' },
  { name: 'make', label: 'Make and series', wide: true },
]
