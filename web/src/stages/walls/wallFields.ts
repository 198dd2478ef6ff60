import type { Field } from '../../parts/fields/field'

const door = (part: Record<string, unknown>) => part.kind === 'door'
const leaved = (part: Record<string, unknown>) => part.kind === 'door' || part.kind === 'glass_door'
const IN_WALL = ['pipe', 'duct', 'clean_out', 'flue', 'nail', 'return_air']
const inWall = (part: Record<string, unknown>) => IN_WALL.includes(String(part.kind))
const island = (part: Record<string, unknown>) => part.kind === 'island'

export const OPENING_FIELDS: Field[] = [
  { name: 'at_in', label: 'From the left corner', as: 'tape' },
  { name: 'width_in', label: 'Width', as: 'tape' },
  { name: 'sill_in', label: 'Sill over the floor', as: 'tape' },
  { name: 'head_in', label: 'Head over the floor', as: 'tape' },
  { name: 'hinge', label: 'Hung or sliding on the', when: leaved },
  { name: 'swings_in', label: 'Opens into this room', when: door },
]
export const FIXTURE_FIELDS: Field[] = [
  { name: 'at_in', label: 'From the left corner', as: 'tape' },
  { name: 'width_in', label: 'Width', as: 'tape' },
  { name: 'depth_in', label: 'Deep', as: 'tape' },
  { name: 'off_in', label: 'Off its wall', as: 'tape', when: island },
  { name: 'foot_in', label: 'Its foot over the floor', as: 'tape', when: inWall },
  { name: 'height_in', label: 'Its top over the floor', as: 'tape' },
]
export const SIDE_FIELDS: Field[] = [
  { name: 'stud', label: 'Studs' },
  { name: 'spacing_in', label: 'Spacing, on centre', as: 'inches' },
  { name: 'first_stud_in', label: 'First stud at', as: 'inches' },
  { name: 'finish', label: 'Finish on this side' },
  { name: 'insulation', label: 'Insulation' },
  { name: 'bearing', label: 'Bearing' },
  { name: 'closed', label: 'Closed: not drilled' },
  { name: 'avoid', label: 'Cables go round it' },
]
export const ROOM_FIELDS: Field[] = [
  { name: 'name', label: 'Name' },
  { name: 'use', label: 'Use' },
  { name: 'moisture', label: 'For wiring it is', usual: 'as usual for its use' },
  {
    name: 'damage',
    label: 'On the surface',
    usual: 'not said',
    titles: { true: 'can be hit', false: 'guarded' },
  },
  { name: 'ambient_c', label: 'Hottest, °C', usual: 'as usual for its use' },
  {
    name: 'ceiling_out_in',
    label: 'Finished ceiling under the joists',
    as: 'inches',
    usual: 'not said',
    wide: true,
  },
  { name: 'closed', label: 'Closed: not opened' },
  { name: 'laid_out', label: 'Boxes laid out' },
  { name: 'bays', label: 'Vehicle bays', when: (part) => part.use === 'garage' },
]
export const STRUCTURE_FIELDS: Field[] = [
  { name: 'name', label: 'Name' },
  { name: 'kind', label: 'Kind' },
  { name: 'grade_in', label: 'Ground, from the floor', as: 'inches' },
  { name: 'ground_in', label: 'Ground, over the site’s zero', as: 'inches' },
  {
    name: 'dwelling',
    label: 'Lived in',
    usual: 'by what stands in it',
    titles: { true: 'yes, a dwelling', false: 'no' },
  },
  {
    name: 'siding_in',
    label: 'Finished outside over the studs',
    as: 'inches',
    usual: 'not said',
    wide: true,
  },
  { name: 'existing', label: 'Existing, not my work' },
  { name: 'laid_out', label: 'Boxes laid out' },
]
export const LEVEL_FIELDS: Field[] = [
  { name: 'name', label: 'Name of the level' },
  { name: 'kind', label: 'Kind of level' },
  { name: 'height_in', label: 'Floor to ceiling', as: 'tape' },
  { name: 'floor_in', label: 'Floor, over the main floor', as: 'inches' },
  { name: 'joist_depth_in', label: 'Joists, deep', as: 'inches' },
  { name: 'joist_spacing_in', label: 'Joists, on centre', as: 'inches' },
  {
    name: 'joist_kind',
    label: 'Joists are',
    titles: { solid: 'sawn', i_joist: 'I-joists', truss: 'open trusses', laminated: 'laminated' },
  },
  { name: 'joists', label: 'Joists run', titles: { x: 'east and west', y: 'north and south' } },
]
