import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { LocationQuery, RouteLocationNormalized, Router } from 'vue-router'

import type { StageKey } from '../api/client'
import { isStage, type SheetKey } from '../stage/stages'

/** What is picked on a drawing: a box, panel, opening or fixture by id, or a wall of the room looked at. */
export interface Picked {
  kind: 'box' | 'panel' | 'opening' | 'fixture' | 'wall'
  id: string
  side?: number
}

/** Where one looks, by id, as it stands in the address. */
export interface At {
  room?: string
  level?: string
  panel?: string
  circuit?: string
  way?: string
  pull?: string
  leg?: string
  line?: string
  item?: string
  wall?: string
  node?: string
  pick?: string
  dialog?: string
}

const KEYS = [
  'room',
  'level',
  'panel',
  'circuit',
  'way',
  'pull',
  'leg',
  'line',
  'item',
  'wall',
  'node',
  'pick',
  'dialog',
] as const
const QUIET = new Set<string>(['leg', 'pick'])
const KINDS = ['box', 'panel', 'opening', 'fixture', 'wall']

/** What an address says; words that are not ours are left out. */
export function readAt(query: LocationQuery): At {
  const at: At = {}
  for (const key of KEYS) {
    const value = query[key]
    const known = key === 'item' ? /^[^\p{C}]{1,60}$/u : /^[\w.-]{1,60}$/
    if (typeof value === 'string' && known.test(value)) at[key] = value
  }
  return at
}

export function readPicked(text: string | undefined): Picked | null {
  const [kind, id, side] = text?.split('.') ?? []
  if (!kind || !id || !KINDS.includes(kind)) return null
  return { kind: kind as Picked['kind'], id, ...(side === undefined ? {} : { side: Number(side) || 0 }) }
}

export const writePicked = (what: Picked | null) =>
  what ? [what.kind, what.id, ...(what.side === undefined ? [] : [what.side])].join('.') : undefined

const same = (a: At, b: At) => KEYS.every((key) => a[key] === b[key])

/** Where one looks. The address says the same: Back and reload keep the look, and it can be sent to somebody. */
export const useLook = defineStore('look', () => {
  const jobId = ref<string | null>(null)
  const stage = ref<StageKey>('walls')
  const sheet = ref<SheetKey | null>(null)
  const at = shallowRef<At>({})
  /** The address is none of ours. */
  const lost = ref(false)
  /** On the way to another address: its part of the program is still being fetched. */
  const moving = ref(false)
  let going = ''
  let router: Router | null = null

  const picked = computed(() => readPicked(at.value.pick))
  const leg = computed(() => (at.value.leg === undefined ? null : Number(at.value.leg) - 1))
  const dialog = computed(() => at.value.dialog ?? null)

  const address = () => ({
    path: sheet.value ? `/jobs/${jobId.value}/sheets/${sheet.value}` : `/jobs/${jobId.value}/${stage.value}`,
    query: Object.fromEntries(Object.entries(at.value).filter(([, value]) => value !== undefined)) as Record<
      string,
      string
    >,
  })

  function read(to: RouteLocationNormalized) {
    lost.value = to.meta.lost === true
    jobId.value = typeof to.params.job === 'string' ? to.params.job : null
    if (typeof to.params.stage === 'string' && isStage(to.params.stage)) stage.value = to.params.stage
    sheet.value = (to.meta.sheet as SheetKey | undefined) ?? null
    const next = readAt(to.query)
    if (!same(next, at.value)) at.value = next
  }

  /** Follows the address from now on; not one that a newer look has overtaken on its way. */
  function follow(with_: Router) {
    router = with_
    router.beforeEach((to) => {
      going = to.fullPath
      moving.value = true
    })
    router.afterEach((to, _, failure) => {
      if (to.fullPath === going) moving.value = false
      if (!failure) read(to)
    })
  }

  /** Looks elsewhere: `next` over what is looked at now; a key that is undefined is looked at no longer. */
  function go(next: At, to?: StageKey) {
    const moved = to !== undefined && (to !== stage.value || sheet.value !== null || lost.value)
    const merged = { ...at.value, ...(moved ? { dialog: undefined } : {}), ...next }
    const quiet = !moved && Object.keys(next).every((key) => QUIET.has(key))
    if (!moved && same(merged, at.value)) return
    if (moved && to) {
      stage.value = to
      sheet.value = null
    }
    at.value = merged
    if (jobId.value) void (quiet ? router?.replace(address()) : router?.push(address()))
  }

  /** Opens another job at a stage. */
  function open(id: string, to: StageKey, where: At = {}, replace = false) {
    jobId.value = id
    stage.value = to
    sheet.value = null
    at.value = where
    void (replace ? router?.replace(address()) : router?.push(address()))
  }

  function openSheet(key: SheetKey) {
    sheet.value = key
    at.value = { ...at.value, dialog: undefined }
    void router?.push(address())
  }

  const pick = (what: Picked | null) => go({ pick: writePicked(what) })
  const selectLeg = (index: number | null) => go({ leg: index === null ? undefined : String(index + 1) })

  /** A dialog that stands in the address: Back closes it. */
  const dialogOpen = (name: string) =>
    computed({
      get: () => at.value.dialog === name,
      set: (open) => {
        if (open !== (at.value.dialog === name)) go({ dialog: open ? name : undefined })
      },
    })

  return {
    jobId,
    stage,
    sheet,
    at,
    lost,
    moving,
    picked,
    leg,
    dialog,
    follow,
    go,
    open,
    openSheet,
    pick,
    selectLeg,
    dialogOpen,
  }
})
