/** What it would take: the changes that clear a box, or let one more row or tier in. Each has been run through all checks. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useLive, useLoaded } from '../../design/live'
import { answerQuery, type Way } from '../../design/queries'
import { useSettled } from '../../design/useSettled'
import type { Answer, Cure, Op } from '../../design/types'
import { sentence } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Button, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'

const MORE = [
  ['aft', 'one more row along'],
  ['across', 'one more row across'],
  ['up', 'one more tier'],
] as const

/** Under the worst gaps of a foul box: one remedy, the rest behind. */
export function Remedies({ box }: { box: string }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const { data } = useQuery({ ...answerQuery(project, revision ?? 0, box, null), enabled: revision !== null })
  if (!data || data.fits) return null
  return <Cures answer={data} most={1} />
}

const NOTHING: readonly Op[] = []

/** For the next row or tier; ``on`` is the proposal's patch where the box is a proposed one. */
export function OneMore({ box, on = NOTHING }: { box: string; on?: readonly Op[] }) {
  const [way, setWay] = useState<Way | null>(null)
  return (
    <>
      <Heading>What would it take for</Heading>
      <span className="flex flex-wrap gap-x-4 gap-y-1">
        {MORE.map(([key, words]) => (
          <Link key={key} aria-expanded={way === key} onClick={() => setWay(way === key ? null : key)}>
            {words}
          </Link>
        ))}
      </span>
      {way && <Asked key={way} box={box} way={way} on={on} />}
    </>
  )
}

function Asked({ box, way, on }: { box: string; way: Way; on: readonly Op[] }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const { data, error } = useQuery({
    ...answerQuery(project, revision ?? 0, box, way, on),
    enabled: revision !== null,
  })
  if (error) return <p role="alert">{error.message}</p>
  if (!data) return <p role="status">Trying …</p>
  return (
    <>
      <p className="m-0 mt-2 font-semibold">{data.asks}</p>
      {data.fits ? (
        <div className="mt-2 rounded border border-clear bg-white px-3 py-2">
          <p className="m-0 font-semibold">It fits, with every gap kept.</p>
          <Apply patch={[...on, ...(data.patch as Op[])]} />
        </div>
      ) : (
        <Cures answer={data} most={3} on={on} />
      )}
    </>
  )
}

function Cures({ answer, most, on = NOTHING }: { answer: Answer; most: number; on?: readonly Op[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? answer.cures : answer.cures.slice(0, most)
  if (answer.cures.length === 0)
    return (
      <div className="mt-2 rounded border border-hair bg-white px-3 py-2">
        <p className="m-0 font-semibold">No single change clears it.</p>
        {answer.foul.map((words) => (
          <p key={words} className="m-0 text-sm">
            {words}
          </p>
        ))}
      </div>
    )
  return (
    <section aria-label="What would it take">
      {shown.map((cure, i) => (
        <Row key={`${cure.kind}${i}`} cure={cure} on={on} />
      ))}
      {answer.cures.length > most && (
        <Link onClick={() => setAll(!all)}>
          {all
            ? 'fewer'
            : `${answer.cures.length - most} other way${answer.cures.length - most > 1 ? 's' : ''}`}
        </Link>
      )}
    </section>
  )
}

function Row({ cure, on }: { cure: Cure; on: readonly Op[] }) {
  const units = useUnits()
  const words = sentence(cure, units)
  return (
    <div
      className={`my-2 rounded border px-3 py-2 ${cure.whole ? 'border-blue bg-wash' : 'border-hair bg-white'}`}
    >
      <div className="flex items-start justify-between gap-2">
        <strong className="leading-snug">{words.charAt(0).toUpperCase() + words.slice(1)}</strong>
        {cure.patch && <Apply patch={[...on, ...(cure.patch as Op[])]} />}
      </div>
      {cure.costs.length > 0 && (
        <p className="m-0 mt-1 text-sm leading-snug">
          {cure.costs.map((cost, i) => (
            <span key={i} className="mr-2 inline-flex items-center gap-1">
              {cost.state !== 'note' && <Mark state={cost.state as 'tight'} />}
              {sentence(cost, units)}
            </span>
          ))}
        </p>
      )}
      {!cure.whole && <p className="m-0 mt-1 text-sm">With a second change: {cure.left.join('; ')}</p>}
      {cure.whole && cure.does === 'vehicle' && (
        <p className="m-0 mt-1 text-sm">On the car first; then measure it again.</p>
      )}
    </div>
  )
}

function Apply({ patch }: { patch: readonly Op[] }) {
  const edit = useLive((s) => s.edit)
  return (
    <Button className="shrink-0" onClick={() => void edit([...patch])}>
      Do it
    </Button>
  )
}
