/** What lies under a press, topmost first. */
import type { Shape } from '../design/types'
import type { ViewName } from './scale'

export interface Hit {
  path: string
  words: string
}

const PRESSED = new Set([
  'tray',
  'lid',
  'head',
  'module',
  'bracket',
  'item',
  'keepout',
  'crush',
  'gone',
  'payload',
])
const NEAR_MM = 6

/** Every thing under a point of a view, each once. A box and its lid are one thing; each module is one. */
export function hitsAt(shapes: readonly Shape[], view: ViewName, aft: number, other: number): Hit[] {
  const found = shapes
    .filter((s) => PRESSED.has(s.kind) && inside(view === 'plan' ? s.plan : s.side, aft, other))
    .sort((a, b) => rank(a, view) - rank(b, view))
    .map((s) => ({ path: target(s), words: words(s) }))
  return found.filter((hit, i) => found.findIndex((h) => h.path === hit.path) === i)
}

export function target(shape: Shape): string {
  if (shape.kind === 'module') return `${shape.path}#${shape.label}`
  return shape.path
}

function words(shape: Shape): string {
  return shape.kind === 'tray' || shape.kind === 'lid' || shape.kind === 'head'
    ? shape.name.replace(/ (tray|lid|screw head)$/, '')
    : shape.name
}

/** In plan what is higher is met first; from the side a box before what is in it, and that before the rest. */
function rank(shape: Shape, view: ViewName): number {
  const kind = { lid: 0, tray: 1, head: 0, bracket: 2, module: 3 }[shape.kind] ?? 4
  const soft = shape.kind === 'crush' || shape.kind === 'gone' ? 1e6 : 0
  return view === 'plan' ? soft - shape.up_mm : soft + kind * 1e4 - shape.up_mm
}

function inside(polygon: readonly (readonly [number, number] | number[])[], a: number, b: number): boolean {
  let odd = false
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [xi = 0, yi = 0] = polygon[i] as number[]
    const [xj = 0, yj = 0] = polygon[j] as number[]
    if (yi > b !== yj > b && a < ((xj - xi) * (b - yi)) / (yj - yi) + xi) odd = !odd
    if (Math.hypot(a - xi, b - yi) < NEAR_MM) return true
  }
  return odd
}
