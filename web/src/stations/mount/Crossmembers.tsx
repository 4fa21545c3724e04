/** Bars of the shop's own from one hard point to another, that boxes lie on or are bolted to. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { crossed, uncrossed } from '../../design/orders'
import type { Document } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Fold } from '../../ui/Fold'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Heading, Link } from '../../ui/parts'
import { SentenceRows, UseRows } from '../FindingRows'
import { Sleeve } from './kinds/OnTheBar'

type Bar = Document['crossmembers'][string]

const SECTIONS = [
  ['tube', 'square tube'],
  ['angle', 'equal angle'],
  ['flat', 'flat'],
] as const
const ENDS = [
  ['bolted', 'bolted'],
  ['welded', 'welded'],
] as const
const SIZE: Record<Bar['section'], string> = { tube: 'Side', angle: 'Leg', flat: 'Wide' }

export function Crossmembers() {
  const { crossmembers } = useDocument()
  return (
    <section aria-label="Crossmembers" className="mt-4" data-goes="/crossmembers">
      <Heading>Crossmembers of our own</Heading>
      {Object.entries(crossmembers).map(([id, bar]) => (
        <OneBar key={id} id={id} bar={bar} />
      ))}
      <LayOne />
    </section>
  )
}

function OneBar({ id, bar }: { id: string; bar: Bar }) {
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const { ask, problem } = useAsked()
  const path = `crossmembers/${id}`
  const chosen = useChoice((s) => s.selected) === path
  const here = useAnalysis().findings.filter((f) => f.code === 'mount.crossmember' && f.subjects[0] === path)
  return (
    <div className="border-b border-hair py-1">
      <span className="flex items-center justify-between gap-2">
        <NameBlank path={`/${path}/name`} label="Crossmember" />
        <Link onClick={() => void ask(async () => ({ patch: await uncrossed(project, id) }))}>
          take it away
        </Link>
      </span>
      {problem && (
        <p role="alert" className="m-0 text-foul">
          {problem}
        </p>
      )}
      <SentenceRows findings={here.filter((f) => f.unit !== 'use')} />
      <UseRows findings={here.filter((f) => f.unit === 'use')} />
      <Fold words="Its section and its ends" open={chosen}>
        <BarBlanks
          path={`/${path}`}
          bar={bar}
          put={(field, value) => void edit([{ op: 'replace', path: `/${path}/${field}`, value }])}
        />
      </Fold>
    </div>
  )
}

function BarBlanks({
  path,
  bar,
  put,
}: {
  path: string
  bar: Bar
  put: (field: string, value: unknown) => void
}) {
  const { tables } = useDocument()
  return (
    <>
      <Choose label="Of" value={bar.section} options={SECTIONS} onChange={(v) => put('section', v)} />
      <Blank path={`${path}/size_mm`} label={SIZE[bar.section]} />
      <Blank path={`${path}/wall_mm`} label="Thick" />
      <Choose
        label="Material"
        value={bar.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => put('material', v)}
      />
      <Choose label="Its ends are" value={bar.ends} options={ENDS} onChange={(v) => put('ends', v)} />
      <Blank path={`${path}/beyond_mm`} label="Beyond either hard point" />
      {bar.ends === 'welded' ? (
        <Blank path={`${path}/weld_leg_mm`} label="Leg of the weld" />
      ) : (
        <>
          <Choose
            label="Bolt"
            value={bar.bolt.size}
            options={Object.keys(tables.bolts).map((s) => [s, s] as const)}
            onChange={(v) => put('bolt/size', v)}
          />
          <Choose
            label="Property class"
            value={bar.bolt.property_class}
            options={Object.keys(tables.bolt_classes).map((s) => [s, s] as const)}
            onChange={(v) => put('bolt/property_class', v)}
          />
          {bar.section === 'tube' && <Sleeve path={`${path}/sleeve`} sleeve={bar.sleeve} />}
        </>
      )}
    </>
  )
}

function LayOne() {
  const { project } = useLoaded()
  const { hardpoints } = useDocument()
  const select = useChoice((s) => s.select)
  const { ask, problem } = useAsked()
  const points = Object.entries(hardpoints).map(([id, p]) => [id, p.name] as const)
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const one = points.some(([id]) => id === from) ? from : (points[0]?.[0] ?? '')
  const rest = points.filter(([id]) => id !== one)
  const other = rest.some(([id]) => id === to) ? to : (rest[0]?.[0] ?? '')
  if (points.length < 2)
    return <p className="m-0 text-sm">A crossmember lies on two hard points: they are entered in Survey.</p>
  async function lay() {
    let laid = ''
    const done = await ask(async () => {
      const answer = await crossed(project, { one, other })
      laid = answer.id
      return answer
    })
    if (done) select(`crossmembers/${laid}`)
  }
  return (
    <div className="mt-1">
      <Choose label="From" value={one} options={points} onChange={setFrom} />
      <Choose label="To" value={other} options={rest} onChange={setTo} />
      <Button plain className="mt-1 w-full" onClick={() => void lay()}>
        Lay a crossmember there
      </Button>
      {problem && (
        <p role="alert" className="m-0 text-foul">
          {problem}
        </p>
      )}
    </div>
  )
}
