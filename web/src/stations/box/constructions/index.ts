/** The form of each construction of a box. */
import type { ComponentType } from 'react'

import type { Box } from '../../../design/types'
import { FoldedForm } from './FoldedForm'

export type ConstructionForm = ComponentType<{ path: string; box: Box }>

export const CONSTRUCTIONS: Record<Box['construction']['type'], ConstructionForm> = { folded: FoldedForm }
