/** Where a name stands: off what is taken, and where it can on no line of the drawing. */
import { type Area, meet } from './Flags'

export type Spot = readonly [number, number]
export type Stroke = readonly [Spot, Spot]

/** The strokes of a closed outline. */
export const strokesOf = (ring: readonly Spot[]): Stroke[] =>
  ring.map((spot, i) => [spot, ring[i + 1] ?? ring[0] ?? spot] as const)

/** Whether a stroke goes through an area: what of it is left between the area's four sides. */
export function goesThrough([[ax, ay], [bx, by]]: Stroke, { x0, x1, y0, y1 }: Area): boolean {
  let [from, to] = [0, 1]
  for (const [start, way, low, high] of [
    [ax, bx - ax, x0, x1],
    [ay, by - ay, y0, y1],
  ] as const) {
    if (way === 0 && (start <= low || start >= high)) return false
    if (way === 0) continue
    const [a, b] = [(low - start) / way, (high - start) / way]
    from = Math.max(from, Math.min(a, b))
    to = Math.min(to, Math.max(a, b))
  }
  return from < to
}

/** The first of some areas that is free and on no stroke, or else free; null where none is. */
export function freeOf(
  areas: readonly Area[],
  taken: readonly Area[],
  strokes: readonly Stroke[],
): Area | null {
  const free = areas.filter((area) => !taken.some((other) => meet(area, other)))
  return free.find((area) => !strokes.some((stroke) => goesThrough(stroke, area))) ?? free[0] ?? null
}
