import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import {
  type Alternative,
  api,
  ask,
  type Edit,
  type Job,
  type JobRow,
  type JobView,
  type Look,
  type Mend,
  type Problem,
  type Vocabulary,
} from '../api/client'
import { useNotice } from './notice'

/** What is picked on a drawing: a box, panel, opening or fixture by id, or a wall of the room looked at. */
export interface Picked {
  kind: 'box' | 'panel' | 'opening' | 'fixture' | 'wall'
  id: string
  side?: number
}

/** An answer that brings only what changed, made whole with the job that is here. */
function whole(answer: JobView, here: Job | null): JobView & { job: Job } {
  const { changed } = answer
  if (answer.job || !changed || !here) return answer as JobView & { job: Job }
  const job = { ...here, ...changed.head } as Record<string, unknown>
  for (const kind of new Set([...Object.keys(changed.parts), ...Object.keys(changed.order)])) {
    const parts = new Map((job[kind] as { id: string }[]).map((part) => [part.id, part]))
    for (const part of changed.parts[kind] ?? []) parts.set(part.id as string, part as { id: string })
    job[kind] = (changed.order[kind] ?? [...parts.keys()]).map((id) => parts.get(id))
  }
  return { ...answer, job: job as unknown as Job }
}

function stillThere(job: Job, item: Picked) {
  const lists = {
    box: job.boxes,
    panel: job.panels,
    opening: job.openings,
    fixture: job.fixtures,
    wall: job.rooms,
  }
  return lists[item.kind].some((part) => part.id === item.id)
}

