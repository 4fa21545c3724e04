/** Stations that come later say so in one honest sentence. */
import { useParams } from 'react-router'

import { Teach } from '../../ui/parts'

const WORDS: Record<string, string> = {
  wire: 'Wire is not built yet: the order of modules through the boxes, cables, taps and expected readings will stand here.',
  flow: 'Flow is not built yet: coolant loops, manifolds, heat and cold will stand here.',
  build: 'Build is not built yet: the order of assembly, lifts, checks and the log will stand here.',
}

export function Later() {
  const { station = '' } = useParams()
  return <Teach>{WORDS[station]}</Teach>
}
