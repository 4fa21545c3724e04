/** What could carry a box: hard points, members, and the openings things pass through. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useDocument, useLoaded } from '../../design/live'
import { behind, carriersQuery } from '../../design/queries'
import type { HardPoint, Member } from '../../design/types'
import { length } from '../../ui/format'
import { Choose } from '../../ui/Choose'
import { Button, Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { type Field, RowList } from '../fields'

const same = (words: readonly string[]) => words.map((w) => [w, w] as const)

export function HardPointRows() {
  const { tables, members } = useDocument()
  const bolts = same(Object.keys(tables.bolts))
  const held = Object.entries(members).map(([id, m]) => [id, m.name] as const)
  const point: Field[] = [
    { kind: 'place', at: 'at_mm', label: 'Where' },
    { kind: 'way', at: 'direction', label: 'From the metal, a bracket lies' },
    {
      kind: 'choose',
      at: 'kind',
      label: 'It is a',
      options: same([
        'hole',
        'captive nut',
        'rivet nut',
        'insert',
        'tapped thread',
        'stud',
        'strap point',
        'seat or belt point',
      ]),
    },
    { kind: 'choose', at: 'thread', label: 'Thread', options: bolts, empty: 'not known' },
    { kind: 'length', at: 'wall_mm', label: 'Wall, by caliper (empty: not known)', optional: true },
    {
      kind: 'number',
      at: 'tested_n',
      label: 'One like it held in a pull test (N)',
      optional: true,
    },
    { kind: 'mass', at: 'carried_kg', label: 'It carried before', optional: true },
    { kind: 'text', at: 'carried', label: 'What it carried' },
    { kind: 'text', at: 'approved', label: 'A seat or belt point: approved for more by' },
    { kind: 'tick', at: 'uncut', label: 'Reuse leaves the vehicle uncut' },
    { kind: 'choose', at: 'member', label: 'It sits on', options: held, empty: 'nothing listed' },
  ]
  const member: Field[] = [
    { kind: 'place', at: 'start_mm', label: 'Its middle line from' },
    { kind: 'place', at: 'end_mm', label: 'to' },
    { kind: 'length', at: 'width_mm', label: 'Width' },
    { kind: 'length', at: 'height_mm', label: 'Height' },
    {
      kind: 'choose',
      at: 'section',
      label: 'Section',
      options: same(['closed', 'open channel', 'angle', 'tube', 'plate']),
    },
    { kind: 'length', at: 'wall_mm', label: 'Wall (empty: not known)', optional: true },
    {
      kind: 'choose',
      at: 'material',
      label: 'Material',
      options: Object.entries(tables.materials).map(([id, m]) => [id, m.name] as const),
      empty: 'not known',
    },
    { kind: 'tick', at: 'main', label: 'Part of the main structure (not bolted on)' },
    {
      kind: 'choose',
      at: 'condition',
      label: 'Condition',
      options: same(['not looked at', 'sound', 'surface rust', 'rusted through', 'cracked', 'repaired']),
    },
  ]
  return (
    <>
      <RowList
        pick
        collection="hardpoints"
        title="Hard points"
        teach="Every hole, captive nut, stud and strap point that could carry a box. What a point carried before is evidence for the road up to that weight, and none for a crash; one that holds a seat or a belt needs its own approval."
        add="Another hard point"
        line
        fresh={(base, { hardpoints }) => ({
          ...likeTheLast(hardpoints),
          name: 'new hard point',
          at_mm: base?.at ?? [1000, 0, 400],
        })}
        fields={point}
        summary={(p: HardPoint) =>
          [p.kind, p.thread ?? 'thread not known', p.wall_mm ? '' : 'wall not known']
            .filter(Boolean)
            .join(', ')
        }
      />
      <RowList
        pick
        collection="members"
        title="Members"
        teach="Rails, crossmembers and beams: mounts land on them."
        add="Another member"
        fresh={(base) => {
          const [a, b, c] = base?.at ?? [1000, 0, 400]
          return {
            name: 'new member',
            start_mm: [a, b, c],
            end_mm: [a + 500, b, c],
            width_mm: 50,
            height_mm: 70,
          }
        }}
        fields={member}
        summary={(m: Member) => `${m.main ? 'main' : 'bolted on'}, ${m.condition}`}
      />
      <RowList
        pick
        collection="openings"
        title="Openings of the vehicle"
        teach="Access panels, doors and hatches with their clear size, and what is to be cut."
        add="Another opening"
        fresh={(base) => ({
          name: 'new opening',
          at_mm: base?.at ?? [2000, 0, 500],
          direction: [0, 0, 1],
          width_mm: 300,
          height_mm: 200,
        })}
        fields={[
          { kind: 'place', at: 'at_mm', label: 'Its middle' },
          { kind: 'way', at: 'direction', label: 'It looks' },
          { kind: 'length', at: 'width_mm', label: 'Clear width' },
          { kind: 'length', at: 'height_mm', label: 'Clear height' },
          { kind: 'choose', at: 'cut', label: 'It is', options: same(['existing', 'to be cut']) },
          { kind: 'text', at: 'gives', label: 'What it gives access to' },
          { kind: 'text', at: 'lost', label: 'What is lost by cutting' },
          { kind: 'text', at: 'framed', label: 'What frames it' },
          { kind: 'length', at: 'rim_mm', label: 'Rim frame round it, wide' },
        ]}
      />
      <Near />
      <Behind />
    </>
  )
}

/** A row of points is mostly of one sort: what is set for one is there for the next. */
function likeTheLast(points: Record<string, HardPoint>): object {
  const last = Object.values(points).at(-1)
  if (!last) return { direction: [0, 0, 1] }
  const { direction, kind, thread, structure, uncut } = last
  return { direction, kind, thread, structure, uncut }
}

