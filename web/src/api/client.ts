import createClient from 'openapi-fetch'
import { reactive } from 'vue'

import type { components, paths } from './schema'

type S = components['schemas']
export type Head = S['Head']
export type Opened = S['Opened']
export type Answer = S['Answer']
export type StageKey =
  'start' | 'walls' | 'boxes' | 'circuits' | 'runs' | 'pipe' | 'trench' | 'buy' | 'rough_in' | 'test'
/** The view of each stage, and of the sheet by the panel doors. */
export interface ViewOf {
  walls: S['WallsView']
  boxes: S['BoxesView']
  circuits: S['CircuitsView']
  runs: S['RunsView']
  pipe: S['PipeView']
  trench: S['OutsideView']
  buy: S['BuyView']
  rough_in: S['RoughInView']
  test: S['TestView']
  directory: S['DirectoryView']
}
type Every = ViewOf['walls'] &
  ViewOf['boxes'] &
  ViewOf['circuits'] &
  ViewOf['runs'] &
  ViewOf['pipe'] &
  ViewOf['trench'] &
  ViewOf['buy'] &
  ViewOf['rough_in'] &
  ViewOf['test'] &
  ViewOf['directory']
/** What a field is in the views that have it: one type, or several. */
type Field<K> = { [V in keyof ViewOf]: K extends keyof ViewOf[V] ? ViewOf[V][K] : never }[keyof ViewOf]
/** What may be read whatever stage is here: fields that are the same thing in every view that has them. */
export type StageViews = { [K in keyof Every as Field<K> extends Every[K] ? K : never]: Every[K] }
export type Job = S['Job']
export type Way = S['Way']
export type Leg = S['Leg']
export type WayPlan = S['WayPlan']
export type ApartBox = S['Apart']
export type HopRow = S['HopRow']
export type SchoolRow = S['SchoolRow']
export type InTheWalls = S['InTheWalls']
export type PlanCable = S['PlanCable']
export type PullTotal = S['PullTotal']
export type LineSummary = S['LineSummary']
export type Walked = S['Walked']
export type YardDrawing = S['YardDrawing']
export type YardShape = S['YardShape']
export type TrenchSection = S['LongSection']
export type SpanSection = S['SpanSection']
export type TrenchPlan = S['TrenchPlan']
export type SpanPlan = S['SpanPlan']
export type GroundPlan = S['GroundPlan']
export type OutsideSheet = S['OutsideSheet']
export type BuyRow = S['BuyRow']
export type BuyItem = S['BuyItem']
export type ShelfSum = S['ShelfSum']
export type CutSheet = S['CutSheet']
export type CutBar = S['CutBar']
export type CutOn = S['CutOn']
export type Money = S['Money']
export type Weighed = S['Weighed']
export type WeighedLine = S['WeighedLine']
export type ProvingLine = S['ProvingLine']
export type ListView = S['ListView']
export type ListRow = S['ListRow']
export type QuoteView = S['QuoteView']
export type OfferRow = S['OfferRow']
export type Quote = S['Quote']
export type LooseRow = S['LooseRow']
export type SurfaceRow = S['SurfaceRow']
export type XRay = S['XRay']
export type XBox = S['XBox']
export type XCable = S['XCable']
export type BoxCard = S['BoxCard']
export type CardCable = S['CardCable']
export type CardStep = S['CardStep']
export type PanelCard = S['PanelCard']
export type Screw = S['Screw']
export type Ask = S['Ask']
export type HoldRow = S['HoldRow']
export type VisitRow = S['VisitRow']
export type FaultRow = S['FaultRow']
export type WallPhoto = S['WallPhoto']
export type PhotoRow = S['PhotoRow']
export type PhotoKept = S['PhotoKept']
export type Behind = S['Behind']
export type Book = S['Book']
export type Offer = S['Offer']
export type HereOut = S['HereOut']
export type TestRow = S['TestRow']
export type TestFocus = S['TestFocus']
export type TestStep = S['StepOut']
export type Where = S['Where']
export type PuzzleOut = S['PuzzleOut']
export type Played = S['Played']
export type LogRow = S['LogRow']
export type Lesson = S['Lesson']
export type LessonQuestion = S['QuestionOut']
export type Answered = S['Answered']
export type MeterReading = S['MeterReading']
export type TrenchStep = S['TrenchStep']
export type PullRow = S['PullRow']
export type DrillingSheet = S['DrillingSheet']
export type PipeRow = S['PipeRow']
export type PullPlan = S['PullPlan']
export type PullDrawing = S['PullDrawing']
export type DrawnStick = S['DrawnStick']
export type BendRow = S['BendRow']
export type HowPulled = S['HowPulled']
export type Rung = S['Rung']
export type Shape = S['Shape']
export type Order = S['Order']
export type Bent = S['Bent']
export type WaySummary = S['WaySummary']
export type CircuitRow = S['CircuitRow']
export type LegPlan = S['LegPlan']
export type Finding = S['Finding']
export type Figure = S['Figure']
export type Mend = S['Mend']
export type Strip = S['Strip']
export type Section = S['Section']
export type Pull = S['Pull']
export type Cut = S['Cut']
export type Alternative = S['Alternative']
export type Vocabulary = S['Vocabulary']
export type JobRow = S['JobRow']
export type NotJudged = S['NotJudged']
export type Entry = S['Entry']
export type RuleSet = S['RuleSet']
export type Change = S['RuleChange']
export type Notable = S['Notable']
export type NoteOut = S['NoteOut']
export type Room = S['Room']
export type Box = S['Box']
export type Panel = S['Panel']
export type BoxPlan = S['BoxPlan']
export type RoomSummary = S['RoomSummary']
export type DrawnRoom = S['DrawnRoom']
export type DrawnBox = S['DrawnBox']
export type WalkRound = S['WalkRound']
export type RoundBox = S['RoundBox']
export type FindingRef = S['FindingRef']
export type ScheduleRow = S['ScheduleRow']
export type SiteOutline = S['SiteOutline']
export type BoxModel = S['BoxModelOut']
export type School = S['School']
export type CircuitSummary = S['CircuitSummary']
export type CircuitPlan = S['CircuitPlan']
export type ChainRow = S['ChainRow']
export type PanelPlan = S['PanelPlan']
export type PanelRow = S['PanelRow']
export type DrawnPanel = S['DrawnPanel']
export type LooseBox = S['LooseBox']
export type ProposalLine = S['ProposalLine']
export type Count = S['Count']
export type StartKind = S['StartKind']
export type StartWords = S['StartWords']
export type Tried = S['Tried']
export type DxfFound = S['DxfFound']
export type RoomsFound = S['RoomsFound']
export type Edit = Record<string, unknown> & { op: string }

