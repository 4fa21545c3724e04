/** The constructions of a box: what each is called, and its form. */
import type { ComponentType } from 'react'

import type { Box } from '../../../design/types'
import { ExistingForm } from './ExistingForm'
import { FoldedForm } from './FoldedForm'
import { FramedForm } from './FramedForm'
import { RackedForm } from './RackedForm'

export type ConstructionForm = ComponentType<{ path: string; box: Box }>

type ConstructionType = Box['construction']['type']

export const CONSTRUCTIONS: Record<ConstructionType, { name: string; Form: ConstructionForm }> = {
  folded: { name: 'folded sheet', Form: FoldedForm },
  framed: { name: 'frame with cladding', Form: FramedForm },
  racked: { name: 'open rack', Form: RackedForm },
  existing: { name: 'existing case', Form: ExistingForm },
}
