/** What it would take: the changes that clear a box, or let one more row or tier in. Each has been run through all checks. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { isDone } from '../../design/pointer'
import { answerQuery, type Axis } from '../../design/queries'
import { useSettled } from '../../design/useSettled'
import type { Fix, Op } from '../../design/types'
import { sentence } from '../../ui/format'
import { InSight } from '../../ui/InSight'
import { Mark } from '../../ui/Mark'
import { Button, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'

const MORE = [
  ['aft', 'one more row along'],
  ['across', 'one more row across'],
  ['up', 'one more tier'],
] as const

/** Single changes come at once; what clears only together takes longer, and is looked for where no single change will do, or where
    more ways are wanted. */
function useAnswer(box: string, way: Axis | null, on: Op[], wanted: boolean) {
  const { project } = useLoaded()
  const document = useDocument()
  const settled = useSettled()
  const [revision, patch] = [settled ?? 0, isDone(document, on) ? NOTHING : on]
  const first = useQuery({
    ...answerQuery(project, revision, box, way, patch, false),
    enabled: settled !== null,
  })
  const short = first.data !== undefined && !first.data.fits && !first.data.fixes.some((fix) => fix.patch)
  const all = useQuery({
    ...answerQuery(project, revision, box, way, patch, true),
    enabled: settled !== null && (short || (wanted && first.data !== undefined)),
  })
  const answer = all.data ?? first.data
  return {
    answer,
    looking: all.isFetching,
    tried: all.data !== undefined,
    on: patch,
    error: first.error ?? all.error,
  }
}

/** Under the worst gaps of a foul box: one remedy, the rest behind. */
export function Remedies({ box }: { box: string }) {
  return <Asked box={box} way={null} on={NOTHING} most={1} />
}

const NOTHING: Op[] = []

/** For the next row or tier; ``on`` is the proposal's patch where the box is a proposed one. */
export function OneMore({ box, on = NOTHING }: { box: string; on?: Op[] }) {
  const [way, setWay] = useState<Axis | null>(null)
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
      {way && (
        <InSight>
          <Asked key={way} box={box} way={way} on={on} most={3} />
        </InSight>
      )}
    </>
  )
}

type Question = { box: string; way: Axis | null; on: Op[]; most: number }

function Asked({ box, way, on: asked, most }: Question) {
  const [all, setAll] = useState(false)
  const { answer, looking, tried, on, error } = useAnswer(box, way, asked, all)
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!answer) return way ? <p role="status">Trying …</p> : null
  if (answer.fits)
    return way ? (
      <>
        <Asks words={answer.question} />
        <div className="mt-2 rounded border border-clear bg-white px-3 py-2">
          <p className="m-0 font-semibold">It fits, with every gap kept.</p>
          <Apply patch={[...on, ...(answer.patch as Op[])]} />
        </div>
      </>
    ) : null
  const shown = all ? answer.fixes : answer.fixes.slice(0, most)
  return (
    <>
      {way && <Asks words={answer.question} />}
      {answer.fixes.length === 0 && !looking && <Nothing foul={answer.foul} />}
      <section aria-label="What would it take">
        {shown.map((fix, i) => (
          <Row key={`${fix.kind}${i}`} fix={fix} on={on} />
        ))}
        {looking && <p role="status">Trying changes together …</p>}
        {answer.fixes.length > (tried ? most : 0) && !looking && (
          <Link onClick={() => setAll(!all)}>{all ? 'fewer' : 'other ways'}</Link>
        )}
      </section>
    </>
  )
}

const Asks = ({ words }: { words: string }) => <p className="m-0 mt-2 font-semibold">{words}</p>

function Nothing({ foul }: { foul: readonly string[] }) {
  return (
    <div className="mt-2 rounded border border-hair bg-white px-3 py-2">
      <p className="m-0 font-semibold">No small change clears it.</p>
      {foul.map((words) => (
        <p key={words} className="m-0 text-sm">
          {words}
        </p>
      ))}
    </div>
  )
}

function Row({ fix, on }: { fix: Fix; on: Op[] }) {
  const units = useUnits()
  const words = sentence(fix, units)
  return (
    <div
      className={`my-2 rounded border px-3 py-2 ${fix.whole ? 'border-blue bg-wash' : 'border-hair bg-white'}`}
    >
      <div className="flex items-start justify-between gap-2">
        <strong className="leading-snug">{words.charAt(0).toUpperCase() + words.slice(1)}</strong>
        {fix.patch && <Apply patch={[...on, ...(fix.patch as Op[])]} />}
      </div>
      {fix.costs.length > 0 && (
        <p className="m-0 mt-1 text-sm leading-snug">
          {fix.costs.map((cost, i) => (
            <span key={i} className="mr-2 inline-flex items-center gap-1">
              {cost.state !== 'note' && <Mark state={cost.state as 'tight'} />}
              {sentence(cost, units)}
            </span>
          ))}
        </p>
      )}
      {!fix.whole && <p className="m-0 mt-1 text-sm">With a second change: {fix.left.join('; ')}</p>}
      {fix.whole && fix.does === 'vehicle' && (
        <p className="m-0 mt-1 text-sm">On the car first; then measure it again.</p>
      )}
    </div>
  )
}

function Apply({ patch }: { patch: Op[] }) {
  const edit = useLive((s) => s.edit)
  if (isDone(useDocument(), patch)) return <span className="shrink-0 font-semibold text-clear">Done</span>
  return (
    <Button className="shrink-0" onClick={() => void edit([...patch])}>
      Do it
    </Button>
  )
}
