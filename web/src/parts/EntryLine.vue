<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { Problem } from '../api/client'
import { isText, isTexts, keep, kept } from '../stores/keep'

/**
 * The line where work is typed as it is said. The owner reads and completes the text; the line keeps
 * history, shows what may stand next, and points at the very character that could not be read.
 */
const props = defineProps<{
  verb: string
  placeholder: string
  buttons: string[]
  action: string
  suggest: (text: string) => Promise<{ at: number; options: string[] }>
  submit: (text: string) => Promise<Problem | null>
  /** What its history goes by, where the verb changes under the hand. */
  called?: string
}>()

/** One history and one unsent line a stage, whatever the line says of where it writes. */
const name = props.called ?? props.verb.split(',')[0] ?? props.verb
const text = ref(kept(`line-${name}`, isText, 'session') ?? '')
watch(text, (now) => keep(`line-${name}`, now, 'session'))
const problem = ref<Problem | null>(null)
const options = ref<string[]>([])
const from = ref(0)
const marked = ref(-1)
const input = ref<HTMLInputElement | null>(null)
const history = ref<string[]>(kept(`said-${name}`, isTexts) ?? [])
let back = -1

/** A sentence that begins with its own verb is not also begun by the line's. */
const begun = computed(() => {
  const first = text.value.trimStart().split(/\s/)[0]?.toLowerCase()
  return [props.verb, ...props.buttons].some((word) => word.split(/[\s,]/)[0]?.toLowerCase() === first)
})
const caret = computed(() => (problem.value?.at === undefined ? -1 : problem.value.at))
const shown = computed(() => options.value.slice(0, 9))

/**
 * Words that are still on their way: what Tab takes is waited for. One question at a time: what is typed while one is
 * on its way is asked about once it is back, however many keys that were.
 */
let ready = true
let wanted = false
let asking = false
let coming: Promise<void> = Promise.resolve()
function complete() {
  wanted = true
  ready = false
  if (!asking) coming = asked()
  return coming
}
async function asked() {
  asking = true
  try {
    while (wanted) {
      wanted = false
      const found = await props.suggest(text.value)
      if (wanted || ready) continue
      ready = true
      options.value = found.options.filter((o) => !text.value.slice(found.at).trim().startsWith(o))
      from.value = found.at
      marked.value = -1
    }
  } finally {
    asking = false
  }
}
/** No words are wanted any more, those on their way neither. */
function drop() {
  wanted = false
  ready = true
  options.value = []
}

function typed() {
  problem.value = null
  void complete()
}

function put(word: string, at = from.value) {
  const head = text.value.slice(0, at)
  const gap = head && !/\s$/.test(head) ? ' ' : ''
  text.value = `${head}${gap}${word} `
  typed()
  void nextTick(() => input.value?.focus())
}

async function enterNow() {
  const picked = shown.value[marked.value]
  if (picked) return put(picked)
  const line = text.value.trim()
  if (!line) return
  const whole = text.value
  const refused = await props.submit(line)
  if (refused) {
    problem.value = refused
    const at = refused.at
    if (at !== undefined) void nextTick(() => input.value?.setSelectionRange(at, text.value.length))
    return
  }
  history.value = [line, ...history.value.filter((old) => old !== line)].slice(0, 50)
  keep(`said-${name}`, history.value)
  back = -1
  // What was typed behind it while it was on its way is the next sentence.
  if (text.value.startsWith(whole)) text.value = text.value.slice(whole.length)
  drop()
  problem.value = null
}
/** One sentence after another: what is entered while one is on its way waits for its answer. */
let going: Promise<void> = Promise.resolve()
function enter() {
  going = going.then(enterNow, enterNow)
  return going
}

/** A way pasted as text has a leg a line; the line here parts them with semicolons. */
function paste(event: ClipboardEvent) {
  const said = event.clipboardData?.getData('text') ?? ''
  if (!said.trim().includes('\n')) return
  event.preventDefault()
  const [at, to] = [input.value?.selectionStart ?? 0, input.value?.selectionEnd ?? 0]
  const joined = said
    .trim()
    .split(/\s*\n+\s*/)
    .join('; ')
  text.value = text.value.slice(0, at) + joined + text.value.slice(to)
  typed()
}

function arrow(event: KeyboardEvent, step: number) {
  event.preventDefault()
  if (!text.value || back >= 0) {
    back = Math.min(Math.max(back - step, -1), history.value.length - 1)
    text.value = back < 0 ? '' : (history.value[back] ?? '')
    problem.value = null
    return
  }
  marked.value = Math.min(Math.max(marked.value + step, -1), shown.value.length - 1)
}

/** Takes the marked word, or the first; an empty line lets Tab go on. What was typed meanwhile is left alone. */
async function tab(event: KeyboardEvent) {
  if (!text.value || event.shiftKey || (ready && !offers())) return
  event.preventDefault()
  const had = text.value
  await coming
  const word = offers()
  if (word && text.value === had) put(word)
}
function offers() {
  const word = shown.value[Math.max(marked.value, 0)]
  return word && !/[0-9]'/.test(word) ? word : ''
}

