/** How far something goes on a face of a box, in the drawing and from its edges. */
export type Two = readonly [number, number]

/** Its distances from its edges after it went so far in the drawing, in whole millimetres where they change. */
export function movedTo(ways: readonly [Two, Two], mm: Two, by: Two): Two {
  const along = (i: 0 | 1) => {
    const way = ways[i]
    const far = Math.round(by[0] * way[0] + by[1] * way[1])
    return far ? Math.round(mm[i] + far) : mm[i]
  }
  return [along(0), along(1)]
}
