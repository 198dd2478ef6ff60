import { createStore, delMany, entries, setMany } from 'idb-keyval'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import { AWAY, type Edit, type Problem } from '../api/client'
import { sendPhoto } from '../api/upload'
import { ELSEWHERE, stepId, useJob } from './job'
import { useNotice } from './notice'

/** What waits to be sent: ticks as edits, or a photo with where it is pinned. Its id makes that it is kept once. */
export interface Waiting {
  id: string
  job: string
  at: number
  label: string
  edits?: Edit[]
  photo?: { blob: Blob; pin: Record<string, string> }
  /** Why the server does not take it. */
  refused?: string
}

const RETRY_MS = 2500

/** Keeps in IndexedDB where there is one; where there is none, what waits lives as long as the page. */
function drawer() {
  try {
    return createStore('levelrun', 'outbox')
  } catch {
    return null
  }
}

/**
 * Ticks and photos, written down before they are sent: while the signal is gone they wait here, also over a reload of
 * the page, and each is made once.
 */
export const useOutbox = defineStore('outbox', () => {
  const store = useJob()
  const notice = useNotice()
  const kept = drawer()
  const items = shallowRef<Waiting[]>([])
  const progress = ref<Record<string, number>>({})
  const sending = ref(false)
  const taking = ref(0)
  let timer = 0

  const waiting = computed(() => items.value.filter((item) => !item.refused))
  /** Whether something is written down or on its way just now. */
  const busy = computed(() => taking.value > 0 || sending.value)
  const mine = computed(() => items.value.filter((item) => item.job === store.view?.id))

  async function load() {
    if (!kept) return
    try {
      const found = (await entries<string, Waiting>(kept)).map(([, item]) => item)
      const known = new Set(items.value.map((item) => item.id))
      items.value = [...items.value, ...found.filter((item) => !known.has(item.id))].sort(
        (a, b) => a.at - b.at,
      )
    } catch {
      // forbidden or full: what is in memory is still sent
    }
    void drain()
  }

  async function write(item: Waiting) {
    items.value = [...items.value.filter((one) => one.id !== item.id), item].sort((a, b) => a.at - b.at)
    try {
      if (kept) await setMany([[item.id, item]], kept)
    } catch {
      notice.tell('This phone keeps nothing: do not close the page before it is sent.', 'check')
    }
  }
  async function forget(id: string) {
    items.value = items.value.filter((one) => one.id !== id)
    try {
      if (kept) await delMany([id], kept)
    } catch {
      // it is told once more, and the server knows its id
    }
  }

  let last = 0
  /** A moment that is after every other one of this page. */
  const now = () => (last = Math.max(Date.now(), last + 1))

  /** Written down, then sent. */
  async function put(label: string, what: Pick<Waiting, 'edits' | 'photo'>) {
    if (!store.view) return
    taking.value++
    await write({ id: stepId(), job: store.view.id, at: now(), label, ...what })
    taking.value--
    await drain()
  }
  const tick = (edits: Edit[], label: string) => put(label, { edits })
  const photo = (blob: Blob, pin: Record<string, string>, label: string) =>
    put(label, { photo: { blob, pin } })

  async function send(item: Waiting): Promise<Problem | null> {
    if (item.edits) return store.attempt(item.job, item.id, item.edits, item.label)
    if (!item.photo) return null
    const query = new URLSearchParams({ ...item.photo.pin, id: item.id })
    const url = `/api/jobs/${item.job}/photos?${query}`
    const { problem } = await store.ours.beside(
      item.job,
      sendPhoto(url, item.photo.blob, (share) => {
        progress.value = { ...progress.value, [item.id]: share }
      }),
    )
    progress.value = Object.fromEntries(Object.entries(progress.value).filter(([id]) => id !== item.id))
    if (!problem && item.job === store.view?.id) await store.reload()
    return problem ?? null
  }

  /** Sends what waits, one after another, until the signal is gone. */
  async function drain() {
    clearTimeout(timer)
    if (sending.value) return
    sending.value = true
    let away = false
    for (let next = todo(); next && !away; next = todo()) {
      const problem = await send(next)
      if (problem?.status === AWAY.status) away = true
      else if (problem?.status === ELSEWHERE.status) skipped.add(next.id)
      else if (!problem) await forget(next.id)
      else {
        await write({ ...next, refused: problem.detail })
        notice.tell(`${next.label}: ${problem.detail}`, 'stop')
      }
    }
    skipped.clear()
    sending.value = false
    if (away) timer = window.setTimeout(() => void drain(), RETRY_MS)
  }
  const skipped = new Set<string>()
  const todo = () => waiting.value.find((item) => !skipped.has(item.id))

  /** Whether a tick of this step waits; true or false as it will be, undefined where none does. */
  function willBe(node: string, step: string): boolean | undefined {
    let found: boolean | undefined
    for (const item of mine.value)
      for (const edit of item.refused ? [] : (item.edits ?? []))
        if (edit.op === 'do_card' && edit.node === node && (edit.steps as string[]).includes(step))
          found = edit.done !== false
    return found
  }

  window.addEventListener('online', () => void drain())
  watch(
    () => store.view?.id,
    () => void drain(),
  )
  return { items, mine, waiting, busy, progress, load, tick, photo, drain, forget, willBe }
})
