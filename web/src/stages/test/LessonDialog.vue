<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask, type Answered, type Lesson, type LessonQuestion } from '../../api/client'
import { whenShown } from '../../stage/whenShown'

/** Lessons before the meter, in the order of the work: a question, its answer with the reason, a score. */
const shown = defineModel<boolean>({ required: true })
defineProps<{ lessons: Lesson[] }>()
const key = ref('')
const seed = ref(1)
const questions = ref<LessonQuestion[]>([])
const at = ref(0)
const told = ref<Answered | null>(null)
const chosen = ref(-1)
const right = ref(0)
const wrong = ref('')
whenShown(shown, () => (key.value = ''))
async function begin(which: string) {
  seed.value = Math.floor(Math.random() * 100_000)
  const params = { path: { key: which }, query: { seed: seed.value } }
  const { data, problem } = await ask(api.GET('/api/lessons/{key}', { params }))
  wrong.value = problem?.detail ?? ''
  if (!data) return
  key.value = which
  questions.value = data
  at.value = right.value = 0
  told.value = null
  chosen.value = -1
}
async function choose(choice: number) {
  if (told.value) return
  const params = { path: { key: key.value, number: at.value }, query: { choice, seed: seed.value } }
  const { data, problem } = await ask(api.POST('/api/lessons/{key}/{number}', { params }))
  wrong.value = problem?.detail ?? ''
  if (!data) return
  told.value = data
  chosen.value = choice
  right.value += data.right ? 1 : 0
}
function next() {
  at.value++
  told.value = null
  chosen.value = -1
}
const now = computed(() => questions.value[at.value])
const ended = computed(() => !!key.value && at.value >= questions.value.length)
</script>

<template>
  <v-dialog v-model="shown" aria-label="Lessons" max-width="620">
    <v-card class="pa-5" data-testid="lessons">
      <h2>Lessons, in the order of the work</h2>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <ul v-if="!key" class="list num">
        <li v-for="lesson in lessons" :key="lesson.key">
          <button type="button" class="plain" :data-lesson="lesson.key" @click="begin(lesson.key)">
            <b>{{ lesson.title }}</b> <span class="mute">{{ lesson.about }}</span>
          </button>
        </li>
      </ul>
      <template v-else-if="now">
        <p class="mute num">{{ at + 1 }} of {{ questions.length }}</p>
        <p class="asked">{{ now.text }}</p>
        <ul class="list num">
          <li v-for="(choice, i) in now.choices" :key="choice">
            <button
              type="button"
              class="plain"
              :class="{ right: told && told.choice === i, bad: told && !told.right && chosen === i }"
              :disabled="!!told"
              data-choice
              @click="choose(i)"
            >
              {{ choice }}
            </button>
          </li>
        </ul>
        <p v-if="told" class="why" data-testid="why-answer">
          <b>{{ told.right ? 'Right.' : 'No.' }}</b> {{ told.why }}
        </p>
      </template>
      <p v-else-if="ended" class="asked num" data-testid="lesson-score">
        {{ right }} of {{ questions.length }} right.
      </p>
      <div class="d-flex ga-2 justify-end">
        <v-btn v-if="key" variant="text" @click="key = ''">All lessons</v-btn>
        <v-btn v-if="told" variant="flat" color="ink" data-testid="next-question" @click="next">Next</v-btn>
        <v-btn v-else variant="outlined" @click="shown = false">Done</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.asked {
  font-size: 18px;
  margin: 6px 0 10px;
}
.list {
  list-style: none;
  margin: 6px 0 12px;
  padding: 0;
}
.list button {
  width: 100%;
  min-height: 44px;
  padding: 6px 10px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  margin-bottom: 6px;
  text-align: left;
  font-size: 16px;
}
.list .right {
  border: 2px solid var(--fine);
  background: var(--note-wash);
}
.list .bad {
  border: 2px solid var(--stop);
}
.why {
  border-left: 5px solid var(--chalk);
  background: var(--note-wash);
  padding: 7px 12px;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
</style>
