<script setup lang="ts">
import { computed } from 'vue'

import type { DrawnRoom, Edit, Problem } from '../../api/client'
import FindingCard from '../../parts/FindingCard.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { inchText, tapeText } from '../../parts/planScale'
import { useJob } from '../../stores/job'

/** What is picked on the plan: an opening, a wall, a thing along a wall, or the room. */
const props = defineProps<{
  drawn: DrawnRoom | null
  act: (edits: Edit[], label?: string) => Promise<Problem | null>
}>()
const emit = defineEmits<{ remove: [] }>()
const store = useJob()

const USES = [
  'common', 'kitchen', 'dining', 'bedroom', 'bath', 'hall', 'stairs', 'closet', 'laundry', 'utility', 'garage', 'shop',
  'storage', 'porch', 'crawl', 'basement', 'attic', 'pump',
] // prettier-ignore
const STUDS = ['2x3', '2x4', '2x6', '2x8', 'furring', 'metal', 'log', 'block', 'open']
const FINISHES = ['none', 'drywall', 'drywall 5/8', 'boards', 'tile', 'stone']

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
const level = computed(() =>
  (store.job?.structures ?? []).flatMap((s) => s.levels ?? []).find((item) => item.id === store.levelId),
)
const text = (inches: number) => tapeText(inches, store.metric)

const setRoom = (set: Record<string, unknown>) =>
  room.value &&
  props.act([{ op: 'set', kind: 'room', id: room.value.id, set }], `room ${Object.keys(set).join(', ')}`)
const setSide = (set: Record<string, unknown>) =>
  room.value && props.act([{ op: 'set_side', room: room.value.id, side: wall.value, set }])
const setPart = (kind: 'opening' | 'fixture', id: string, set: Record<string, unknown>) =>
  props.act([{ op: 'set', kind, id, set }])
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
    <div class="pick-fields">
      <MeasureField
        label="From the left corner"
        :text="text(opening.at_in)"
        @inches="setPart('opening', opening.id, { at_in: $event })"
      />
      <MeasureField
        label="Width"
        :text="text(opening.width_in)"
        @inches="setPart('opening', opening.id, { width_in: $event })"
      />
      <MeasureField
        label="Sill over the floor"
        :text="text(opening.sill_in)"
        @inches="setPart('opening', opening.id, { sill_in: $event })"
      />
      <MeasureField
        label="Head over the floor"
        :text="text(opening.head_in)"
        @inches="setPart('opening', opening.id, { head_in: $event })"
      />
      <v-select
        v-if="opening.kind === 'door'"
        label="Hung on the"
        :model-value="opening.hinge"
        :items="['left', 'right']"
        @update:model-value="setPart('opening', opening.id, { hinge: $event })"
      />
      <v-select
        v-if="opening.kind === 'door'"
        label="Opens"
        :model-value="opening.swings_in"
        :items="[
          { title: 'into this room', value: true },
          { title: 'out of it', value: false },
        ]"
        @update:model-value="setPart('opening', opening.id, { swings_in: $event })"
      />
    </div>
    <v-btn size="small" variant="text" color="stop" @click="emit('remove')">Remove it</v-btn>
  </template>
  <template v-else-if="fixture">
    <header class="pick-head">
      <h2>{{ fixture.kind.replace('_', ' ') }}</h2>
      <span class="num mute">{{ text(fixture.width_in) }}</span>
    </header>
    <div class="pick-fields">
      <MeasureField
        label="From the left corner"
        :text="text(fixture.at_in)"
        @inches="setPart('fixture', fixture.id, { at_in: $event })"
      />
      <MeasureField
        label="Width"
        :text="text(fixture.width_in)"
        @inches="setPart('fixture', fixture.id, { width_in: $event })"
      />
      <MeasureField
        label="Into the room"
        :text="text(fixture.depth_in)"
        @inches="setPart('fixture', fixture.id, { depth_in: $event })"
      />
      <MeasureField
        label="Height"
        :text="text(fixture.height_in)"
        @inches="setPart('fixture', fixture.id, { height_in: $event })"
      />
    </div>
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
    <div class="pick-fields">
      <v-select
        label="Studs"
        :model-value="side.stud"
        :items="STUDS"
        @update:model-value="setSide({ stud: $event })"
      />
      <MeasureField
        label="Spacing, on centre"
        :text="inchText(side.spacing_in ?? 16, store.metric)"
        @inches="setSide({ spacing_in: $event })"
      />
      <v-select
        label="Finish on this side"
        :model-value="side.finish"
        :items="FINISHES"
        @update:model-value="setSide({ finish: $event })"
      />
      <v-select
        label="Insulation"
        :model-value="side.insulation"
        :items="['none', 'batts', 'foam']"
        @update:model-value="setSide({ insulation: $event })"
      />
      <v-checkbox
        label="Bearing"
        :model-value="side.bearing"
        @update:model-value="setSide({ bearing: $event })"
      />
    </div>
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
    <div class="pick-fields">
      <v-text-field
        label="Name"
        :model-value="room.name"
        @change="setRoom({ name: ($event.target as HTMLInputElement).value })"
      />
      <v-select
        label="Use"
        :model-value="room.use"
        :items="USES"
        @update:model-value="setRoom({ use: $event })"
      />
      <v-select
        label="For wiring it is"
        :model-value="room.moisture"
        :items="[
          { title: 'as usual for its use', value: null },
          { title: 'dry', value: 'dry' },
          { title: 'damp', value: 'damp' },
          { title: 'wet', value: 'wet' },
        ]"
        @update:model-value="setRoom({ moisture: $event })"
      />
      <v-select
        label="On the surface"
        :model-value="room.damage"
        :items="[
          { title: 'not said', value: null },
          { title: 'can be hit', value: true },
          { title: 'guarded', value: false },
        ]"
        @update:model-value="setRoom({ damage: $event })"
      />
    </div>
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
    <p v-if="level" class="mute num">
      {{ level.name }}: ceiling {{ text(level.height_in ?? 96) }}, joists
      {{ inchText(level.joist_depth_in ?? 9.25, store.metric) }} at
      {{ inchText(level.joist_spacing_in ?? 16, store.metric) }} running
      {{ level.joists === 'x' ? 'east and west' : 'north and south' }}
    </p>
    <v-btn size="small" variant="text" color="stop" @click="clear">Remove this room</v-btn>
  </template>
  <p v-else class="mute">Nothing is built on this level yet.</p>
</template>

<style scoped>
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
