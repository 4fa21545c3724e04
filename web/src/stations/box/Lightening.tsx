/** Rows of holes that only take weight off a wall. */
import { useState } from 'react'

import { useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Box } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { EDGES, type FaceName, FACES } from './OnFace'

const BLANKS = [
  ['diameter_mm', 'Each is across'],
  ['apart_mm', 'From middle to middle'],
  ['edge_mm', 'Sheet left beside them'],
] as const

export function Lightening({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('left')
  const path = `/boxes/${id}/lightening`
  const add = () =>
    void edit([{ op: 'add', path: `${path}/${freeId('holes', box.lightening)}`, value: { face } }])
  return (
    <section aria-label="Lightening holes">
      <Heading>Lightening holes</Heading>
      <p className="narrow m-0 text-sm text-soft">
        Only in a box that stands open where it is dry. They come where there is room for them.
      </p>
      {Object.entries(box.lightening).map(([key, holes]) => (
        <div key={key} className="border-b border-hair py-1">
          <span className="flex items-center justify-between gap-2">
            <span>On the {holes.face}</span>
            <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>remove</Link>
          </span>
          <Blank
            path={`${path}/${key}/from_mm`}
            label={`They begin, off the ${EDGES[holes.face][0]?.[0]}`}
            name={`Lightening holes, ${holes.face}: from`}
            optional
          />
          <Blank
            path={`${path}/${key}/to_mm`}
            label={`They end, off the ${EDGES[holes.face][0]?.[0]}`}
            name={`Lightening holes, ${holes.face}: to`}
            optional
          />
          {BLANKS.map(([figure, label]) => (
            <Blank
              key={figure}
              path={`${path}/${key}/${figure}`}
              label={label}
              name={`Lightening holes, ${holes.face}: ${label}`}
            />
          ))}
        </div>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Choose
          label="Face of the lightening holes"
          hideLabel
          value={face}
          options={FACES.filter(([name]) => !Object.values(box.closures).some((lid) => lid.face === name))}
          onChange={setFace}
        />
        <Button plain onClick={add}>
          Holes there
        </Button>
      </div>
    </section>
  )
}
