/** The kinds of mounts: what each is called, what it may land on, which faces it holds, and its form. */
import type { ComponentType } from 'react'

import type { Mount } from '../../../design/types'
import { AngleForm } from './AngleForm'
import { RestForm } from './RestForm'
import { StrapForm } from './StrapForm'
import { TabForm } from './TabForm'

export type KindForm = ComponentType<{ path: string; mount: Mount }>

type Face = Mount['face']
export interface MountKind {
  name: string
  faces: readonly (readonly [Face, string])[]
  lands: readonly ('hardpoints' | 'members' | 'crossmembers')[]
  ends?: 2
  message: (mount: Mount) => string
  Form: KindForm
}

function boltOf({ lands_on: on }: Mount) {
  return 'bolt' in on ? `${on.bolt.size} ${on.bolt.property_class}` : ''
}

const WALLS = [
  ['left', 'left wall'],
  ['right', 'right wall'],
  ['front', 'front wall'],
  ['aft', 'aft wall'],
] as const

const BOLTED = ['hardpoints', 'crossmembers'] as const

export const KINDS: Record<Mount['shape']['type'], MountKind> = {
  angle: { name: 'bracket', faces: WALLS, lands: BOLTED, message: boltOf, Form: AngleForm },
  tab: {
    name: 'flat tab',
    faces: [...WALLS, ['base', 'under it, to its frame']],
    lands: BOLTED,
    message: boltOf,
    Form: TabForm,
  },
  rest: {
    name: 'rest under it',
    faces: [['base', 'base']],
    lands: ['members', 'crossmembers', 'hardpoints'],
    message: () => 'lies on a pad',
    Form: RestForm,
  },
  strap: {
    name: 'strap, second restraint',
    faces: [
      ['base', 'under it'],
      ['top', 'over it'],
    ],
    lands: ['hardpoints'],
    ends: 2,
    message: () => 'second restraint',
    Form: StrapForm,
  },
}