/** The round of a space ends with: what could carry a box near here? */
function Near() {
  const { bays } = useDocument()
  const { project, revision } = useLoaded()
  const ids = Object.keys(bays)
  const [bay, setBay] = useState(ids[0] ?? '')
  const { data } = useQuery({ ...carriersQuery(project, revision, bay), enabled: bay in bays })
  const units = useUnits('survey')
  if (ids.length === 0) return null
  return (
    <section aria-label="What could carry a box near here">
      <Heading>What could carry a box near here?</Heading>
      <Choose
        label="Near"
        value={bay}
        options={ids.map((id) => [id, bays[id]?.name ?? id] as const)}
        onChange={setBay}
      />
      {data?.length === 0 && (
        <p className="my-1">Nothing listed within reach. Look along its edges and list what is there.</p>
      )}
      <ul className="m-0 list-none p-0">
        {data?.map((row) => (
          <li key={row.path} className="flex justify-between gap-3 border-b border-hair py-1">
            <span>
              <strong className="font-semibold">{row.name}</strong>
              <span className="narrow block text-sm text-soft">{row.message}</span>
            </span>
            <span className="whitespace-nowrap">
              {row.distance_mm === 0 ? 'in it' : `${length(row.distance_mm, units.length, 'up')} off`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

const ASKED = {
  down: [0, 0, -1],
  up: [0, 0, 1],
  forward: [-1, 0, 0],
  aft: [1, 0, 0],
  left: [0, -1, 0],
  right: [0, 1, 0],
} as const

/** "What is behind this hole": how deep one may drill from a hard point. */
function Behind() {
  const { hardpoints } = useDocument()
  const { project } = useLoaded()
  const units = useUnits('survey')
  const ids = Object.keys(hardpoints)
  const [id, setId] = useState(ids[0] ?? '')
  const [way, setWay] = useState<keyof typeof ASKED>('down')
  const [answer, setAnswer] = useState('')
  if (ids.length === 0) return null
  async function ask() {
    const at = hardpoints[id]?.at_mm as [number, number, number]
    const found = await behind(project, at, [...ASKED[way]])
    setAnswer(
      found.depth_mm === null
        ? 'Nothing listed stands behind it.'
        : `${length(found.depth_mm, units.length, 'down')} ${units.length === 'mm' ? 'mm ' : ''}to ${found.name}.`,
    )
  }
  return (
    <section aria-label="What is behind this hole">
      <Heading>What is behind this hole?</Heading>
      <Choose
        label="From"
        value={id}
        options={ids.map((key) => [key, hardpoints[key]?.name ?? key] as const)}
        onChange={setId}
      />
      <Choose
        label="Drilling"
        value={way}
        options={(Object.keys(ASKED) as (keyof typeof ASKED)[]).map((w) => [w, w] as const)}
        onChange={setWay}
      />
      <div className="flex items-center gap-3">
        <Button plain onClick={() => void ask()}>
          How deep?
        </Button>
        <span role="status" className="text-lg font-semibold">
          {answer}
        </span>
      </div>
    </section>
  )
}