/** The key that leads here from the work, pressed once more: nothing begins with it. */
function slash(event: KeyboardEvent) {
  if (event.key === '/' && !text.value) event.preventDefault()
}

function leave() {
  drop()
  input.value?.blur()
}

/** Begins a sentence. An example behind it is selected: typing puts something else in its place. */
function start(words: string, example = '') {
  text.value = words + example
  typed()
  void nextTick(() => {
    input.value?.focus()
    if (example) input.value?.setSelectionRange(words.length, text.value.length)
  })
}

defineExpose({ focus: () => input.value?.focus(), start })
</script>

<template>
  <div class="line no-print">
    <div v-if="problem" :id="`wrong-${name}`" class="wrong num" role="alert" data-testid="entry-error">
      <pre
        v-if="caret >= 0"
        aria-hidden="true"
      ><span>{{ text.slice(0, caret) }}</span><mark>{{ text.slice(caret) || '␣' }}</mark></pre>
      <span>{{ problem.detail }}</span>
    </div>
    <div
      v-if="shown.length"
      :id="`words-${name}`"
      class="options"
      role="listbox"
      :aria-label="`words for ${verb}`"
    >
      <button
        v-for="(word, i) in shown"
        :id="`word-${name}-${i}`"
        :key="word"
        type="button"
        tabindex="-1"
        class="plain key"
        role="option"
        :aria-selected="i === marked"
        :class="{ marked: i === marked }"
        @mousedown.prevent="put(word)"
      >
        {{ word }}
      </button>
    </div>
    <form class="box" @submit.prevent="enter">
      <label class="num verb" :class="{ unseen: begun }" :for="`entry-${verb}`">{{ verb }}</label>
      <input
        :id="`entry-${verb}`"
        ref="input"
        v-model="text"
        class="num"
        :placeholder="placeholder"
        role="combobox"
        aria-autocomplete="list"
        :aria-expanded="shown.length > 0"
        :aria-controls="shown.length ? `words-${name}` : undefined"
        :aria-activedescendant="marked >= 0 && shown.length ? `word-${name}-${marked}` : undefined"
        :aria-invalid="!!problem"
        :aria-describedby="problem ? `wrong-${name}` : undefined"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        @input="typed"
        @paste="paste"
        @focus="complete"
        @blur="drop"
        @keydown.up="arrow($event, -1)"
        @keydown.down="arrow($event, 1)"
        @keydown="slash"
        @keydown.tab="tab"
        @keydown.esc="leave"
      />
      <span class="thumbs">
        <button
          v-for="word in buttons"
          :key="word"
          type="button"
          class="plain key"
          @mousedown.prevent="put(word, text.length)"
        >
          {{ word }}
        </button>
        <button type="submit" class="plain key go">⏎ {{ action }}</button>
      </span>
    </form>
  </div>
</template>

<style scoped>
.line {
  position: relative;
  container-type: inline-size;
}
.box {
  display: flex;
  align-items: center;
  gap: 10px;
  background: var(--card);
  border: 1.5px solid var(--ink);
  border-radius: 5px;
  padding: 5px 10px;
}
.box:focus-within {
  border-color: var(--chalk);
  box-shadow: 0 0 0 1px var(--chalk);
}
.verb {
  color: var(--chalk);
  font-weight: 600;
  font-size: 17px;
}
input {
  flex: 1 1 200px;
  min-width: 0;
  border: 0;
  outline: 0;
  background: transparent;
  color: var(--ink);
  font-size: 17px;
  padding: 3px 0;
}
input::placeholder {
  color: var(--mute);
}
.thumbs {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  justify-content: flex-end;
}
.options {
  position: absolute;
  bottom: 100%;
  left: 0;
  right: 0;
  z-index: 3;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 7px 2px;
  background: var(--paper);
  pointer-events: none;
}
.options .key {
  pointer-events: auto;
}
.marked {
  background: var(--chalk);
  color: var(--card);
}
.go {
  border-color: var(--ink);
}
.wrong {
  color: var(--stop);
  font-size: 15px;
  padding: 0 4px 7px;
}
pre {
  margin: 0;
  font: inherit;
  color: var(--ink);
  white-space: pre-wrap;
}
mark {
  background: var(--stop-wash);
  color: var(--stop);
  border-bottom: 2px solid var(--stop);
}
/* On a phone, and between two columns on a tablet. */
@container (max-width: 600px) {
  .box {
    flex-wrap: wrap;
  }
  .thumbs {
    width: 100%;
    justify-content: flex-start;
  }
}
@media (max-width: 700px) {
  .key {
    padding: 9px 11px;
    font-size: 15px;
  }
}
</style>
