import { immutableJSONPatch, type JSONPatchDocument } from 'immutable-json-patch'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import {
  type Alternative,
  type Answer,
  api,
  ask,
  type Edit,
  type FindingRef,
  type Head,
  type Job,
  type JobRow,
  type Mend,
  type Opened,
  type Problem,
  type StageKey,
  type StageViews,
  until,
  type ViewOf,
  type Vocabulary,
} from '../api/client'
import { type At, type Picked, useLook } from './look'
import { type By, makeMoves } from './moving'
import { useNotice } from './notice'
import { makeOurs } from './ours'
import { makeQueue } from './queue'
import { placeOf } from './where'

type ViewKey = keyof ViewOf
type View = Head & { refs: FindingRef[] } & Partial<StageViews>

/** What of a look each view is made from. */
const LOOKS: Record<ViewKey, (keyof At)[]> = {
  walls: ['room', 'level'],
  boxes: ['room', 'level'],
  circuits: ['panel', 'circuit', 'room', 'level'],
  runs: ['way', 'circuit', 'level'],
  pipe: ['way', 'pull', 'leg', 'circuit'],
  trench: ['line', 'way'],
  buy: ['item'],
  rough_in: ['wall', 'node'],
  test: ['circuit', 'panel'],
  directory: [],
}

const patched = <T>(had: T, steps: unknown[]): T =>
  (steps.length ? immutableJSONPatch(had, steps as JSONPatchDocument) : had) as T
export const ELSEWHERE: Problem = { status: -1, title: 'Elsewhere', detail: 'Another job is open.' }
export const stepId = () =>
  crypto.randomUUID?.() ?? `${Date.now()}-${Math.random().toString(36).slice(2, 14)}`

/**
 * The open job with its plan, as the address says where to look. Every change goes through `edit`: one request, one
 * undo step, one after another. While the server is away a change waits, keeps its id, and is made when it is back.
 */
