/** Edges of a box cut off where its space tapers: how far along each of the two faces. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import rules from '../../design/rules.json'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { Tick } from '../../ui/Tick'

/** Of each edge, those that it meets in a corner: two of them are not unfolded. */
const MEETS: Record<string, string[]> = rules.cut_edges

export function CutOff({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [wish, setEdge] = useState('left base')
  const taken = Object.values(box.chamfers).flatMap(({ edge: [one, other] }) => [
    `${one} ${other}`,
    `${other} ${one}`,
  ])
  const free = Object.keys(MEETS).filter((one) => !taken.some((other) => MEETS[one]?.includes(other)))
  const edge = free.includes(wish) ? wish : free[0]
  const path = `/boxes/${id}/chamfers`
  function add(edge: string) {
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
            {chamfer.edge.includes('base') && (
              <Tick
                label="cut out square, a step that modules stand on"
                value={chamfer.square}
                onChange={(value) => void edit([{ op: 'replace', path: `${path}/${key}/square`, value }])}
              />
            )}
          </div>
        )
      })}
      {taken.length > 0 && (
        <p className="narrow m-0 pt-1 text-sm text-soft">
          An edge that meets one of these in a corner is not unfolded, and not offered.
        </p>
      )}
      {edge && (
        <div className="mt-2 flex items-center gap-2">
          <Choose
            label="Edge to cut off"
            hideLabel
            value={edge}
            options={free.map((e) => [e, e] as const)}
            onChange={setEdge}
          />
          <Button plain onClick={() => add(edge)}>
            Cut it off
          </Button>
        </div>
      )}
    </section>
  )
}
