/** What the fit study is asked, as it stands on the screen; kept while the page is open. */
import { create } from 'zustand'

import type { Document } from '../../../design/types'

export type Goal = 'most' | 'exactly' | 'window'
export const TOWARDS = [
  ['up', 'up'],
  ['front', 'forward'],
  ['aft', 'aft'],
  ['left', 'left'],
  ['right', 'right'],
] as const
export const WEIGHTS = [
  ['count', 'many modules'],
  ['balance', 'balance on the axles'],
  ['low', 'low centre of gravity'],
  ['boxes', 'few boxes'],
  ['cable', 'short cables'],
  ['luggage', 'luggage room kept'],
  ['cutting', 'few new mounting points'],
] as const
export type WeightName = (typeof WEIGHTS)[number][0]

export interface Asking {
  goal: Goal
  kinds: string[]
  bays: string[]
  series: string
  parallel: string
  lowV: string
  highV: string
  towards: string[]
  restOn: string[]
  empty: string
  tiers: string
  boxes: string
  tilt: string
  oneSize: boolean
  mixed: boolean
  chamfers: boolean
  anyNumber: boolean
  sheet: string
  liner: string
  weights: Record<WeightName, number>
  /** The study on the screen, and the proposals that are kept to compare. */
  study: string | null
  kept: number[]
  set: (change: Partial<Asking>) => void
}

export const useAsking = create<Asking>((set) => ({
  goal: 'most',
  kinds: [],
  bays: [],
  series: '',
  parallel: '1',
  lowV: '',
  highV: '',
  towards: [],
  restOn: [],
  empty: '',
  tiers: '',
  boxes: '1',
  tilt: '',
  oneSize: false,
  mixed: true,
  chamfers: false,
  anyNumber: false,
  sheet: '3',
  liner: '4',
  weights: { count: 30, balance: 3, low: 2, boxes: 2, cable: 1, luggage: 1, cutting: 1 },
  study: null,
  kept: [],
  set: (change) => set(change),
}))

/** The kinds asked for; without a choice the first. */
export function kindsOf(a: Asking, document: Document): string[] {
  const kinds = a.kinds.filter((k) => k in document.module_kinds)
  return kinds.length ? kinds : Object.keys(document.module_kinds).slice(0, 1)
}

/** The body of the question. A blank that is not filled is left out; the core says what is wrong with a filled one. */
export function wishesOf(a: Asking, document: Document): object {
  const parallel = Number(a.parallel || 1)
  return {
    kinds: kindsOf(a, document),
    bays: a.bays.filter((b) => b in document.bays),
    parallel,
    ...(a.goal === 'exactly' ? { modules: Math.round(Number(a.series) * parallel) } : {}),
    ...(a.goal === 'window' ? { window_v: [Number(a.lowV), Number(a.highV)] } : {}),
    leave_empty: a.empty || null,
    towards: a.towards,
    rest_on: a.restOn,
    ...(a.tiers ? { most_tiers: Number(a.tiers) } : {}),
    boxes_per_bay: Number(a.boxes),
    tilts_deg: a.tilt ? [Number(a.tilt)] : [],
    one_size: a.oneSize,
    mixed_turns: a.mixed,
    chamfers: a.chamfers,
    more_than_the_shelf: a.anyNumber,
    making: { thickness_mm: Number(a.sheet), liners: { wall_mm: Number(a.liner), floor_mm: 8 } },
    weights: a.weights,
  }
}
