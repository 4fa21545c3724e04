/** The six faces of a module, unfolded: end A, side A, end B, side B in a row, the top above side A, the base below it. */
import type { ModuleKind } from '../../design/types'

export const FACES = [
  ['end_a', 'end A'],
  ['end_b', 'end B'],
  ['side_a', 'side A'],
  ['side_b', 'side B'],
  ['base', 'base'],
  ['top', 'top'],
] as const
export type Face = (typeof FACES)[number][0]

export const WORD = Object.fromEntries(FACES) as Record<Face, string>

/** Which face lies across which edge of a face, as unfolded. */
export const ACROSS: Record<Face, { left: Face; right: Face; up: Face; down: Face }> = {
  side_a: { left: 'end_a', right: 'end_b', up: 'top', down: 'base' },
  side_b: { left: 'end_b', right: 'end_a', up: 'top', down: 'base' },
  end_a: { left: 'side_b', right: 'side_a', up: 'top', down: 'base' },
  end_b: { left: 'side_a', right: 'side_b', up: 'top', down: 'base' },
  top: { left: 'end_a', right: 'end_b', up: 'side_b', down: 'side_a' },
  base: { left: 'end_a', right: 'end_b', up: 'side_a', down: 'side_b' },
}
export type UnfoldedSide = keyof (typeof ACROSS)['top']

export interface Panel {
  face: Face
  x: number
  y: number
  wide: number
  high: number
}

const LONGEST = 190
const LEAST = 92

/** Where each face is drawn. Small sides are drawn larger than true, so that what stands on them can be read. */
export function panels(kind: ModuleKind): { panels: Panel[]; width: number; height: number } {
  const sizes = kind.size_mm as number[]
  const k = LONGEST / Math.max(...sizes)
  const [l = LEAST, w = LEAST, h = LEAST] = sizes.map((v) => Math.max(v * k, LEAST))
  return {
    panels: [
      { face: 'end_a', x: 0, y: w, wide: w, high: h },
      { face: 'side_a', x: w, y: w, wide: l, high: h },
      { face: 'end_b', x: w + l, y: w, wide: w, high: h },
      { face: 'side_b', x: 2 * w + l, y: w, wide: l, high: h },
      { face: 'top', x: w, y: 0, wide: l, high: w },
      { face: 'base', x: w, y: w + h, wide: l, high: w },
    ],
    width: 2 * (w + l),
    height: 2 * w + h,
  }
}
