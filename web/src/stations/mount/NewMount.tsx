/** A bracket on a hard point: choose the box, its face and the spot. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useDocument, useLive } from '../../design/live'
import { carries } from '../../design/mounts'
import { freeId } from '../../design/pointer'
import { Button, Choose, Heading } from '../../ui/parts'

const FACES = [
  ['left', 'left wall'],
  ['right', 'right wall'],
  ['front', 'front wall'],
  ['aft', 'aft wall'],
] as const

export function NewMount() {
  const { boxes, hardpoints, mounts } = useDocument()
  const edit = useLive((s) => s.edit)
  const select = useChoice((s) => s.select)
  const taken = new Set(Object.values(mounts).map((m) => m.lands_on.hardpoint))
  const free = Object.entries(hardpoints).filter(([id]) => !taken.has(id))
  const [box, setBox] = useState(Object.keys(boxes)[0] ?? '')
  const [face, setFace] = useState<(typeof FACES)[number][0]>('left')
  const [spot, setSpot] = useState('')
  const at = free.some(([id]) => id === spot) ? spot : (free[0]?.[0] ?? '')
  async function add() {
    const id = freeId(`${box}-${at}`.slice(0, 50), mounts)
    const name = `${boxes[box]?.name ?? box} mount, ${hardpoints[at]?.name ?? at}`.slice(0, 120)
    const last = Object.values(mounts)
      .filter((m) => carries(m, box))
      .at(-1)
    const size = hardpoints[at]?.thread ?? last?.lands_on.bolt.size ?? 'M10'
    const like = last ? { shape: last.shape, to_box: last.to_box } : {}
    const value = {
      name,
      carries: { [`boxes/${box}`]: true },
      face,
      order: Object.keys(mounts).length,
      lands_on: { type: 'hardpoint', hardpoint: at, bolt: { size, property_class: '8.8' } },
      ...like,
    }
    if (await edit([{ op: 'add', path: `/mounts/${id}`, value }])) select(`mounts/${id}`)
  }
  return (
    <section aria-label="New mount">
      <Heading>Put a bracket on a hard point</Heading>
      {free.length === 0 ? (
        <p className="m-0">
          Every hard point carries a bracket, or none was surveyed yet. Hard points are entered in Survey.
        </p>
      ) : (
        <>
          <Choose
            label="Carries"
            value={box}
            options={Object.entries(boxes).map(([id, b]) => [id, b.name] as const)}
            onChange={setBox}
          />
          <Choose
            label="On the hard point"
            value={at}
            options={free.map(([id, p]) => [id, p.name] as const)}
            onChange={setSpot}
          />
          <Choose label="Welded to the" value={face} options={FACES} onChange={setFace} />
          <Button className="mt-1 w-full" onClick={() => void add()}>
            Put a bracket there
          </Button>
        </>
      )}
    </section>
  )
}
