/** The form of each kind of mount. */
import type { ComponentType } from 'react'

import type { Mount } from '../../../design/types'
import { AngleForm } from './AngleForm'

export type KindForm = ComponentType<{ path: string; mount: Mount }>

export const KINDS: Record<Mount['shape']['type'], KindForm> = { angle: AngleForm }
