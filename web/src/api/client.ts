import createClient from 'openapi-fetch'

import type { components, paths } from './schema'

type S = components['schemas']
export type JobView = S['JobView']
export type Job = S['Job']
export type Run = S['Run']
export type Leg = S['Leg']
export type RunPlan = S['RunPlan']
export type RunSummary = S['RunSummary']
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
export type Entry = S['Entry']
export type RuleSet = S['RuleSet']
export type Change = S['RuleChange']
export type Notable = S['Notable']
export type NoteOut = S['NoteOut']
export type Look = S['Look']
export type Room = S['Room']
export type Box = S['Box']
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
export type DrawnPanel = S['DrawnPanel']
export type LooseBox = S['LooseBox']
export type ProposalLine = S['ProposalLine']
export type Count = S['Count']
export type DxfFound = S['DxfFound']
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
  detail: 'Level Run is not answering. What you typed is still here; start it again and repeat.',
}

/** The body of an answer, or the problem why there is none. Never throws. */
export async function ask<T>(
  call: Promise<{ data?: T; error?: unknown }>,
): Promise<{ data: T; problem?: undefined } | { data?: undefined; problem: Problem }> {
  try {
    const { data, error } = await call
    if (error !== undefined) return { problem: error as Problem }
    return { data: data as T }
  } catch {
    return { problem: AWAY }
  }
}
