/** How can it hang: what of the car is within reach of a box, sets of mounts that hold, or what is missing. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { hangingQuery } from '../../design/queries'
import type { Hanging, Op } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { gap, massUp, sentence, utilisation } from '../../ui/format'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { InSight } from '../../ui/InSight'
import { Tick } from '../../ui/Tick'

export function HowItHangs() {
  const { boxes, mounts } = useDocument()
  const held = new Set(Object.values(mounts).flatMap((m) => Object.keys(m.carries)))
  const first = Object.keys(boxes).find((id) => !held.has(`boxes/${id}`)) ?? Object.keys(boxes)[0] ?? ''
  const [chosen, setChosen] = useState<string | null>(null)
  const [asked, setAsked] = useState<string | null>(null)
  const [there, setThere] = useState(false)
  const box = chosen && boxes[chosen] ? chosen : first
  const hangs = held.has(`boxes/${box}`)
  return (
    <section aria-label="How can it hang">
      <Heading>How can it hang?</Heading>
      <Choose
        label="Box"
        value={box}
        options={Object.entries(boxes).map(([id, b]) => [id, b.name] as const)}
        onChange={setChosen}
      />
      {hangs && <Tick label="on the very points that carry it now" value={there} onChange={setThere} />}
      <Button className="mt-1 w-full" data-goes="/mounts" onClick={() => setAsked(box)}>
        Look for brackets that hold
      </Button>
      {asked === box && (
        <InSight>
          <Answer key={box} box={box} there={hangs && there} onHung={() => setAsked(null)} />
        </InSight>
      )}
    </section>
  )
}

function Answer({ box, there, onHung }: { box: string; there: boolean; onHung: () => void }) {
  const { project } = useLoaded()
  const { mounts } = useDocument()
  const units = useUnits()
  const settled = useSettled()
  const { data, error } = useQuery({
    ...hangingQuery(project, settled ?? 0, box, there),
    enabled: settled !== null,
  })
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!data) return <p role="status">Trying brackets …</p>
  const own = Object.values(mounts).filter(
    (m) => `boxes/${box}` in m.carries && m.lands_on.type !== 'two',
  ).length
  return (
    <>
      {own > 0 && data.ways.length > 0 && (
        <p className="m-0 mt-2 text-sm">What carries it now makes way, all {own}.</p>
      )}
      {data.ways.map((way) => (
        <Way key={way.on.join()} way={way} onHung={onHung} />
      ))}
      {data.missing.map((row) => (
        <p key={row.message} className="my-2 rounded border border-hair bg-white px-3 py-2">
          {sentence(row, units)}
        </p>
      ))}
      <Within rows={data.within} />
    </>
  )
}

function Way({ way, onHung }: { way: Hanging['ways'][number]; onHung: () => void }) {
  const edit = useLive((s) => s.edit)
  const units = useUnits()
  return (
    <div className="my-2 rounded border border-blue bg-wash px-3 py-2">
      <div className="flex items-start justify-between gap-2">
        <strong className="leading-snug">
          {way.on.length} brackets, {massUp(way.mass_kg, units.mass)}
        </strong>
        <Button
          className="shrink-0"
          onClick={() => void edit(way.patch as Op[]).then((done) => done && onHung())}
        >
          Hang it so
        </Button>
      </div>
      <p className="m-0 mt-1 text-sm leading-snug">{way.message}</p>
      <p className="m-0 text-sm leading-snug">
        weakest use {utilisation(way.utilisation)}: {way.governs}
      </p>
      <p className="m-0 text-sm leading-snug text-soft">{way.on.join(' · ')}</p>
    </div>
  )
}

/** Near first; what misses says by how much. */
function Within({ rows }: { rows: Hanging['within'] }) {
  const units = useUnits()
  const [all, setAll] = useState(false)
  if (rows.length === 0) return null
  const shown = all ? rows : rows.slice(0, 4)
  return (
    <>
      <Heading right="off the wall">Within reach</Heading>
      {shown.map((row) => (
        <p key={row.path} className="m-0 flex justify-between gap-2 border-b border-hair py-1">
          <span className={row.why ? 'text-soft' : ''}>
            {row.name}, on the {row.face}
            {row.why && (
              <span className="narrow block text-sm">
                {row.why.replace('{0}', gap(row.misses_mm, units.length, 'near'))}
              </span>
            )}
          </span>
          <span className="shrink-0 font-semibold">{gap(row.off_mm, units.length, 'near')}</span>
        </p>
      ))}
      {rows.length > 4 && (
        <Link onClick={() => setAll(!all)}>{all ? 'the first four' : `all ${rows.length}`}</Link>
      )}
    </>
  )
}