/** Why the server refused: the field, what is allowed, and in text the position. */
export interface Problem {
  status: number
  title: string
  detail: string
  key?: string
  at?: number
  allowed?: string[]
  current?: number
}

export const api = createClient<paths>({ baseUrl: '' })

export const AWAY: Problem = {
  status: 0,
  title: 'No answer',
  detail: 'Level Run is not answering. What you typed is still here.',
}

type Got<T> = { data: T; problem?: undefined; revision?: number } | { data?: undefined; problem: Problem }

/** How many requests are on their way, and whether the server has stopped answering. */
export const traffic = reactive({ asking: 0, away: false })

/** The body of an answer with the revision of its job, or the problem why there is none. Never throws. */
export async function ask<T>(
  call: Promise<{ data?: T; error?: unknown; response?: Response }>,
): Promise<Got<T>> {
  traffic.asking++
  try {
    const { data, error, response } = await call
    if (response && response.status >= 502 && response.status <= 504 && !(error as Problem)?.detail)
      return { problem: AWAY }
    traffic.away = false
    if (error !== undefined) return { problem: error as Problem }
    const tag = /^"(\d+)"$/.exec(response?.headers.get('etag') ?? '')
    return { data: data as T, ...(tag ? { revision: Number(tag[1]) } : {}) }
  } catch {
    return { problem: AWAY }
  } finally {
    traffic.asking--
  }
}

/** Asks again until there is an answer: the server was stopped, or the net is slow. */
export async function until<T>(call: () => Promise<Got<T>>): Promise<Got<T>> {
  for (let wait = 300; ; wait = Math.min(wait * 1.6, 3000)) {
    const found = await call()
    if (found.problem?.status !== 0) return found
    traffic.away = true
    await new Promise((resolve) => setTimeout(resolve, wait))
  }
}
