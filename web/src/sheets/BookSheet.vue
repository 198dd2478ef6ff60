<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api, ask, type Book, type XRay } from '../api/client'
import { laid, xScale } from '../stages/rough_in/record'
import XRayDrawing from '../stages/rough_in/XRayDrawing.vue'
import { useJob } from '../stores/job'
import { useSheet } from './useSheet'

/** The handover book of a building or a room: directory, walls, photos, readings, what may come later. */
const store = useJob()
const of = ref('')
const { data, loaded, print, load } = useSheet<Book | null>(async (id) => {
  const [kind, which] = of.value.split(':')
  const query = which ? { [kind as 'room']: which } : {}
  const found = await ask(api.GET('/api/jobs/{job_id}/book', { params: { path: { job_id: id }, query } }))
  return { data: found.data as Book | undefined }
}, null)
const choices = computed(() => {
  const job = store.job
  if (!job) return []
  return job.structures.flatMap((item) => {
    const levels = new Set((item.levels ?? []).map((level) => level.id))
    const rooms = job.rooms.filter((room) => levels.has(room.level))
    return [
      { title: item.name, value: `structure:${item.id}` },
      ...rooms.map((room) => ({ title: `${item.name}, ${room.name}`, value: `room:${room.id}` })),
    ]
  })
})
watch(of, () => void load())
watch(
  () => choices.value[0]?.value,
  (first) => (of.value ||= first ?? ''),
  { immediate: true },
)
const drawn = (shown: XRay) => {
  const scale = xScale(shown, 660, 330)
  return { scale, cables: laid(shown, scale) }
}
</script>

<template>
  <div class="sheet-page" data-testid="book-sheet">
    <p class="sheet-bar no-print">
      <router-link :to="`/jobs/${store.view?.id}/rough_in`">Back to Rough-in</router-link>
      <span class="gap" />
      <label class="num"
        >Of
        <select v-model="of" data-testid="book-of">
          <option v-for="item in choices" :key="item.value" :value="item.value">{{ item.title }}</option>
        </select>
      </label>
      <v-btn size="small" variant="flat" color="ink" @click="print">Print</v-btn>
    </p>
    <template v-if="data">
      <h1 class="num">{{ data.title }}</h1>
      <h2>What is behind the walls: {{ data.of }}</h2>
      <p class="caution">{{ data.caution }}</p>
      <section v-if="data.open.length" class="open">
        <h3>Not done when this was printed</h3>
        <p class="num">{{ data.open.join(' · ') }}</p>
      </section>
      <section>
        <h3>Directory</h3>
        <table class="num">
          <tbody>
            <tr v-for="row in data.directory" :key="row.panel + row.label + row.name">
              <td>{{ row.panel }}</td>
              <td>
                <b>{{ row.label }}</b>
              </td>
              <td>{{ row.name }}</td>
              <td>{{ row.breaker }}</td>
              <td class="mute">{{ row.dark }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-for="page in data.pages" :key="page.title" class="page">
        <h3>
          {{ page.title }} <span class="mute">{{ page.closed }}</span>
        </h3>
        <svg
          :viewBox="`0 0 ${drawn(page.xray).scale.width} ${drawn(page.xray).scale.height}`"
          role="img"
          :aria-label="page.xray.title"
          class="num"
        >
          <XRayDrawing
            :shown="page.xray"
            :scale="drawn(page.xray).scale"
            :cables="drawn(page.xray).cables"
            :node="null"
            :spot="null"
            :metric="store.metric"
            :drag="null"
          />
        </svg>
        <div class="lines">
          <table class="num">
            <tbody>
              <tr v-for="row in page.readings" :key="row.name">
                <td>
                  <b>{{ row.name }}</b>
                </td>
                <td>{{ row.text }}</td>
              </tr>
              <tr v-for="row in page.otherwise" :key="row.name + row.text">
                <td>
                  <b>{{ row.name }}</b>
                </td>
                <td>{{ row.text }}</td>
              </tr>
            </tbody>
          </table>
          <figure v-for="p in page.photos" :key="p.id">
            <img :src="`/api/jobs/${store.view?.id}/photos/${p.id}/large.jpg`" :alt="p.text" loading="lazy" />
            <figcaption class="num">{{ p.text }}</figcaption>
          </figure>
        </div>
      </section>
      <section v-if="data.loose.length">
        <h3>In no drawn room</h3>
        <p v-for="row in data.loose" :key="row.name" class="num">
          <b>{{ row.name }}</b> {{ row.text }}
        </p>
      </section>
      <section v-if="data.outside.length">
        <h3>In the ground</h3>
        <p v-for="row in data.outside" :key="row.name" class="num">
          <b>{{ row.name }}</b> {{ row.text }}
        </p>
      </section>
      <section>
        <h3>What may be added later</h3>
        <p v-for="row in data.later" :key="row.name" class="num">
          <b>{{ row.name }}</b> {{ row.text }}
        </p>
      </section>
      <section v-if="data.seen.length">
        <h3>Inspections</h3>
        <p v-for="row in data.seen" :key="row.name + row.text" class="num">
          <b>{{ row.name }}</b> {{ row.text }}
        </p>
      </section>
    </template>
    <p v-else-if="loaded" class="mute">Nothing to hand over yet: draw a room, or wire a circuit.</p>
  </div>
</template>

<style scoped>
h1 {
  margin: 6px 0 0;
  font-size: 26px;
}
section {
  margin-top: 16px;
}
.caution {
  border-left: 5px solid var(--check-mark);
  background: var(--check-wash);
  padding: 8px 12px;
  max-width: 90ch;
}
.open {
  border-left: 5px solid var(--stop);
  background: var(--stop-wash);
  padding: 6px 12px;
}
.page {
  break-inside: avoid;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.page svg {
  display: block;
  width: 100%;
  max-width: 720px;
  background: var(--card);
}
td {
  border-top: 1px solid var(--rule);
  padding: 2px 12px 2px 0;
  vertical-align: top;
}
p {
  margin: 3px 0;
}
.lines {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: flex-start;
}
figure {
  margin: 6px 0 0;
}
img {
  display: block;
  max-height: 260px;
  max-width: 100%;
}
select {
  min-height: 32px;
  border: 1px solid var(--rule);
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
</style>
