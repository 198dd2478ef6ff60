import { computed, type Ref } from 'vue'

import type { Problem } from '../api/client'
import { tapMend, useKeys } from '../stage/keys'
import { useJob } from '../stores/job'
import type { Picked } from '../stores/look'
import type { By } from '../stores/moving'
import { useEntry } from './useEntry'
import { useLevels } from './useLevels'

const ONE = { openings: 'opening', panels: 'panel', boxes: 'box' } as const

/** What the Walls and Boxes stages have in common: the entry line, edits that tell, keys, the room looked at. */
export function useRoomStage(
  stage: 'walls' | 'boxes',
  verb: string,
  entry: Ref<{ focus: () => void } | null>,
) {
  const store = useJob()
  const rooms = computed(() => store.view?.level?.rooms ?? [])
  const drawn = computed(() => rooms.value.find((room) => room.id === store.roomId) ?? null)
  const about = () => ({ room: store.roomId, level: store.levelId, verb })

  const { suggest, act } = useEntry(stage, about)

  async function say(text: string): Promise<Problem | null> {
    const before = new Set(
      [
        ...(store.job?.rooms ?? []),
        ...(store.job?.boxes ?? []),
        ...(store.job?.panels ?? []),
        ...(store.job?.openings ?? []),
      ].map((part) => part.id),
    )
    const levels = new Set(
      (store.job?.structures ?? []).flatMap((s) => s.levels?.map((level) => level.id) ?? []),
    )
    const problem = await store.edit([{ op: 'say', text, ...about() }])
    if (problem) return problem
    const room = store.job?.rooms.findLast((part) => !before.has(part.id))
    const level = (store.job?.structures ?? [])
      .flatMap((s) => s.levels ?? [])
      .find((part) => !levels.has(part.id))
    if (room) await store.lookAt({ room: room.id, level: room.level })
    else if (level) await store.lookAt({ room: undefined, level: level.id })
    pickNew(before)
    return null
  }

  function pickNew(before: Set<string>) {
    const lists: [Picked['kind'], { id: string; room?: string | null }[]][] = [
      ['box', store.job?.boxes ?? []],
      ['panel', store.job?.panels ?? []],
      ['opening', store.job?.openings ?? []],
    ]
    for (const [kind, parts] of lists) {
      const fresh = parts.filter((part) => !before.has(part.id))
      if (fresh.length === 1 && fresh[0]) {
        if (fresh[0].room && fresh[0].room !== store.roomId)
          void store.lookRoom(fresh[0].room, { kind, id: fresh[0].id })
        else store.picked = { kind, id: fresh[0].id }
      }
    }
  }

  async function remove() {
    const now = store.picked
    if (!now || now.kind === 'wall') return
    const chained = store.job?.circuits.some((c) => c.chain?.some((hop) => hop.box === now.id))
    const off = now.kind === 'box' && chained ? [{ op: 'unchain', boxes: [now.id] }] : []
    const problem = await act([...off, { op: 'drop', kind: now.kind, id: now.id }], `remove ${now.kind}`)
    if (!problem) store.picked = null
  }

  function step(by: number) {
    const all = store.view?.rooms ?? []
    const at = all.findIndex((room) => room.id === store.roomId)
    const next = all[(at + by + all.length) % all.length]
    if (next) void store.lookRoom(next.id)
  }

  function keys(own: Record<string, () => void>) {
    useKeys(
      {
        '/': () => entry.value?.focus(),
        j: () => step(1),
        k: () => step(-1),
        m: tapMend,
        Delete: () => void remove(),
        Backspace: () => void remove(),
        Escape: () => (store.picked = null),
        ...own,
      },
      ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'],
    )
  }

  const moveWall = (room: string, side: number, by: number) =>
    void store.nudge(`wall.${room}.${side}`, { by_in: by }, ({ by_in = 0 }) => ({
      edits: [{ op: 'move_wall', room, side, by_in }],
      label: `wall ${by_in > 0 ? 'out' : 'in'} ${Math.abs(by_in)}″`,
    }))
  /** Moves an opening, a box or a panel by so many inches of each field. */
  function move(id: string, by: By) {
    const find = () =>
      [...(store.job?.openings ?? []), ...store.nodes].find((part) => part.id === id) as
        (Record<string, unknown> & { name?: string }) | undefined
    const kind = (['openings', 'panels', 'boxes'] as const).find((k) =>
      store.job?.[k].some((part) => part.id === id),
    )
    if (!kind) return
    void store.nudge(`${ONE[kind]}.${id}`, by, (all) => {
      const part = find()
      if (!part) return null
      const to = Object.entries(all).map(([field, inches]) => [
        field,
        Math.max(
          Math.round((Number(part[field] ?? 0) + inches) * 1e4) / 1e4,
          field === 'at_in' ? 0 : -Infinity,
        ),
      ])
      const edit = { op: 'set', kind: ONE[kind], id, set: Object.fromEntries(to) }
      return { edits: [edit], label: `move ${part.name ?? ONE[kind]}` }
    })
  }
  const levels = useLevels()

  return { store, rooms, drawn, suggest, say, act, remove, keys, moveWall, move, levels }
}
