<script setup lang="ts">
import { computed, onMounted, reactive, ref, watch } from 'vue'

import { api, ask, type Notable, type NoteOut, type Problem } from '../api/client'
import { useJob } from '../stores/job'
import { useNotice } from '../stores/notice'

/** What the authority here says, with who said it and when. A looser rule counts only where it is approved. */
const store = useJob()
const notice = useNotice()
const numbers = ref<Notable[]>([])
const status = ref<NoteOut[]>([])
const problem = ref<Problem | null>(null)
const file = ref<HTMLInputElement | null>(null)
const form = reactive({
  key: '',
  value: '',
  who: '',
  when: new Date().toISOString().slice(0, 10),
  why: '',
  approved: false,
})

const notes = computed(() => store.job?.notes ?? [])
const picked = computed(() => numbers.value.find((item) => item.key === form.key))
const byId = computed(() => new Map(status.value.map((item) => [item.id, item])))
const words = (key: string) => numbers.value.find((item) => item.key === key)?.text ?? key
const wrong = (key: string) =>
  problem.value?.key?.split('.').at(-1) === key ? problem.value.detail : undefined

async function load() {
  const [id, rules] = [store.view?.id, store.job?.rules]
  if (!id || !rules) return
  const got = await ask(api.GET('/api/rules/{rules}/notable', { params: { path: { rules } } }))
  if (got.data) numbers.value = got.data
  const now = await ask(api.GET('/api/jobs/{job_id}/notes/status', { params: { path: { job_id: id } } }))
  if (now.data) status.value = now.data
}
onMounted(load)
watch(() => store.view?.revision, load)

async function keep(list: unknown[], label: string) {
  problem.value = await store.edit([{ op: 'set_job', set: { notes: list } }], label)
  return !problem.value
}

async function add() {
  const id = `n${Date.now().toString(36)}`
  const note = { ...form, id, value: form.value.trim() === '' ? null : Number(form.value) }
  if (await keep([...notes.value, note], `local note: ${words(form.key).slice(0, 40)}`)) {
    form.value = ''
    form.why = ''
    form.approved = false
  }
}

async function bring(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  const got = await ask(api.POST('/api/notes/read', { body: { text: await chosen.text() } }))
  if (got.problem)
    return notice.tell(`${chosen.name}: ${got.problem.detail}. Nothing was brought in.`, 'stop')
  const known = new Set(got.data.map((note) => note.id))
  await keep(
    [...notes.value.filter((note) => !known.has(note.id)), ...got.data],
    `local notes of ${chosen.name}`,
  )
}
</script>

<template>
  <ul v-if="notes.length" data-testid="notes">
    <li v-for="note in notes" :key="note.id" :class="{ off: !byId.get(note.id)?.applied }">
      <div>
        <b class="num">{{ words(note.key) }}</b>
        <div class="num">
          {{ byId.get(note.id)?.was }} → {{ note.value }} {{ numbers.find((n) => n.key === note.key)?.unit }},
          {{ byId.get(note.id)?.way
          }}<template v-if="!byId.get(note.id)?.applied && byId.get(note.id)?.way === 'looser'">
            , not approved: the book is kept</template
          ><template v-else-if="note.approved">, approved</template>
        </div>
        <span class="mute"
          >{{ note.who }}{{ note.when ? `, ${note.when}` : '' }}{{ note.why ? `: ${note.why}` : '' }}</span
        >
      </div>
      <v-btn
        size="small"
        variant="text"
        @click="
          keep(
            notes.filter((n) => n.id !== note.id),
            'remove local note',
          )
        "
        >Remove</v-btn
      >
    </li>
  </ul>
  <p v-else class="mute">None yet. Ring the inspector: what pipe, what wire, what depth?</p>
  <form class="grid" data-testid="note-form" @submit.prevent="add">
    <v-autocomplete
      v-model="form.key"
      class="wide"
      label="What the authority says"
      :items="numbers"
      item-title="text"
      item-value="key"
      :error-messages="wrong('key')"
    />
    <v-text-field
      v-model="form.value"
      :label="picked ? `Value, ${picked.unit} (book: ${+picked.value.toFixed(3)})` : 'Value'"
      inputmode="decimal"
      :error-messages="wrong('value')"
    />
    <v-text-field v-model="form.who" label="Who said so" :error-messages="wrong('who')" />
    <v-text-field v-model="form.when" label="When" placeholder="2026-05-31" :error-messages="wrong('when')" />
    <v-text-field v-model="form.why" label="Why, or the words" :error-messages="wrong('why')" />
    <v-checkbox v-model="form.approved" label="Approved in writing (needed to loosen)" class="wide" />
    <v-btn type="submit" variant="flat" color="ink">Add note</v-btn>
  </form>
  <div class="files">
    <v-btn
      v-if="store.view"
      size="small"
      variant="text"
      :href="`/api/jobs/${store.view.id}/notes`"
      download="local-notes.toml"
      >Save notes as a file</v-btn
    >
    <v-btn size="small" variant="text" @click="file?.click()">Bring in a notes file…</v-btn>
    <input ref="file" type="file" accept=".toml" hidden data-testid="notes-file" @change="bring" />
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 12px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}
.off b {
  text-decoration: line-through;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 10px;
}
.wide {
  grid-column: span 2;
}
.files {
  margin-top: 10px;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr;
  }
  .wide {
    grid-column: auto;
  }
}
</style>
