/** Chambers for gear on the faces of a box, each with a lid of its own. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Heading, Link } from '../../ui/parts'
import { EDGES, type FaceName, FACES, OnFace } from './OnFace'

const BLANKS = [
  ['size_mm/0', 'Along the face'],
  ['size_mm/1', 'The other way along it'],
  ['size_mm/2', 'Out to its rim'],
  ['thickness_mm', 'Sheet'],
  ['bend_radius_mm', 'Inside radius'],
  ['plate_mm', 'Insulating plate on its base'],
] as const

export function Chambers({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('aft')
  const path = `/boxes/${id}/chambers`
  function add() {
    const [[one] = [], [other] = []] = EDGES[face]
    const name = Object.keys(box.chambers).length ? 'another chamber' : 'gear chamber'
    const value = { name, face, from: [one, other], u_mm: 120, v_mm: 100, size_mm: [200, 140, 90] }
    void edit([{ op: 'add', path: `${path}/${freeId('chamber', box.chambers)}`, value }])
  }
  return (
    <section aria-label="Chambers">
      <Heading>Chambers for gear</Heading>
      {Object.entries(box.chambers).map(([key, chamber]) => (
        <div key={key} className="border-b border-hair py-1">
          <span className="flex items-center justify-between gap-2">
            <NameBlank path={`${path}/${key}/name`} label={`On the ${chamber.face}`} />
            <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>remove</Link>
          </span>
          <OnFace path={`${path}/${key}`} thing={chamber} />
          {BLANKS.map(([figure, label]) => (
            <Blank
              key={figure}
              path={`${path}/${key}/${figure}`}
              label={label}
              name={`${chamber.name}: ${label}`}
            />
          ))}
        </div>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Choose
          label="Face of the new chamber"
          hideLabel
          value={face}
          options={FACES.filter(([name]) => !Object.values(box.closures).some((lid) => lid.face === name))}
          onChange={setFace}
        />
        <Button plain onClick={add}>
          Another chamber there
        </Button>
      </div>
    </section>
  )
}
