/** Turns of modules in words, and quarter turns of boxes. */
import rules from '../../design/rules.json'
import type { ModuleKind, Op } from '../../design/types'

export type Face = 'end_a' | 'end_b' | 'side_a' | 'side_b' | 'base' | 'top'

const TURNS = rules.turns as { down: Face; aft: Face; looks: Record<Face, string> }[]

export interface Turned {
  down: Face
  aft: Face
  words: string
}

/** Every turn a kind may rest in while its box stands upright, said as a fabricator says it. */
export function turnsOf(kind: ModuleKind): Turned[] {
  return (kind.may_rest_on as Face[]).flatMap((down) =>
    TURNS.filter((turn) => turn.down === down).map((turn) => turnOf(kind, down, turn.aft)),
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
  const way = TURNS.find((turn) => turn.down === down && turn.aft === aft)?.looks[face] ?? ''
  return way === 'front' ? 'forward' : way
}

/** A quarter turn about the anchor's peg: four of them return every figure. */
export function quarterTurn(box: string, yaw: number): Op[] {
  const next = yaw + 90 >= 360 ? yaw + 90 - 360 : yaw + 90
  return [{ op: 'replace', path: `/boxes/${box}/pose/yaw_deg`, value: next }]
}
