/** What stands out of a box: glands with the bend of their cable, hose tails, handles, lifting eyes. Gaps are measured to it. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { EDGES, type FaceName, FACES, OnFace } from './OnFace'

/** To start from: across, out, bend radius. */
const KINDS = {
  gland: ['gland', 30, 35, 60],
  'hose tail': ['hose tail', 25, 40, 80],
  plug: ['plug', 40, 50, 50],
  'bleed screw': ['bleed screw', 15, 20, 0],
  handle: ['handle', 120, 45, 0],
  'lifting eye': ['lifting eye', 40, 40, 0],
  other: ['other', 40, 20, 0],
} as const
type ProtrusionKind = keyof typeof KINDS

export function Protrusions({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('aft')
  const [kind, setKind] = useState<ProtrusionKind>('gland')
  const path = `/boxes/${id}/protrusions`
  function add() {
    const [[one] = [], [other] = []] = EDGES[face]
    const [name, across_mm, out_mm, bend_radius_mm] = KINDS[kind]
    const value = {
      name,
      kind,
      face,
      from: [one, other],
      u_mm: 80,
      v_mm: 80,
      across_mm,
      out_mm,
      bend_radius_mm,
    }
    void edit([{ op: 'add', path: `${path}/${freeId(kind.replace(' ', '-'), box.protrusions)}`, value }])
  }
  return (
    <section aria-label="What stands out">
      <Heading>What stands out</Heading>
      {Object.entries(box.protrusions).map(([key, thing]) => (
        <div key={key} className="border-b border-hair py-1">
          <span className="flex items-center justify-between gap-2">
            <NameBlank path={`${path}/${key}/name`} label={`On the ${thing.face}`} />
            <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>remove</Link>
          </span>
          <OnFace path={`${path}/${key}`} thing={thing} />
          <div className="grid grid-cols-2 gap-2">
            <Blank path={`${path}/${key}/across_mm`} label="Across" />
            <Blank path={`${path}/${key}/out_mm`} label="Out" />
          </div>
          <Blank path={`${path}/${key}/bend_radius_mm`} label="Least bend radius after it" />
        </div>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Choose
          label="What stands out there"
          hideLabel
          value={kind}
          options={(Object.keys(KINDS) as ProtrusionKind[]).map((k) => [k, k] as const)}
          onChange={setKind}
        />
        <Choose label="Face it stands on" hideLabel value={face} options={FACES} onChange={setFace} />
        <Button plain onClick={add}>
          Put it there
        </Button>
      </div>
    </section>
  )
}
