<script setup lang="ts">
import { computed } from 'vue'

import type { DrawnRoom, Edit, Problem } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import type { Part } from '../../parts/fields/field'
import PartFields from '../../parts/fields/PartFields.vue'
import { inchText, tapeText } from '../../parts/planScale'
import { useJob } from '../../stores/job'
import {
  FIXTURE_FIELDS,
  LEVEL_FIELDS,
  OPENING_FIELDS,
  ROOM_FIELDS,
  SIDE_FIELDS,
  STRUCTURE_FIELDS,
} from './wallFields'

/** What is picked on the plan: an opening, a wall, a thing along a wall, or the room. */
const props = defineProps<{
  drawn: DrawnRoom | null
  act: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ remove: [] }>()
const store = useJob()

const room = computed(() => store.room)
const findings = computed(() =>
  (store.view?.level?.findings ?? []).filter((f) => f.stage === 'walls' && f.subject === store.roomId),
)
const wall = computed(() => (store.picked?.kind === 'wall' ? (store.picked.side ?? 0) : null))
const side = computed(() => (wall.value === null ? null : (room.value?.sides?.[wall.value] ?? null)))
const opening = computed(() =>
  store.picked?.kind === 'opening'
    ? (store.job?.openings.find((o) => o.id === store.picked?.id) ?? null)
    : null,
)
const fixture = computed(() =>
  store.picked?.kind === 'fixture'
    ? (store.job?.fixtures.find((o) => o.id === store.picked?.id) ?? null)
    : null,
)
const level = computed(() => store.levelOf(store.levelId))
const structure = computed(() =>
  store.job?.structures.find((item) => item.levels?.some((one) => one.id === store.levelId)),
)
const text = (inches: number) => tapeText(inches, store.metric)

const setPart = (kind: string, id: string) => (set: Part) => store.edit([{ op: 'set', kind, id, set }])
const setSide = (set: Part) => store.edit([{ op: 'set_side', room: room.value?.id, side: wall.value, set }])
const setLevel = (values: Part) => {
  const levels = structure.value?.levels?.map((item) =>
    item.id === store.levelId ? { ...item, ...values } : item,
  )
  return store.edit([{ op: 'set', kind: 'structure', id: structure.value?.id, set: { levels } }])
}
const clear = () =>
  room.value && props.act([{ op: 'clear_room', room: room.value.id }], `remove ${room.value.name}`)
const wallName = computed(() => props.drawn?.walls.find((w) => w.side === wall.value)?.name ?? '')
</script>

<template>
  <template v-if="opening">
    <header class="pick-head">
      <h2>{{ opening.kind.replace('_', ' ') }}</h2>
      <span class="num mute">{{ text(opening.width_in) }}</span>
    </header>
    <PartFields
      :key="opening.id"
      kind="opening"
      :fields="OPENING_FIELDS"
      :part="opening"
      :set="setPart('opening', opening.id)"
    />
    <v-btn size="small" variant="text" color="stop" @click="emit('remove')">Remove it</v-btn>
  </template>
  <template v-else-if="fixture">
    <header class="pick-head">
      <h2>{{ fixture.kind.replace('_', ' ') }}</h2>
      <span class="num mute">{{ text(fixture.width_in) }}</span>
    </header>
    <PartFields
      :key="fixture.id"
      kind="fixture"
      :fields="FIXTURE_FIELDS"
      :part="fixture"
      :set="setPart('fixture', fixture.id)"
    />
    <v-btn size="small" variant="text" color="stop" @click="emit('remove')">Remove it</v-btn>
  </template>
  <template v-else-if="side && room">
    <header class="pick-head">
      <h2>{{ wallName }} wall, {{ room.name }}</h2>
      <span class="num mute">{{ drawn?.walls.find((w) => w.side === wall)?.length_text }}</span>
    </header>
    <p class="mute">
      {{
        drawn?.walls.find((w) => w.side === wall)?.shared
          ? 'Shared: studs and insulation hold for both faces.'
          : 'An outside wall.'
      }}
    </p>
    <PartFields :key="`${room.id}-${wall}`" kind="side" :fields="SIDE_FIELDS" :part="side" :set="setSide" />
    <p v-if="side.insulation === 'foam'" class="mute">
      After foam nothing can be moved: settle every box first.
    </p>
    <p class="mute">Drag the wall, or move it with the arrow keys, an inch a tap.</p>
  </template>
  <template v-else-if="room">
    <header class="pick-head">
      <h2>{{ room.name }}</h2>
      <span class="num mute">{{ drawn?.area_text }}</span>
    </header>
    <FindingCard
      v-for="(f, i) in findings"
      :key="f.code + i"
      :finding="f"
      :first="i === 0"
      @mend="store.mend($event)"
    />
    <PartFields
      :key="room.id"
      kind="room"
      :fields="ROOM_FIELDS"
      :part="room"
      :set="setPart('room', room.id)"
    />
    <h3>Walls, clockwise</h3>
    <table class="num">
      <tbody>
        <tr
          v-for="w in drawn?.walls ?? []"
          :key="w.side"
          tabindex="0"
          @click="store.picked = { kind: 'wall', id: room.id, side: w.side }"
          @keydown.enter="store.picked = { kind: 'wall', id: room.id, side: w.side }"
        >
          <td>{{ w.name }}</td>
          <td>{{ w.length_text }}</td>
          <td class="mute">
            {{ room.sides?.[w.side]?.stud }}, {{ room.sides?.[w.side]?.finish
            }}{{ room.sides?.[w.side]?.insulation === 'none' ? '' : `, ${room.sides?.[w.side]?.insulation}` }}
          </td>
          <td class="mute">{{ w.outside ? 'outside' : 'inside' }}</td>
        </tr>
      </tbody>
    </table>
    <details v-if="level && structure" class="no-print">
      <summary class="num">
        {{ level.name }}: ceiling {{ text(level.height_in ?? 96) }}, joists
        {{ inchText(level.joist_depth_in ?? 9.25, store.metric) }} at
        {{ inchText(level.joist_spacing_in ?? 16, store.metric) }} running
        {{ level.joists === 'x' ? 'east and west' : 'north and south' }}
      </summary>
      <PartFields :key="level.id" kind="level" :fields="LEVEL_FIELDS" :part="level" :set="setLevel" />
      <PartFields
        :key="structure.id"
        kind="structure"
        :fields="STRUCTURE_FIELDS"
        :part="structure"
        :set="setPart('structure', structure.id)"
      />
    </details>
    <v-btn size="small" variant="text" color="stop" @click="clear">Remove this room</v-btn>
  </template>
  <p v-else class="mute">Nothing is built on this level yet.</p>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--mute);
  margin: 8px 0;
}
h2::first-letter {
  text-transform: uppercase;
}
h3 {
  margin: 16px 0 4px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14.5px;
}
td {
  padding: 5px 6px 5px 0;
  border-top: 1px solid var(--rule);
}
tr {
  cursor: pointer;
}
tr:hover {
  background: var(--note-wash);
}
</style>
