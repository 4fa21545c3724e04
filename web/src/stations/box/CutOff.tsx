/** Edges of a box cut off where its space tapers: how far along each of the two faces. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import rules from '../../design/rules.json'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'

const EDGES = rules.cut_edges.map((faces) => faces.join(' '))

export function CutOff({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [edge, setEdge] = useState('left base')
  const path = `/boxes/${id}/chamfers`
  function add() {
    const value = { edge: edge.split(' '), mm: [20, 20] }
    void edit([{ op: 'add', path: `${path}/${freeId(edge.replace(' ', '-'), box.chamfers)}`, value }])
  }
  return (
    <section aria-label="Edges cut off">
      <Heading>Edges cut off</Heading>
      {Object.entries(box.chamfers).map(([key, chamfer]) => {
        const [one, other] = chamfer.edge
        return (
          <div key={key} className="border-b border-hair py-1">
            <span className="flex items-center justify-between gap-2">
              <strong>
                {one} {other}
              </strong>
              <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>leave it on</Link>
            </span>
            <div className="grid grid-cols-2 gap-2">
              <Blank path={`${path}/${key}/mm/0`} label={`on the ${one}`} />
              <Blank path={`${path}/${key}/mm/1`} label={`on the ${other}`} />
            </div>
          </div>
        )
      })}
      <div className="mt-2 flex items-center gap-2">
        <Choose
          label="Edge to cut off"
          hideLabel
          value={edge}
          options={EDGES.map((e) => [e, e] as const)}
          onChange={setEdge}
        />
        <Button plain onClick={add}>
          Cut it off
        </Button>
      </div>
    </section>
  )
}
