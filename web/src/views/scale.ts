/** One scale for plan and side, aligned on the same aft axis. Right of the centreline is upward in plan. */
import type { Document, Shape } from '../design/types'

export type ViewName = 'plan' | 'side'
export interface Window {
  aft: [number, number]
  right: [number, number]
  up: [number, number]
}
export interface Scale {
  k: number
  width: number
  planHeight: number
  sideHeight: number
  x: (aft: number) => number
  y: (right: number) => number
  z: (up: number) => number
  aft: (px: number) => number
  right: (px: number) => number
  up: (px: number) => number
}

/** How high a view is drawn. */
export function tallOf(view: ViewName, scale: Scale): number {
  return view === 'plan' ? scale.planHeight : scale.sideHeight
}

/** Where a point (aft, right, up) is drawn. */
export function spotOf(
  [aft, right, up]: [number, number, number],
  view: ViewName,
  scale: Scale,
): [number, number] {
  return [scale.x(aft), view === 'plan' ? scale.y(right) : scale.z(up)]
}

const RULE_PX = 30
const EDGE_PX = 22

/** How the hand has moved the views: closer by a factor, and aside. */
export interface Look {
  zoom: number
  aft: number
  right: number
  up: number
}
export const AS_IS: Look = { zoom: 1, aft: 0, right: 0, up: 0 }

export function looked({ aft, right, up }: Window, look: Look): Window {
  const near = ([low, high]: [number, number], by: number): [number, number] => {
    const [middle, half] = [(low + high) / 2 + by, (high - low) / 2 / look.zoom]
    return [middle - half, middle + half]
  }
  return { aft: near(aft, look.aft), right: near(right, look.right), up: near(up, look.up) }
}

/** Closer by a factor about a spot that stays where it is. */
export function closer(look: Look, factor: number, spot: Partial<Omit<Look, 'zoom'>>, window: Window): Look {
  const zoom = Math.min(Math.max(look.zoom * factor, 0.5), 12)
  const by = zoom / look.zoom
  const shifted = (axis: 'aft' | 'right' | 'up') => {
    const at = spot[axis]
    if (at === undefined) return look[axis]
    const middle = (window[axis][0] + window[axis][1]) / 2
    return at + (middle + look[axis] - at) / by - middle
  }
  return { zoom, aft: shifted('aft'), right: shifted('right'), up: shifted('up') }
}

/** ``only``: one view at a time, as on a small screen. */
export function makeScale(window: Window, width: number, height: number, only?: ViewName): Scale {
  if (only) return oneScale(window, width, height - RULE_PX, only)
  const spans = [window.aft, window.right, window.up].map(([low, high]) => high - low)
  const [along = 1, across = 1, rise = 1] = spans
  const room = Math.max(height - RULE_PX - 2 * EDGE_PX, 120)
  const k = Math.min((width - 2 * EDGE_PX) / along, room / (across + rise))
  const spare = room - k * (across + rise)
  const planHeight = k * across + EDGE_PX + spare / 2
  const sideHeight = height - RULE_PX - planHeight
  const left = (width - k * along) / 2
  const planTop = EDGE_PX / 2 + spare / 4
  const ground = sideHeight - EDGE_PX / 2 - spare / 4
  return {
    k,
    width,
    planHeight,
    sideHeight,
    x: (aft) => left + (aft - window.aft[0]) * k,
    y: (right) => planTop + (window.right[1] - right) * k,
    z: (up) => ground - (up - window.up[0]) * k,
    aft: (px) => (px - left) / k + window.aft[0],
    right: (px) => window.right[1] - (px - planTop) / k,
    up: (px) => (ground - px) / k + window.up[0],
  }
}

function oneScale(window: Window, width: number, height: number, only: ViewName): Scale {
  const other = only === 'plan' ? window.right : window.up
  const [along, rise] = [window.aft[1] - window.aft[0], other[1] - other[0]]
  const k = Math.min((width - 2 * EDGE_PX) / along, Math.max(height - 2 * EDGE_PX, 80) / rise)
  const left = (width - k * along) / 2
  const top = (height - k * rise) / 2
  return {
    k,
    width,
    planHeight: only === 'plan' ? height : 0,
    sideHeight: only === 'side' ? height : 0,
    x: (aft) => left + (aft - window.aft[0]) * k,
    y: (right) => top + (window.right[1] - right) * k,
    z: (up) => height - top - (up - window.up[0]) * k,
    aft: (px) => (px - left) / k + window.aft[0],
    right: (px) => window.right[1] - (px - top) / k,
    up: (px) => (height - top - px) / k + window.up[0],
  }
}

/** The whole car, drawn from its figures; or what has been measured of it so far. */
export function carWindow({ vehicle }: Document, shapes: readonly Shape[]): Window {
  const overall = vehicle.overall
  const tracks = vehicle.track_mm
  const aft = [
    -(overall?.overhang_front_mm ?? 500),
    vehicle.wheelbase_mm + (overall?.overhang_rear_mm ?? 500),
  ]
  const half = (overall?.width_mm ?? (tracks ? Math.max(tracks.front, tracks.rear) + 250 : 1500)) / 2
  const right = [-half, half]
  const up = [-20, overall?.height_mm ?? 1000]
  for (const shape of shapes) {
    for (const [a, b] of shape.plan) grow(aft, a, right, b)
    for (const [, b] of shape.side) grow(up, b, up, b)
  }
  return { aft: pair(aft, 30), right: pair(right, 30), up: pair(up, 15) }
}

/** One space with a margin round it. */
export function bayWindow(path: string, shapes: readonly Shape[]): Window | null {
  const bay = shapes.find((s) => s.path === path && s.kind === 'bay')
  if (!bay) return null
  const aft: number[] = []
  const right: number[] = []
  const up: number[] = []
  for (const [a, b] of bay.plan) {
    aft.push(a)
    right.push(b)
  }
  for (const [, b] of bay.side) up.push(b)
  const ends = (values: number[]) => [Math.min(...values), Math.max(...values)]
  return { aft: pair(ends(aft), 140), right: pair(ends(right), 80), up: pair(ends(up), 90) }
}

function grow(one: number[], a: number, other: number[], b: number) {
  one[0] = Math.min(one[0] ?? a, a)
  one[1] = Math.max(one[1] ?? a, a)
  other[0] = Math.min(other[0] ?? b, b)
  other[1] = Math.max(other[1] ?? b, b)
}

function pair([low = 0, high = 1]: number[], margin: number): [number, number] {
  return [low - margin, high + margin]
}
