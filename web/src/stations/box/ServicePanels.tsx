/** Covers over openings in the walls of a box, each with a seal of its own. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Heading, Link } from '../../ui/parts'
import { WindowOf } from './constructions/lids'
import { EDGES, type FaceName, FACES, OnFace } from './OnFace'

const BLANKS = [
  ['size_mm/0', 'Opening along the face'],
  ['size_mm/1', 'The other way along it'],
  ['overlap_mm', 'Cover beyond it, all round'],
  ['thickness_mm', 'Cover'],
  ['gasket_mm', 'Gasket, pressed'],
  ['screws/spacing_mm', 'Screws apart'],
] as const

export function ServicePanels({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('left')
  const path = `/boxes/${id}/service_panels`
  function add() {
    const [[one] = [], [other] = []] = EDGES[face]
    const name = Object.keys(box.service_panels).length ? 'another service panel' : 'service panel'
    const value = { name, face, from: [one, other], u_mm: 140, v_mm: 110, size_mm: [120, 90] }
    void edit([{ op: 'add', path: `${path}/${freeId('panel', box.service_panels)}`, value }])
  }
  return (
    <section aria-label="Service panels">
      <Heading>Service panels</Heading>
      {Object.entries(box.service_panels).map(([key, panel]) => (
        <div key={key} className="border-b border-hair py-1">
          <span className="flex items-center justify-between gap-2">
            <NameBlank path={`${path}/${key}/name`} label={`On the ${panel.face}`} />
            <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>remove</Link>
          </span>
          <OnFace path={`${path}/${key}`} thing={panel} />
          {BLANKS.map(([figure, label]) => (
            <Blank
              key={figure}
              path={`${path}/${key}/${figure}`}
              label={label}
              name={`${panel.name}: ${label}`}
            />
          ))}
          <WindowOf path={`${path}/${key}`} window={panel.window} />
        </div>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Choose
          label="Face of the new service panel"
          hideLabel
          value={face}
          options={FACES.filter(([name]) => !Object.values(box.closures).some((lid) => lid.face === name))}
          onChange={setFace}
        />
        <Button plain onClick={add}>
          Another panel there
        </Button>
      </div>
    </section>
  )
}
