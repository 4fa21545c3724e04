/** A mount on a spot of the vehicle: choose its kind, the box, its face and the spot. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { hung } from '../../design/orders'
import type { Mount } from '../../design/types'
import { Choose } from '../../ui/Choose'
import { Button, Heading } from '../../ui/parts'
import { KINDS, type MountKind } from './kinds'

export function NewMount() {
  const { boxes } = useDocument()
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const select = useChoice((s) => s.select)
  const kinds = Object.entries(KINDS)
  const [kind, setKind] = useState(kinds[0]?.[0] ?? 'angle')
  const chosen = KINDS[kind as keyof typeof KINDS]
  const free = useFree(chosen)
  const [box, setBox] = useState(Object.keys(boxes)[0] ?? '')
  const [face, setFace] = useState('')
  const [spot, setSpot] = useState('')
  const [far, setFar] = useState('')
  const on = free.some(([path]) => path === spot) ? spot : (free[0]?.[0] ?? '')
  const rest = free.filter(([path]) => path !== on)
  const other = rest.some(([path]) => path === far) ? far : (rest[0]?.[0] ?? '')
  const held = chosen.faces.some(([f]) => f === face) ? face : (chosen.faces[0]?.[0] ?? 'left')
  async function add() {
    const { id, patch } = await hung(project, {
      box,
      kind,
      on,
      face: held as MountKind['faces'][number][0],
      other: chosen.ends ? other : null,
    })
    if (await edit(patch)) select(`mounts/${id}`)
  }
  return (
    <section aria-label="New mount" className="mt-4">
      <Heading>Hang it on the car</Heading>
      {kinds.length > 1 && (
        <Choose
          label="By a"
          value={kind}
          options={kinds.map(([key, k]) => [key, k.name] as const)}
          onChange={setKind}
        />
      )}
      {free.length < (chosen.ends ?? 1) ? (
        <p className="m-0">
          Every hard point carries a bracket, or none was surveyed yet. Hard points and members are entered in
          Survey.
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
            label={chosen.lands.length > 1 ? 'Lands on' : 'On the hard point'}
            value={on}
            options={free}
            onChange={setSpot}
          />
          {chosen.ends && <Choose label="And on" value={other} options={rest} onChange={setFar} />}
          {chosen.faces.length > 1 && (
            <Choose
              label={chosen.ends ? 'Passes' : 'Wall of the box'}
              value={held}
              options={chosen.faces}
              onChange={setFace}
            />
          )}
          <Button className="mt-1 w-full" onClick={() => void add()}>
            Put it there
          </Button>
        </>
      )}
    </section>
  )
}

/** What it takes of the vehicle; a bar carries as many as one likes. */
function landing(on: Mount['lands_on']): string[] {
  if (on.type === 'member' || on.type === 'crossmember') return []
  return [on.hardpoint, ...(on.type === 'two' ? [on.other] : [])].map((id) => `hardpoints/${id}`)
}

/** What a kind of mount may land on: hard points that carry nothing yet, and bars. */
function useFree(kind: MountKind): (readonly [string, string])[] {
  const { hardpoints, members, crossmembers, mounts } = useDocument()
  const taken = new Set([
    ...Object.values(mounts).flatMap(({ lands_on: on }) => landing(on)),
    ...Object.values(crossmembers).flatMap((bar) => bar.hardpoints.map((id) => `hardpoints/${id}`)),
  ])
  const rows = { hardpoints, members, crossmembers }
  return kind.lands
    .flatMap((where) => Object.entries(rows[where]).map(([id, row]) => [`${where}/${id}`, row.name] as const))
    .filter(([path]) => !taken.has(path))
}