/** The open job with its plan. Every change goes through `edit`: one request, one undo step. */
export const useJob = defineStore('job', () => {
  const notice = useNotice()
  const jobs = ref<JobRow[]>([])
  const view = shallowRef<(JobView & { job: Job }) | null>(null)
  const leg = ref<number | null>(null)
  const alternatives = shallowRef<Alternative[]>([])
  const vocabulary = shallowRef<Vocabulary | null>(null)
  const loading = ref(true)
  const picked = ref<Picked | null>(null)
  const wanted = ref<Look>({})

  const job = computed(() => view.value?.job ?? null)
  const plan = computed(() => view.value?.focus ?? null)
  const runId = computed(() => plan.value?.summary.id ?? null)
  const run = computed(() => job.value?.runs.find((item) => item.id === runId.value) ?? null)
  const nodes = computed(() => [...(job.value?.panels ?? []), ...(job.value?.boxes ?? [])])
  const names = computed(() => nodes.value.map((node) => node.name))
  const roomId = computed(() => view.value?.room?.planned.summary.id ?? null)
  const room = computed(() => job.value?.rooms.find((item) => item.id === roomId.value) ?? null)
  const circuitId = computed(() => view.value?.circuit?.summary.id ?? null)
  const panelId = ref<string | null>(null)
  const levelId = computed(() => view.value?.level?.level ?? null)
  const metric = computed(() => view.value?.units === 'metric')
  const looking = () => ({ ...wanted.value, run: runId.value ?? undefined })

  function take(answer: JobView) {
    const next = whole(answer, view.value?.job ?? null)
    view.value = next
    const count = next.focus?.legs.length ?? 0
    if (leg.value !== null && leg.value >= count) leg.value = count ? count - 1 : null
    wanted.value = {
      room: roomId.value ?? undefined,
      level: levelId.value ?? undefined,
      circuit: circuitId.value ?? undefined,
    }
    if (!next.panels.some((item) => item.id === panelId.value))
      panelId.value = next.circuit?.summary.panel ?? next.panels[0]?.id ?? null
    if (picked.value && !stillThere(next.job, picked.value)) picked.value = null
    void loadAlternatives()
  }

  async function loadAlternatives() {
    const [job_id, run_id, at] = [view.value?.id, runId.value, leg.value]
    if (!location.pathname.startsWith('/runs')) return
    if (!job_id || !run_id || at === null) {
      alternatives.value = []
      return
    }
    const path = { job_id, run_id, leg: at }
    const { data } = await ask(
      api.GET('/api/jobs/{job_id}/runs/{run_id}/legs/{leg}/alternatives', { params: { path } }),
    )
    if (data && run_id === runId.value && at === leg.value) alternatives.value = data
  }

  async function start() {
    const words = await ask(api.GET('/api/vocabulary'))
    if (words.data) vocabulary.value = words.data
    await list()
    const first = jobs.value[0]
    if (first) await open(first.id)
    loading.value = false
  }

  async function list() {
    const { data, problem } = await ask(api.GET('/api/jobs'))
    if (problem) notice.tell(problem.detail, 'stop')
    else jobs.value = data
  }

  async function open(id: string) {
    const { data, problem } = await ask(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } }))
    if (problem) return notice.tell(problem.detail, 'stop')
    leg.value = null
    picked.value = null
    take(data as JobView)
    selectWorst()
    if (jobs.value[0]?.id !== id) {
      await ask(api.POST('/api/jobs/{job_id}/opened', { params: { path: { job_id: id } } }))
      await list()
    }
  }

  async function create(body: { sample?: string; name?: string; job?: Record<string, unknown> }) {
    const { data, problem } = await ask(api.POST('/api/jobs', { body }))
    if (problem) return problem
    leg.value = null
    picked.value = null
    take(data as JobView)
    selectWorst()
    await list()
    return null
  }

  async function remove(id: string) {
    await ask(api.DELETE('/api/jobs/{job_id}', { params: { path: { job_id: id } } }))
    await list()
    if (view.value?.id === id) {
      view.value = null
      const first = jobs.value[0]
      if (first) await open(first.id)
    }
  }

  /** Look at another run; `at` picks a leg of it, undefined the worst one. */
  async function look(id: string, at?: number | null) {
    if (!view.value) return
    if (id !== runId.value) {
      const path = { job_id: view.value.id }
      const { data, problem } = await ask(
        api.GET('/api/jobs/{job_id}', { params: { path, query: { ...looking(), run: id } } }),
      )
      if (problem) return notice.tell(problem.detail, 'stop')
      leg.value = null
      take(data as JobView)
    }
    if (at === undefined) selectWorst()
    else select(at)
  }

  function select(at: number | null) {
    leg.value = at
    void loadAlternatives()
  }

  function selectWorst() {
    const findings = plan.value?.findings ?? []
    const worst = findings.find((item) => item.severity !== 'note' && item.leg !== null)
    select(worst?.leg ?? null)
  }

  /** Make edits. Answers the problem where they are refused; where the job moved on, takes the newest. */
  async function edit(edits: Edit[], label?: string, look: Look = {}): Promise<Problem | null> {
    if (!view.value) return null
    const id = view.value.id
    const body = {
      revision: view.value.revision,
      edits: edits as never[],
      label,
      look: { ...looking(), ...look },
      brief: true,
    }
    const { data, problem } = await ask(
      api.POST('/api/jobs/{job_id}/edits', { params: { path: { job_id: id } }, body }),
    )
    if (!problem) {
      take(data as JobView)
      return null
    }
    if (problem.status === 409) {
      await refresh()
      notice.tell('Another window changed this job. Here is the newest; your change is not in it.', 'check', {
        label: 'Make it again',
        act: async () => {
          const again = await edit(edits, label, look)
          if (again) notice.tell(again.detail, 'stop')
        },
      })
    }
    return problem
  }

  async function refresh() {
    if (!view.value) return
    const { data } = await ask(
      api.GET('/api/jobs/{job_id}', {
        params: { path: { job_id: view.value.id }, query: looking() },
      }),
    )
    if (data) take(data as JobView)
  }

  async function mend(item: Mend) {
    const problem = await edit(item.edits as Edit[], item.label)
    if (problem && problem.status !== 409) notice.tell(problem.detail, 'stop')
    else if (!problem) notice.tell(item.label, 'fine', { label: 'Undo', act: undo })
  }

  async function step(way: 'undo' | 'redo') {
    if (!view.value) return
    const label = view.value[way]
    if (!label) return
    const body = { revision: view.value.revision, look: looking(), brief: true }
    const params = { path: { job_id: view.value.id } }
    const { data, problem } = await ask(
      way === 'undo'
        ? api.POST('/api/jobs/{job_id}/undo', { params, body })
        : api.POST('/api/jobs/{job_id}/redo', { params, body }),
    )
    if (problem) {
      await refresh()
      notice.tell(problem.detail, 'check')
    } else {
      take(data as JobView)
      notice.tell(`${way === 'undo' ? 'Undone' : 'Made again'}: ${label}`, 'note')
    }
  }
  const undo = () => step('undo')
  const redo = () => step('redo')

  /** Look at another room or level of the building. */
  async function lookAt(next: Look) {
    if (!view.value) return
    const path = { job_id: view.value.id }
    const query = { ...looking(), ...next }
    const { data, problem } = await ask(api.GET('/api/jobs/{job_id}', { params: { path, query } }))
    if (problem) return notice.tell(problem.detail, 'stop')
    take(data as JobView)
  }

  /** The room of a circuit's first box, or of its panel: what its plan shows. */
  function roomOf(id: string): Look {
    const circuit = job.value?.circuits.find((item) => item.id === id)
    const first = job.value?.boxes.find(
      (box) => circuit?.chain?.some((hop) => hop.box === box.id) && box.room,
    )
    const room = first?.room ?? job.value?.panels.find((item) => item.id === circuit?.panel)?.room
    return room ? { room, level: undefined } : {}
  }

  /** Looks at a circuit, and at the panel that it is in. */
  async function lookCircuit(id: string) {
    if (id !== circuitId.value) await lookAt({ circuit: id, ...roomOf(id) })
    panelId.value = view.value?.circuit?.summary.panel ?? panelId.value
  }

  /** Looks at a panel, and at the worst of its circuits. */
  async function lookPanel(id: string) {
    await lookAt({ panel: id, circuit: undefined })
    if (circuitId.value) await lookAt(roomOf(circuitId.value))
    panelId.value = id
  }

  /** Looks at a room; `what` of it is picked. */
  async function lookRoom(id: string, what: Picked | null = null) {
    if (id !== roomId.value) await lookAt({ room: id, level: undefined })
    picked.value = what
  }

  return {
    jobs, view, leg, alternatives, vocabulary, loading, job, plan, runId, run, nodes, names, picked, roomId, room,
    levelId, metric, start, open, create, remove, look, lookAt, lookRoom, lookCircuit, lookPanel, circuitId, panelId, select, edit, mend, undo, redo, refresh,
  } // prettier-ignore
})
