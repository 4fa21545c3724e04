/**
 * What is typed into a blank, written down as typed: it can be kept while the server is away, and is read and made a patch when its
 * turn comes. Nothing here reads a text; the core does.
 */
import { along, length, type PlaceAxis } from '../ui/format'
import { misread, Refused } from './api'
import { at, pointer } from './pointer'
import { readFigure, readPlace, readText } from './queries'
import rules from './rules.json'
import type { Document, Item, Op } from './types'

export type QuantityKind = 'length' | 'mass' | 'number' | 'angle' | 'voltage'
export type Spot = [number, number, number]
export type Hook = { id: string; at: Spot } | null

/** Where a figure goes that is no plain replacement: operations with TYPED where it stands, and those of an emptied blank. */
export interface Into {
  ops: Op[]
  times?: number
  none?: Op[]
}
export const TYPED = '{typed}'

interface Common {
  path: string
  text: string
  /** What it is called, for a list of what waits. */
  label: string
  unit: string
  hook: Hook
}
interface OneFigure extends Common {
  reads: 'figure'
  kind: QuantityKind
  /** The figure of a place that stands there, where a sign moves it. */
  now: number | null
  whole: boolean
  /** The largest of its neighbours; 0 where nobody asks. */
  most: number
  into: Into | null
  how: object
}
interface Place extends Common {
  reads: 'place'
}
/** Of a thing: the path is the thing's and "/size", which stands nowhere in the document. */
interface Size extends Common {
  reads: 'size'
}
export type Figure = OneFigure | Place | Size

/** A figure far from its neighbours: asked once. */
export class Unusual extends Refused {
  constructor() {
    const detail = 'Over three times its neighbours. Enter again keeps it.'
    super({ title: 'Unusual', status: 422, detail })
  }
}

export type Meant = (document: Document) => Op[]

/** What the text means, as the edit it makes of the document that stands then. Throws Refused. */
export async function meantBy(figure: Figure): Promise<Meant> {
  if (figure.reads === 'place') return placeOf(figure)
  if (figure.reads === 'size') return sizeOf(figure)
  const { path, text, unit, hook, now, kind } = figure
  const found = await readFigure({ text, path, unit, base: hook?.at, now })
  if (figure.most > 0 && Math.abs(found.value) > 3 * figure.most) throw new Unusual()
  const value = figure.whole ? Math.round(found.value) : found.value
  const { into } = figure
  if (into) return ({ readings }) => [...filled(into, value), ...isNowTaken(readings, path)]
  const reading = {
    text: found.by ? asText(value, kind, unitsOf(figure), wayOf(path), hook?.at) : text,
    unit: kind === 'length' && !found.by ? found.unit : unit,
    from: hook?.id ?? null,
    ...figure.how,
  }
  return ({ readings }) => [{ op: 'replace', path, value }, ...note(readings, path, reading)]
}

/** A figure that is not kept as typed is taken all the same. */
function isNowTaken(readings: Document['readings'], path: string): Op[] {
  const there = readings[path]?.basis === 'not taken'
  return there ? [{ op: 'remove', path: pointer('readings', path) }] : []
}

/** The units of the list in which it was typed. */
export function unitsOf({ unit }: Figure) {
  return { length: unit === 'in' ? 'in' : 'mm', mass: unit === 'lb' ? 'lb' : 'kg' } as const
}

function filled({ ops, times = 1 }: Into, value: number): Op[] {
  return JSON.parse(JSON.stringify(ops).replaceAll(`"${TYPED}"`, String(value * times))) as Op[]
}

/** The spot that is meant, and how each of its figures was said. Throws with what is missing. */
export async function readSpot(text: string, hook: Hook, unit: string) {
  const moves = await readPlace(text, 'aft', unit === 'in' ? 'in' : 'mm')
  const said = [moves.aft, moves.across, moves.up].filter((m) => m !== null)
  if (said.length < 3) throw misread('Three figures: 840 aft, 120 R, 310 up.')
  return { said, spot: said.map((m, i) => m.value_mm + (hook?.at[i] ?? 0)) as Spot }
}

async function placeOf({ path, text, hook, unit }: Place): Promise<Meant> {
  const found = await readSpot(text, hook, unit)
  return ({ readings }) => [
    { op: 'replace', path, value: found.spot },
    ...asSaid(readings, path, found.said, hook),
  ]
}

/** How each figure of a place was said, beside it. */
export function asSaid(
  readings: Record<string, unknown>,
  path: string,
  said: Awaited<ReturnType<typeof readSpot>>['said'],
  hook: Hook,
): Op[] {
  const keep = { from: hook?.id ?? null, basis: 'typed' }
  return said.flatMap((part, i) =>
    note(readings, `${path}/${i}`, { ...keep, text: part.text, unit: part.unit }),
  )
}

/** Three lengths in one text. Throws with what is missing. */
export async function readThree(text: string, unit: string): Promise<[number, number, number]> {
  const [long, wide, high, more] = text.split(/[x×*]/i)
  if (long === undefined || wide === undefined || high === undefined || more !== undefined)
    throw misread('Three figures: 500 x 300 x 200.')
  const read = (part: string) => readText({ text: part.trim(), path: '/size_mm/wide_mm', unit })
  return Promise.all([read(long), read(wide), read(high)])
}

/** A thing's size becomes a block about its middle. */
async function sizeOf({ path, text, unit }: Size): Promise<Meant> {
  const thing = path.replace(/\/size$/, '')
  const to = (solid: object | null): Op[] => [{ op: 'replace', path: `${thing}/solid`, value: solid }]
  if (!text.trim()) return () => to(null)
  const sizes = await readThree(text, unit)
  return (document) => {
    const item = at(document, thing) as Item
    const block = item.solid?.type === 'block' ? item.solid : null
    const middle = block
      ? block.high_mm.map((h, i) => (h + (block.low_mm[i] ?? 0)) / 2)
      : (item.at_mm as number[] | null)
    if (!middle) throw misread('Say where it is first.')
    const [low_mm, high_mm] = [-1, 1].map((way) => middle.map((v, i) => v + (way * (sizes[i] ?? 0)) / 2))
    return to({ type: 'block', low_mm, high_mm })
  }
}

/** Puts what was typed beside the figure. */
export function note(readings: Record<string, unknown>, path: string, reading: object): Op[] {
  return [{ op: path in readings ? 'replace' : 'add', path: pointer('readings', path), value: reading }]
}

/** Along what a figure is a place; null where it is none. */
export function wayOf(path: string): PlaceAxis | null {
  const [owner = '', last = ''] = path.split('/').slice(-2)
  if (rules.sizes.includes(owner)) return null
  const ways = rules.ways as Record<string, PlaceAxis>
  return ways[last] ?? ways[last.split('_')[0] ?? ''] ?? null
}

const AXIS = { aft: 0, across: 1, left: 1, right: 1, up: 2 }

/** A figure as its blank shows it. */
export function asText(
  value: number | null,
  kind: QuantityKind,
  units: { length: 'mm' | 'in'; mass: 'kg' | 'lb' },
  way: PlaceAxis | null,
  base?: readonly number[],
): string {
  if (value === null) return ''
  if (way && kind === 'length') return along(value - (base?.[AXIS[way]] ?? 0), way, units.length)
  if (kind === 'length') return length(value, units.length)
  if (kind === 'mass')
    return String(Math.round((units.mass === 'kg' ? value : value / rules.pound_kg) * 100) / 100)
  return String(Math.round(value * 1000) / 1000)
}