export const useJob = defineStore('job', () => {
  const notice = useNotice()
  const look = useLook()
  const queue = makeQueue()
  const ours = makeOurs()
  const moves = makeMoves()
  const jobs = ref<JobRow[]>([])
  const head = shallowRef<Head | null>(null)
  const refs = shallowRef<FindingRef[]>([])
  const job = shallowRef<Job | null>(null)
  const stageView = shallowRef<Partial<StageViews>>({})
  const alternatives = shallowRef<Alternative[]>([])
  const vocabulary = shallowRef<Vocabulary | null>(null)
  const loading = ref(true)
  const missing = ref<string | null>(null)
  const seen = shallowRef<{ view: ViewKey; look: At }>({ view: 'walls', look: {} })

  const view = computed<View | null>(() =>
    head.value ? { ...stageView.value, ...head.value, refs: refs.value } : null,
  )
  /** The view of one stage; nothing while that of the stage before is still here, whose rows may be called the same. */
  const viewOf = <K extends ViewKey>(key: K) =>
    seen.value.view === key ? (stageView.value as Partial<ViewOf[K]>) : null
  const plan = computed(() => view.value?.focus ?? null)
  const wayId = computed(() => plan.value?.summary.id ?? null)
  const way = computed(() => job.value?.ways.find((item) => item.id === wayId.value) ?? null)
  const nodes = computed(() => [...(job.value?.panels ?? []), ...(job.value?.boxes ?? [])])
  const names = computed(() => nodes.value.map((node) => node.name))
  const roomId = computed(() => view.value?.room?.planned.summary.id ?? look.at.room ?? null)
  const room = computed(() => job.value?.rooms.find((item) => item.id === roomId.value) ?? null)
  const levelOf = (id: string | null | undefined) =>
    job.value?.structures.flatMap((item) => item.levels ?? []).find((level) => level.id === id) ?? null
  const sizes = computed(() =>
    (vocabulary.value?.wire_sizes ?? []).map((size) => ({ title: size, value: size })),
  )
  const circuitId = computed(() => view.value?.circuit?.summary.id ?? null)
  const panelId = computed(() => view.value?.panel?.id ?? null)
  const levelId = computed(() => view.value?.level?.level ?? null)
  const metric = computed(() => view.value?.units === 'metric')
  const leg = computed(() => {
    const count = plan.value?.legs.length ?? 0
    return look.leg !== null && look.leg >= 0 && look.leg < count ? look.leg : null
  })
  const picked = computed<Picked | null>({
    get: () => (look.picked && stillThere(look.picked) ? look.picked : null),
    set: (what) => look.pick(what),
  })
  const busy = computed(() => queue.pending.value > 0)

  function stillThere(item: Picked) {
    const now = job.value
    if (!now) return false
    const parts = {
      box: now.boxes,
      panel: now.panels,
      opening: now.openings,
      fixture: now.fixtures,
      wall: now.rooms,
    }
    return parts[item.kind].some((part) => part.id === item.id)
  }

  function takeOpened(answer: Opened) {
    head.value = answer.head
    refs.value = answer.refs
    job.value = answer.job
  }

  function takeAnswer(answer: Answer) {
    if (answer.whole) {
      refs.value = answer.whole.refs
      job.value = answer.whole.job
      stageView.value = answer.whole.view as Partial<StageViews>
    } else {
      refs.value = patched(refs.value, answer.refs)
      job.value = patched(job.value, answer.job)
      stageView.value = patched(stageView.value, answer.view)
    }
    head.value = answer.head
    const told = answer.told.join('; ')
    if (told) notice.tell(told.charAt(0).toUpperCase() + told.slice(1), 'note')
  }

  async function loadJob(id: string): Promise<boolean> {
    const path = { job_id: id }
    const { data, problem } = await until(() => ask(api.GET('/api/jobs/{job_id}', { params: { path } })))
    missing.value = problem ? problem.detail : null
    if (problem) {
      head.value = job.value = null
      return false
    }
    takeOpened(data as Opened)
    return true
  }

  const wantedView = (): ViewKey => (look.sheet ? 'directory' : look.stage === 'start' ? 'runs' : look.stage)

  /** Fetches what the address says to look at. */
  async function fetchView(cache: RequestCache = 'default') {
    const id = look.jobId
    if (!id) return
    if (head.value?.id !== id) {
      stageView.value = {}
      if (!(await loadJob(id))) return
      void remember(id)
    }
    const name = wantedView()
    const wanted: At = {}
    for (const key of LOOKS[name]) if (look.at[key] !== undefined) wanted[key] = look.at[key]
    const params = { path: { job_id: id }, query: wanted }
    const url = `/api/jobs/{job_id}/stages/${name}` as '/api/jobs/{job_id}/stages/runs'
    const found = await until(() => ask(api.GET(url, { params, cache })))
    if (found.problem) return notice.tell(found.problem.detail, 'stop')
    if (found.revision !== undefined && found.revision !== head.value?.revision && !(await loadJob(id)))
      return
    seen.value = { view: name, look: wanted }
    stageView.value = found.data as object as Partial<StageViews>
  }

  const refresh = () => queue.add(() => fetchView(), 'look')
  /** The view anew, though nothing was changed: something was worked out for it meanwhile. */
  const reload = () => queue.add(() => fetchView('reload'), 'reload')
  let follows = false
  watch(
    () => [look.jobId, wantedView(), ...LOOKS[wantedView()].map((key) => look.at[key])].join('|'),
    () => follows && void refresh(),
  )

  async function loadAlternatives() {
    const [job_id, way_id, at] = [head.value?.id, wayId.value, leg.value]
    if (look.stage !== 'runs' || !job_id || !way_id || at === null) {
      alternatives.value = []
      return
    }
    const path = { job_id, way_id, leg: at }
    const { data } = await ask(
      api.GET('/api/jobs/{job_id}/ways/{way_id}/legs/{leg}/alternatives', { params: { path } }),
    )
    if (data && way_id === wayId.value && at === leg.value) alternatives.value = data
  }
  watch([() => head.value?.revision, wayId, leg], () => void loadAlternatives())

  watch(
    () => head.value?.rules,
    async (rules) => {
      if (!rules) return
      const { data } = await until(() => ask(api.GET('/api/vocabulary', { params: { query: { rules } } })))
      if (data) vocabulary.value = data
    },
  )

  let began = () => {}
  const started = new Promise<void>((resolve) => (began = resolve))
  /**
   * The first screen: the address where it names a job, else the job last opened, on its worst stop. `early`: the job
   * that the address names, asked for while the stage itself is still on its way, which `ready` tells.
   */
  async function start(early: string | undefined, ready: Promise<unknown>) {
    await Promise.all([ready, list(), early ? loadJob(early) : null])
    follows = true
    if (early && head.value) void remember(early)
    if (look.jobId) await refresh()
    else if (!look.lost && jobs.value[0]) await open(jobs.value[0].id, true)
    loading.value = false
    began()
  }

  async function list() {
    const { data, problem } = await until(() => ask(api.GET('/api/jobs')))
    if (problem) notice.tell(problem.detail, 'stop')
    else jobs.value = data
  }

  async function remember(id: string) {
    if (jobs.value[0]?.id === id) return
    await ask(api.POST('/api/jobs/{job_id}/opened', { params: { path: { job_id: id } } }))
    await list()
  }

  /** The first stage that holds something; an empty job begins with a sentence. */
  const begun = (): StageKey =>
    job.value?.rooms.length ? 'walls' : job.value?.ways.length ? 'runs' : 'start'

  /** Opens a job on its worst stop; one without, on its first stage that holds something. */
  async function open(id: string, replace = false) {
    if (!(await loadJob(id))) return
    const worst = refs.value[0]
    if (worst) look.open(id, worst.stage as StageKey, placeOf(worst), replace)
    else look.open(id, begun(), {}, replace)
    await refresh()
    await remember(id)
  }

  async function create(body: {
    sample?: string
    name?: string
    job?: Record<string, unknown>
    text?: string
  }) {
    const { data, problem } = await ask(api.POST('/api/jobs', { body }))
    if (problem) return problem
    await list()
    await open((data as Opened).head.id)
    return null
  }

  async function remove(id: string) {
    await ask(api.DELETE('/api/jobs/{job_id}', { params: { path: { job_id: id } } }))
    await list()
    if (head.value?.id !== id) return
    head.value = job.value = null
    if (jobs.value[0]) await open(jobs.value[0].id)
  }

  /**
   * One step on the revision as it is. Where the job has moved on, the newest is taken, and the step is made again on it
   * if `anew` says so of the revision that it was made on; the problem otherwise.
   */
  async function onNewest(
    act: 'edits' | 'undo' | 'redo',
    own: Record<string, unknown>,
    reach: typeof until,
    anew: (had: number) => boolean | Promise<boolean>,
  ): Promise<Problem | null> {
    while (head.value) {
      const { id: job_id, revision } = head.value
      const params = { path: { job_id } }
      const body = { revision, stage: seen.value.view, look: seen.value.look, ...own }
      const url = `/api/jobs/{job_id}/${act}` as '/api/jobs/{job_id}/edits'
      const { data, problem } = await reach(() => ask(api.POST(url, { params, body: body as never })))
      if (!problem) {
        takeAnswer(data as Answer)
        return null
      }
      if (problem.status !== 409) return problem
      if (await loadJob(job_id)) await fetchView()
      if (!head.value || !(await anew(revision))) return problem
    }
    return null
  }

  /** Sends one step when its turn comes, on the revision as it is then; again with the same id until it is answered. */
  function send(act: 'edits' | 'undo' | 'redo', more: () => Record<string, unknown> | null, key = '') {
    return queue.add(async (): Promise<Problem | null> => {
      const own = more()
      if (!head.value || !own) return null
      const { id: job } = head.value
      const byUs = (had: number) => act === 'edits' && ours.only(job, had, head.value?.revision ?? had)
      return onNewest(act, { id: stepId(), ...own }, until, byUs)
    }, key)
  }

  /** Make edits. Answers the problem where they are refused; where the job moved on, takes the newest. */
  async function edit(edits: Edit[], label?: string): Promise<Problem | null> {
    const problem = await send('edits', () => ({ edits, label }))
    if (problem?.status === 409)
      notice.tell('Another window changed this job. Here is the newest; your change is not in it.', 'check', {
        label: 'Make it again',
        act: async () => {
          const again = await edit(edits, label)
          if (again) notice.tell(again.detail, 'stop')
        },
      })
    return problem
  }

  /** Moves a thing from where it will stand by then. Steps that wait for their turn become one; `make` is asked then. */
  async function nudge(key: string, by: By, make: (by: By) => { edits: Edit[]; label: string } | null) {
    moves.add(key, by)
    let sent: By | null = null
    const problem = await send('edits', () => (sent = moves.take(key)) && make(sent), key)
    if (sent) moves.done(key, sent)
    if (problem) notice.tell(problem.detail, problem.status === 409 ? 'check' : 'stop')
  }

  /** One try of a change that waits in the outbox, under the id that it was given there. */
  async function attempt(jobId: string, id: string, edits: Edit[], label: string) {
    await started
    return queue.add(async (): Promise<Problem | null> => {
      if (head.value?.id !== jobId) return { ...ELSEWHERE }
      return onNewest(
        'edits',
        { id, edits, label },
        (once) => once(),
        () => true,
      )
    })
  }

  async function mend(item: Mend) {
    const problem = await edit(item.edits as Edit[], item.label)
    if (problem && problem.status !== 409) notice.tell(problem.detail, 'stop')
    else if (!problem) notice.tell(item.label, 'fine', { label: 'Undo', act: undo })
  }

  async function step(way: 'undo' | 'redo') {
    let label: string | null = null
    const problem = await send(way, () => {
      label = head.value?.[way] ?? null
      return label ? {} : null
    })
    if (problem) notice.tell(problem.detail, 'check')
    else if (label) notice.tell(`${way === 'undo' ? 'Undone' : 'Made again'}: ${label}`, 'note')
  }
  const undo = () => step('undo')
  const redo = () => step('redo')

  /** Looks elsewhere and waits until it is here. */
  async function lookAt(next: At, stage?: StageKey) {
    look.go(next, stage)
    await refresh()
  }
  /** Looks at a way; `at` picks a leg of it, undefined the worst one. */
  async function lookWay(id: string, at?: number | null) {
    if (id !== wayId.value || look.stage !== 'runs') await lookAt({ way: id, leg: undefined }, 'runs')
    if (at === undefined) selectWorst()
    else look.selectLeg(at)
  }
  /** Looks at a circuit with its worst way. */
  async function lookThread(id: string) {
    await lookAt({ circuit: id, way: undefined, leg: undefined }, 'runs')
    selectWorst()
  }
  function selectWorst() {
    const worst = plan.value?.findings.find((item) => item.severity !== 'note' && item.leg !== null)
    look.selectLeg(worst?.leg ?? null)
  }
  const lookCircuit = (id: string) =>
    lookAt({ circuit: id, panel: undefined, room: undefined, level: undefined, pick: undefined })
  const lookPanel = (id: string) =>
    lookAt({ panel: id, circuit: undefined, room: undefined, level: undefined, pick: undefined })
  /** Looks at a room; `what` of it is picked. */
  const lookRoom = (id: string, what: Picked | null = null) =>
    lookAt({
      room: id,
      level: undefined,
      pick: what ? `${what.kind}.${what.id}${what.side === undefined ? '' : `.${what.side}`}` : undefined,
    })

  return {
    jobs, view, viewOf, leg, alternatives, vocabulary, loading, missing, busy, job, plan, wayId, way, nodes, names, picked, levelOf, sizes,
    roomId, room, levelId, metric, ours, circuitId, panelId, refs, start, list, open, create, remove, lookAt, lookWay, lookThread,
    lookRoom, lookCircuit, lookPanel, edit, attempt, moving: moves.moving, nudge, mend, undo, redo, refresh,
    reload,
  } // prettier-ignore
})
