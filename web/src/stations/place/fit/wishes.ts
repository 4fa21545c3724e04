/** What the fit study is asked, as it stands on the screen; kept while the page is open. */
import { create } from 'zustand'

import rules from '../../../design/rules.json'
import type { Document, Wishes } from '../../../design/types'

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
  /** Null before anything was chosen: the first kind, all spaces. */
  kinds: string[] | null
  bays: string[] | null
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
  material: string
  welds: string
  sheet: string
  liner: string
  runner: string
  weights: Record<WeightName, number>
  /** The study on the screen, and the proposals that are kept to compare. */
  study: string | null
  kept: number[]
  set: (change: Partial<Asking>) => void
}

const asked = rules.wishes
const { making } = asked

export const useAsking = create<Asking>((set) => ({
  goal: 'most',
  kinds: null,
  bays: null,
  series: '',
  parallel: String(asked.parallel),
  lowV: '',
  highV: '',
  towards: [],
  restOn: [],
  empty: '',
  tiers: '',
  boxes: String(asked.boxes_per_bay),
  tilt: '',
  oneSize: false,
  mixed: true,
  chamfers: false,
  anyNumber: false,
  material: making.material,
  welds: making.weld_class ?? '',
  sheet: String(making.construction.thickness_mm),
  liner: String(making.liners.wall_mm),
  runner: String(making.liners.floor_mm),
  weights: asked.weights,
  study: null,
  kept: [],
  set: (change) => set(change),
}))

/** The kinds asked for; without a choice the first. */
export const kindsOf = (a: Asking, document: Document): string[] =>
  chosen(a.kinds, document.module_kinds, Object.keys(document.module_kinds).slice(0, 1))

/** The spaces asked; without a choice all. */
export const baysOf = (a: Asking, document: Document): string[] =>
  chosen(a.bays, document.bays, Object.keys(document.bays))

const chosen = (keys: string[] | null, there: object, otherwise: string[]) =>
  keys?.filter((key) => key in there) ?? otherwise

/** A figure, or the text as typed where it is none: the core says what is wrong with it. */
function figure(text: string): number | string {
  return text.trim() && Number.isFinite(Number(text)) ? Number(text) : text
}

/** Between the voltages that were typed; with none what the gear states. */
const windowOf = (a: Asking) =>
  a.lowV.trim() || a.highV.trim() ? { window_v: [figure(a.lowV), figure(a.highV)] } : { gears_window: true }

/** The body of the question. Left out is only what may be: the core says what is wrong with the rest. */
export function wishesOf(a: Asking, document: Document): Wishes {
  const [series, parallel] = [figure(a.series), figure(a.parallel)]
  const strings = typeof parallel === 'number' && parallel > 0 ? parallel : 1
  const modules = typeof series === 'number' ? series * strings : series
  return {
    kinds: kindsOf(a, document),
    bays: baysOf(a, document),
    parallel,
    ...(a.goal === 'exactly' ? { modules } : {}),
    ...(a.goal === 'window' ? windowOf(a) : {}),
    leave_empty: a.empty || null,
    towards: a.towards,
    rest_on: a.restOn,
    ...(a.tiers ? { most_tiers: figure(a.tiers) } : {}),
    boxes_per_bay: figure(a.boxes),
    tilts_deg: a.tilt ? [figure(a.tilt)] : [],
    one_size: a.oneSize,
    mixed_turns: a.mixed,
    chamfers: a.chamfers,
    more_than_the_shelf: a.anyNumber,
    making: {
      material: a.material,
      weld_class: a.welds || null,
      construction: { thickness_mm: figure(a.sheet) },
      liners: { wall_mm: figure(a.liner), floor_mm: figure(a.runner) },
    },
    weights: a.weights,
  } as Wishes
}
