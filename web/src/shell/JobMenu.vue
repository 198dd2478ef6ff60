<script setup lang="ts">
import { mdiMenuDown } from '@mdi/js'
import { defineAsyncComponent, onMounted, ref } from 'vue'

import { api, ask } from '../api/client'
import { focusWork } from '../stage/keys'
import { everShown, whenShown } from '../stage/whenShown'
import { useJob } from '../stores/job'
import { useLook } from '../stores/look'
import { useNotice } from '../stores/notice'
import { useRules } from '../stores/rules'
import { useBegin } from './begin'

/** Jobs: open, start from a structure, bring in a file, take one out. */
const store = useJob()
const rules = useRules()
const emit = defineEmits<{ keys: []; theme: []; pocket: [] }>()
const notice = useNotice()
const begin = useBegin()
const samples = ref<{ key: string; name: string }[]>([])
const file = ref<HTMLInputElement | null>(null)
const look = useLook()
const open = ref(false)
const renaming = look.dialogOpen('name')
const named = ref('')
const habits = look.dialogOpen('habits')
const removing = ref(false)
const HabitsDialog = defineAsyncComponent(() => import('./HabitsDialog.vue'))
const habitsUsed = everShown(() => habits.value)
const phones = look.dialogOpen('phones')
const PhonesDialog = defineAsyncComponent(() => import('./PhonesDialog.vue'))
const phonesUsed = everShown(() => phones.value)
const atLaptop = ['127.0.0.1', 'localhost', '[::1]'].includes(location.hostname)

onMounted(async () => {
  const { data } = await ask(api.GET('/api/jobs/samples'))
  if (data) samples.value = data
})

async function create(body: { sample?: string; name?: string }) {
  open.value = false
  await begin(body)
}

async function openJob(id: string) {
  open.value = false
  await store.open(id)
  focusWork()
}

async function bring(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  open.value = false
  if (!chosen) return
  if (chosen.name.endsWith('.txt')) return take(chosen.name, { text: await chosen.text() })
  let job: Record<string, unknown>
  try {
    job = JSON.parse(await chosen.text())
  } catch {
    return notice.tell(`${chosen.name} is not a whole JSON file; nothing was brought in.`, 'stop')
  }
  await take(chosen.name, { job })
}

async function take(name: string, body: { job?: Record<string, unknown>; text?: string }) {
  const problem = await store.create(body)
  if (problem) notice.tell(`${name}: ${problem.detail}. Nothing was brought in.`, 'stop')
  else notice.tell(`${store.job?.name} is here.`, 'fine')
}

const wrong = ref('')
whenShown(renaming, () => {
  named.value = store.job?.name ?? ''
  wrong.value = ''
})
async function rename() {
  const problem = await store.edit([{ op: 'set_job', set: { name: named.value } }], `call it ${named.value}`)
  wrong.value = problem?.detail ?? ''
  if (!problem) renaming.value = false
}

async function remove() {
  removing.value = false
  if (store.view) await store.remove(store.view.id)
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: on }">
      <v-btn
        v-bind="on"
        variant="text"
        size="small"
        :append-icon="mdiMenuDown"
        data-testid="job-menu"
        class="name"
      >
        <span class="clip">{{ store.job?.name ?? 'Jobs' }}</span>
      </v-btn>
    </template>
    <v-list density="compact" min-width="270" data-testid="job-list">
      <div class="narrow">
        <v-list-item
          v-if="store.view"
          title="Rule set and local notes…"
          :subtitle="store.view.rules_title"
          @click="((open = false), rules.open('set'))"
        />
        <v-list-item title="Pocket: single calculations…" @click="((open = false), emit('pocket'))" />
        <v-list-item title="Light or dark" @click="((open = false), emit('theme'))" />
        <v-list-item title="Keys…" @click="((open = false), emit('keys'))" />
        <v-divider />
      </div>
      <v-list-subheader v-if="store.jobs.length">Open</v-list-subheader>
      <v-list-item
        v-for="item in store.jobs"
        :key="item.id"
        :active="item.id === store.view?.id"
        :title="item.name"
        :subtitle="`${item.circuits} ${item.circuits === 1 ? 'circuit' : 'circuits'}`"
        @click="openJob(item.id)"
      />
      <v-list-subheader>Start new, from</v-list-subheader>
      <v-list-item
        v-for="item in samples"
        :key="item.key"
        :title="item.name"
        @click="create({ sample: item.key })"
      />
      <v-list-item title="Empty" @click="create({ name: 'New job' })" />
      <v-divider />
      <template v-if="store.view">
        <v-list-item title="Begin with a sentence…" @click="((open = false), look.go({}, 'start'))" />
        <v-list-item title="Rename…" @click="((open = false), (renaming = true))" />
        <v-list-item title="Shop habits…" @click="((open = false), (habits = true))" />
        <v-list-item
          title="Save as a file"
          subtitle="JSON, its schema is published"
          :href="`/api/jobs/${store.view.id}/export`"
          :download="`${store.job?.name}.levelrun.json`"
        />
        <v-list-item
          title="Save as text"
          subtitle="one part a line, to mail and compare"
          :href="`/api/jobs/${store.view.id}/export?as=text`"
          :download="`${store.job?.name}.levelrun.txt`"
        />
      </template>
      <v-list-item
        v-if="atLaptop"
        title="Phones…"
        subtitle="let a phone in, on this network"
        @click="((open = false), (phones = true))"
      />
      <v-list-item
        title="Back up all jobs"
        subtitle="one data file, whole"
        href="/api/backup"
        download="levelrun-backup.sqlite3"
        data-testid="backup"
      />
      <v-list-item title="Bring in a file…" @click="file?.click()" />
      <v-list-item v-if="store.view" title="Remove this job…" @click="((open = false), (removing = true))" />
    </v-list>
  </v-menu>
  <input
    ref="file"
    type="file"
    accept=".json,.txt,application/json,text/plain"
    hidden
    data-testid="job-file"
    @change="bring"
  />
  <v-dialog v-model="renaming" aria-label="Name of the job" max-width="420">
    <v-card class="pa-5">
      <form @submit.prevent="rename">
        <v-text-field
          v-model="named"
          label="Name of the job"
          autofocus
          @focus="($event.target as HTMLInputElement).select()"
          autocomplete="off"
          variant="outlined"
          :error-messages="wrong"
        />
        <div class="d-flex ga-2 justify-end">
          <v-btn variant="text" @click="renaming = false">Leave it</v-btn>
          <v-btn type="submit" variant="flat" color="ink">Call it so</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
  <HabitsDialog v-if="habitsUsed" v-model="habits" />
  <PhonesDialog v-if="phonesUsed" v-model="phones" />
  <v-dialog v-model="removing" aria-label="Remove this job" max-width="420">
    <v-card class="pa-5">
      <h2>Remove {{ store.job?.name }}?</h2>
      <p>This cannot be undone. Save it as a file first if it may be wanted.</p>
      <div class="d-flex ga-2 justify-end">
        <v-btn variant="text" @click="removing = false">Keep it</v-btn>
        <v-btn variant="flat" color="stop" @click="remove">Remove</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
/* Gives way where its name is long, so that nothing of the header hangs over its side. */
.name {
  flex: 0 1 auto;
  min-width: 0;
  color: #d9dad3;
}
.name :deep(.v-btn__content) {
  min-width: 0;
}
/* What the header has no room for on a phone. */
.narrow {
  display: none;
}
@media (max-width: 700px) {
  .narrow {
    display: block;
  }
}
.clip {
  max-width: 190px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
