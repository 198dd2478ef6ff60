<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { Behind, Edit, SurfaceRow } from '../../api/client'
import { today } from './record'

/** The verdict of the wall looked at: what it waits for before it is closed; what is behind the spot asked for. */
const props = defineProps<{
  wall: SurfaceRow
  behind: Behind | null
  act: (edits: Edit[], label?: string) => Promise<unknown>
}>()
const emit = defineEmits<{ node: [id: string]; photo: []; forget: [] }>()

const asking = ref(false)
const why = ref('')
const wrong = ref('')
const field = ref<HTMLInputElement | null>(null)
watch(
  () => `${props.wall.room}.${props.wall.surface}`,
  () => {
    asking.value = false
    wrong.value = why.value = ''
  },
)
const first = computed(() => props.wall.waits.find((wait) => wait.kind === 'box'))
const bare = computed(() => props.wall.waits.some((wait) => wait.kind === 'photo'))
const what = computed(() => (/^\d/.test(props.wall.surface) ? 'wall' : props.wall.surface))
async function close() {
  if (props.wall.waits.length && !asking.value) {
    asking.value = true
    await nextTick()
    field.value?.focus()
    return
  }
  const spot = { room: props.wall.room, surface: props.wall.surface }
  const problem = (await props.act(
    [{ op: 'close_wall', ...spot, on: today(), why: why.value.trim() }],
    `close the ${what.value}`,
  )) as { detail: string } | null
  wrong.value = problem?.detail ?? ''
  if (!problem) asking.value = false
}
const open = () =>
  props.act(
    [{ op: 'open_wall', room: props.wall.room, surface: props.wall.surface }],
    `open the ${what.value}`,
  )
defineExpose({ close })
</script>

<template>
  <article v-if="behind" class="card" :class="behind.verdict" data-testid="behind">
    <div class="head num">
      <b>{{ behind.text }}</b>
    </div>
    <p class="num">{{ behind.readings }}</p>
    <ul class="num">
      <li v-for="item in behind.near.slice(0, 5)" :key="item.kind + item.name + item.text">
        <b>{{ item.name }}</b> {{ item.text }}
      </li>
    </ul>
    <p class="mute">As it was recorded. Open a small hole and look before you cut.</p>
    <v-btn size="small" variant="text" class="no-print" @click="emit('forget')">Done</v-btn>
  </article>
  <article
    class="card"
    :class="wall.closed ? (wall.waits.length ? 'stop' : 'fine') : wall.waits.length ? 'stop' : 'fine'"
    data-testid="wall-verdict"
  >
    <div class="head num">
      <b v-if="wall.closed">{{ wall.waits.length ? `Closed too early` : `This ${what} is closed` }}</b>
      <b v-else>{{
        wall.waits.length ? `Do not close this ${what} yet` : `Nothing waits: this ${what} may be closed`
      }}</b>
    </div>
    <p v-if="wall.closed" class="num">
      {{ [wall.closed_on, wall.why].filter(Boolean).join(': ') || 'no day was said' }}
    </p>
    <p v-for="wait in wall.waits.slice(0, 6)" :key="wait.text" class="wait num">{{ wait.text }}</p>
    <p v-if="wall.waits.length > 6" class="mute">and {{ wall.waits.length - 6 }} more</p>
    <p v-if="!wall.closed && !wall.waits.length" class="mute">
      The inspection says so, not this page: its hold is lifted by whoever saw it.
    </p>
    <form v-if="asking" class="num" @submit.prevent="close">
      <label
        >Closed all the same, because
        <input ref="field" v-model="why" maxlength="200" data-testid="why" />
      </label>
    </form>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <div class="buttons no-print">
      <v-btn v-if="first" size="small" variant="flat" color="ink" @click="emit('node', first.node)"
        >Make up {{ first.text.split(' is ')[0] }}</v-btn
      >
      <v-btn size="small" :variant="bare && !first ? 'flat' : 'outlined'" color="ink" @click="emit('photo')"
        >Add a photo</v-btn
      >
      <v-btn
        v-if="!wall.closed"
        size="small"
        :variant="wall.waits.length ? 'outlined' : 'flat'"
        color="ink"
        data-testid="close-wall"
        :disabled="asking && !why.trim()"
        @click="close"
        >{{ asking ? 'Close it' : `Close this ${what}` }}</v-btn
      >
      <v-btn
        v-else
        size="small"
        variant="outlined"
        :data-first="wall.waits.length ? '' : undefined"
        @click="open"
        >Take it open again</v-btn
      >
    </div>
  </article>
</template>

<style scoped>
.card {
  border-left: 5px solid var(--fine);
  background: var(--note-wash);
  padding: 8px 10px 9px;
  margin: 0 0 8px;
  font-size: 15px;
}
.card.stop {
  border-color: var(--stop);
  background: var(--stop-wash);
}
.card.check {
  border-color: var(--check-mark);
  background: var(--check-wash);
}
.head {
  font-size: 16px;
}
.head b {
  font-weight: 600;
}
p {
  margin: 2px 0 0;
}
ul {
  margin: 4px 0;
  padding-left: 16px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 7px;
}
label {
  display: block;
  margin-top: 6px;
}
label input {
  display: block;
  width: 100%;
  min-height: 36px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  padding: 4px 8px;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
</style>
