/** A thing opened: its shape, how it moves, how hot it gets, what it asks for, and what its going leaves free. */
import { useState } from 'react'

import { wordsOf } from '../../../design/api'
import rules from '../../../design/rules.json'
import { useDocument, useLive, useLoaded } from '../../../design/live'
import { freed, seated } from '../../../design/orders'
import type { Item, Op } from '../../../design/types'
import { useAsked } from '../../../design/useAsked'
import { Blank } from '../../../ui/Blank'
import { NameBlank } from '../../../ui/NameBlank'
import { Choose } from '../../../ui/Choose'
import { Tick } from '../../../ui/Tick'
import { Button } from '../../../ui/parts'
import { KeptFaces } from '../../KeptFaces'
import { Fluid } from '../Fluid'
import { type Base, GapClass, RowHead } from '../../rows'
import { SolidBlanks } from '../SolidBlanks'
import { EDGES, FACES as ON, OnFace } from '../../box/OnFace'
import { SweepBlanks } from './SweepBlanks'
import { STATES } from './states'

const ROLES = rules.roles

export function ThingSheet({ id, item, base }: { id: string; item: Item; base: Base | null }) {
  const edit = useLive((s) => s.edit)
  const path = `/items/${id}`
  const put = (name: string, value: unknown) => void edit([{ op: 'replace', path: `${path}/${name}`, value }])
  return (
    <div className="mb-3 grid grid-cols-1 gap-x-8 rounded border border-edge bg-white p-3 lg:grid-cols-2">
      <div>
        <RowHead path={path} />
        <Choose label="It" value={item.state} options={STATES} onChange={(v) => put('state', v)} />
        {item.state !== 'stays' && (
          <>
            <Fluid path={path} fluid={item.fluid} />
            <Blank path={`${path}/tol_kg`} label="Mass, ±" kind="mass" />
          </>
        )}
        {item.state === 'out' && (
          <Tick label="It holds or held fuel" value={item.fuel} onChange={(v) => put('fuel', v)} />
        )}
        <Choose
          label="It is fixed to the"
          value={item.structure}
          options={(['body', 'frame', 'subframe', 'axle'] as const).map((w) => [w, w] as const)}
          onChange={(v) => put('structure', v)}
        />
        {(item.state === 'in' || item.place.type === 'box') && <Sits id={id} item={item} />}
        {item.state === 'in' && (
          <>
            <Choose
              label="What it is"
              value={item.role ?? ''}
              options={[['', 'nobody has said'], ...ROLES.map((role) => [role, role] as const)]}
              onChange={(role) => put('role', role || null)}
            />
            <Blank path={`${path}/least_v`} label="Works from" kind="voltage" optional />
            <Blank path={`${path}/most_v`} label="Works up to" kind="voltage" optional />
          </>
        )}
        <Blank path={`${path}/heat_w`} label="Heat it gives off (W)" kind="number" optional />
        <NameBlank path={`${path}/note`} label="Note" long />
      </div>
      <div>
        <SolidBlanks path={`${path}/solid`} base={base} optional />
        {item.solid && item.state === 'out' && <Offer id={id} />}
        {item.solid && item.state !== 'out' && (
          <>
            <GapClass path={`${path}/gap_class`} />
            {item.gap_class === 'hot' && (
              <Tick
                label="behind a heat shield"
                value={item.shielded}
                onChange={(v) => void edit([{ op: 'replace', path: `${path}/shielded`, value: v }])}
              />
            )}
            <SweepBlanks path={`${path}/sweep`} sweep={item.sweep ?? null} base={base} />
            <KeptFaces path={`${path}/keep_clear`} rows={item.keep_clear} />
          </>
        )}
      </div>
    </div>
  )
}

/** On the vehicle, or in or on a box: then it goes, turns and weighs with that, and its figures are said from a face of it. */
function Sits({ id, item }: { id: string; item: Item }) {
  const { boxes } = useDocument()
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const { ask, problem } = useAsked()
  const { place } = item
  const chambers = (place.type === 'box' && boxes[place.box]?.chambers) || {}
  const path = `/items/${id}/place`
  const put = (name: string, value: unknown) => void edit([{ op: 'replace', path: `${path}/${name}`, value }])
  const sit = (box: string | null) => ask(() => seated(project, id, box))
  return (
    <>
      <Choose
        label="It sits"
        value={place.type === 'box' ? place.box : (item.fixed_to ?? '')}
        options={[
          ['', 'on the vehicle'],
          ...Object.entries(boxes).map(([key, box]) => [key, `in or on the ${box.name}`] as const),
        ]}
        onChange={(v) => void sit(v || null)}
      />
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
      {place.type === 'box' && (
        <>
          {Object.keys(chambers).length > 0 && (
            <Choose
              label="In the chamber"
              value={place.chamber ?? ''}
              options={[
                ['', 'none, with the modules'],
                ...Object.entries(chambers).map(([key, chamber]) => [key, chamber.name] as const),
              ]}
              onChange={(key) => put('chamber', key || null)}
            />
          )}
          <Choose
            label="On its"
            value={place.face}
            options={ON}
            onChange={(face) => {
              const [[one] = [], [other] = []] = EDGES[face]
              void edit([{ op: 'replace', path, value: { ...place, face, from: [one, other] } }])
            }}
          />
          <OnFace path={path} thing={{ ...place, name: item.name }} />
          <Blank path={`${path}/off_mm`} label="Inward of that face" />
          <Choose
            label="Turned about it"
            value={String(place.turn)}
            options={['0', '90', '180', '270'].map((t) => [t, `${t}°`] as const)}
            onChange={(t) => put('turn', Number(t))}
          />
          <p className="m-0 text-sm text-soft">
            Its shape and its place are said from there: aft, right and up of the box.
          </p>
        </>
      )}
    </>
  )
}

/** "Came out" frees its place. */
function Offer({ id }: { id: string }) {
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const [message, setMessage] = useState('')
  async function offer() {
    try {
      const { patch } = await freed(project, id)
      if (await edit(patch as Op[])) setMessage('It stands under Spaces; measure its sides there.')
    } catch (error) {
      setMessage(wordsOf(error))
    }
  }
  return (
    <p className="my-2 flex flex-wrap items-center gap-3">
      <Button plain onClick={() => void offer()}>
        Make its place a space
      </Button>
      <span role="status">{message}</span>
    </p>
  )
}
