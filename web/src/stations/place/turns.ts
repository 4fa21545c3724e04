/** Turns of modules in words, and quarter turns of boxes. */
import type { ModuleKind, Op } from '../../design/types'

export type Face = 'end_a' | 'end_b' | 'side_a' | 'side_b' | 'base' | 'top'

const NORMAL: Record<Face, [number, number, number]> = {
  end_a: [-1, 0, 0],
  end_b: [1, 0, 0],
  side_a: [0, -1, 0],
  side_b: [0, 1, 0],
  base: [0, 0, -1],
  top: [0, 0, 1],
}
const FACES = Object.keys(NORMAL) as Face[]
const OPPOSITE: Record<Face, Face> = {
  end_a: 'end_b',
  end_b: 'end_a',
  side_a: 'side_b',
  side_b: 'side_a',
  base: 'top',
  top: 'base',
}

export interface Turned {
  down: Face
  aft: Face
  words: string
}

/** Every turn a kind may rest in while its box stands upright, said as a fabricator says it. */
export function turnsOf(kind: ModuleKind): Turned[] {
  return (kind.may_rest_on as Face[]).flatMap((down) =>
    FACES.filter((aft) => aft !== down && aft !== OPPOSITE[down]).map((aft) => turnOf(kind, down, aft)),
  )
}

export const turnOf = (kind: ModuleKind, down: Face, aft: Face): Turned => ({
  down,
  aft,
  words: wordsOf(kind, down, aft),
})

function wordsOf(kind: ModuleKind, down: Face, aft: Face): string {
  const lying =
    down === 'base' ? 'flat' : down === 'top' ? 'upside down' : down.startsWith('side') ? 'on edge' : 'on end'
  const side = down === 'side_b' ? ', other side' : ''
  return `${lying}${side}, terminals ${wayOf(kind.terminals as Face, down, aft)}`
}

/** Which way a face looks in the box. */
function wayOf(face: Face, down: Face, aft: Face): string {
  if (face === down) return 'down'
  if (face === OPPOSITE[down]) return 'up'
  if (face === aft) return 'aft'
  if (face === OPPOSITE[aft]) return 'forward'
  const up = NORMAL[OPPOSITE[down]]
  const back = NORMAL[aft]
  const right = [
    up[1] * back[2] - up[2] * back[1],
    up[2] * back[0] - up[0] * back[2],
    up[0] * back[1] - up[1] * back[0],
  ]
  const along = NORMAL[face].reduce((sum, v, i) => sum + v * (right[i] ?? 0), 0)
  return along > 0 ? 'right' : 'left'
}

/** A quarter turn about the anchor's peg: four of them return every figure. */
export function quarterTurn(box: string, yaw: number): Op[] {
  const next = yaw + 90 >= 360 ? yaw + 90 - 360 : yaw + 90
  return [{ op: 'replace', path: `/boxes/${box}/pose/yaw_deg`, value: next }]
}
