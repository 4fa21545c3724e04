/** Spaces by stations: each station six figures; each side metal, open or not measured. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Bay, BayStation } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Button, Choose, Heading, OneOf, Teach } from '../../ui/parts'
import { BaySketch } from './BaySketch'
import { GapClass, RowHead, useBase } from './rows'

const SIDES = ['fore', 'aft', 'left', 'right', 'floor', 'top'] as const
const IS = [
  ['metal', 'metal'],
  ['open', 'open'],
  ['not measured', 'not measured'],
] as const
const FIGURES = [
  ['aft_mm', 'aft'],
  ['floor_mm', 'floor, up'],
  ['top_left_mm', 'top left, up'],
  ['top_right_mm', 'top right, up'],
  ['left_floor_mm', 'left at floor'],
  ['left_top_mm', 'left at top'],
  ['right_floor_mm', 'right at floor'],
  ['right_top_mm', 'right at top'],
] as const

function newBay(at: [number, number, number] | undefined): object {
  const [aft, across, up] = at ?? [1500, 0, 300]
  const station = (x: number) => ({
    aft_mm: x,
    floor_mm: up,
    top_left_mm: up + 300,
    top_right_mm: up + 300,
    left_floor_mm: across - 350,
    left_top_mm: across - 350,
    right_floor_mm: across + 350,
    right_top_mm: across + 350,
  })
  const sides = Object.fromEntries(SIDES.map((side) => [side, { is: 'not measured', gap_class: 'other' }]))
  return { name: 'new space', stations: { a: station(aft), b: station(aft + 500) }, sides }
}

export function Bays() {
  const { bays, references } = useDocument()
  const selected = useChoice((s) => s.selected)
  const edit = useLive((s) => s.edit)
  const ids = Object.keys(bays)
  const [chosen, setChosen] = useState<string | null>(
    selected?.startsWith('bays/') ? (selected.split('/')[1] ?? null) : null,
  )
  const id = chosen && bays[chosen] ? chosen : (ids[0] ?? null)
  async function add() {
    const first = Object.keys(references)[0]
    const from = first ? references[first] : undefined
    const key = freeId('space', bays)
    const value = {
      ...newBay(from?.at_mm as [number, number, number] | undefined),
      measured_from: first ?? null,
    }
    if (await edit([{ op: 'add', path: `/bays/${key}`, value }])) setChosen(key)
  }
  if (!id)
    return (
      <Teach action={<Button onClick={() => void add()}>Measure the first space</Button>}>
        Hook the tape on a reference point and take the space at two or more stations.
      </Teach>
    )
  return (
    <>
      <div className="mb-2">
        <OneOf
          label="Spaces"
          value={id}
          options={ids.map((key) => [key, bays[key]?.name ?? key] as const)}
          onChange={setChosen}
        >
          <Button plain onClick={() => void add()}>
            Another space
          </Button>
        </OneOf>
      </div>
      <BaySheet key={id} id={id} bay={bays[id] as Bay} />
    </>
  )
}

function BaySheet({ id, bay }: { id: string; bay: Bay }) {
  const edit = useLive((s) => s.edit)
  const { base, pick } = useBase(bay.measured_from ?? '')
  const path = `/bays/${id}`
  const stations = Object.entries(bay.stations).sort(([, a], [, b]) => a.aft_mm - b.aft_mm)
  function another() {
    const last = stations.at(-1)?.[1] as BayStation
    const key = freeId('s', bay.stations)
    void edit([{ op: 'add', path: `${path}/stations/${key}`, value: { ...last, aft_mm: last.aft_mm + 200 } }])
  }
  return (
    <>
      <RowHead path={path} />
      {pick}
      <div className="flex flex-wrap items-start gap-8 overflow-x-auto">
        <table className="border-collapse">
          <caption className="heading text-left">Stations</caption>
          <thead>
            <tr className="text-sm text-soft">
              <th />
              {stations.map(([key], i) => (
                <th key={key} className="px-2 text-right font-semibold">
                  station {i + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {FIGURES.map(([name, words]) => (
              <tr key={name} className="border-b border-hair">
                <th className="narrow pr-3 text-left font-normal">{words}</th>
                {stations.map(([key], i) => (
                  <td key={key}>
                    <Blank
                      path={`${path}/stations/${key}/${name}`}
                      label={`station ${i + 1}, ${words}`}
                      hideLabel
                      list="survey"
                      from={base}
                      neighbours={
                        name === 'aft_mm' ? [] : stations.filter(([k]) => k !== key).map(([, s]) => s[name])
                      }
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <BaySketch bay={bay} />
      </div>
      <div className="my-2 flex gap-2">
        <Button plain onClick={another}>
          Another station
        </Button>
        {stations.length > 2 && (
          <Button
            plain
            onClick={() => void edit([{ op: 'remove', path: `${path}/stations/${stations.at(-1)?.[0]}` }])}
          >
            Remove the last station
          </Button>
        )}
      </div>
      <Heading>Its sides</Heading>
      <div className="grid grid-cols-1 gap-x-8 lg:grid-cols-2">
        {SIDES.map((side) => (
          <div key={side}>
            <Choose
              label={side}
              value={bay.sides[side].is}
              options={IS}
              onChange={(v) => void edit([{ op: 'replace', path: `${path}/sides/${side}/is`, value: v }])}
            />
            {bay.sides[side].is === 'metal' && <GapClass path={`${path}/sides/${side}/gap_class`} />}
          </div>
        ))}
      </div>
    </>
  )
}
