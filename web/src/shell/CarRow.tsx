/** One car of the list: its plan, its name, when it was changed; what can be done with it behind one press. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link as To } from 'react-router'

import { wordsOf } from '../design/api'
import { useOutbox, waitingOf } from '../design/outbox'
import {
  copyCar,
  deleteCar,
  historyQuery,
  renameCar,
  sameAgain,
  takeBack,
  thenAndNowQuery,
  variantsQuery,
} from '../design/queries'
import type { Car } from '../design/types'
import { when } from '../ui/format'
import { InSight } from '../ui/InSight'
import { Button, Heading, Link } from '../ui/parts'
import { SideBySide } from './SideBySide'

type Shown = 'sheet' | 'variants' | null

export function CarRow({ car, cars }: { car: Car; cars: readonly Car[] }) {
  const [shown, setShown] = useState<Shown>(null)
  const first = car.variant_of ?? car.id
  const family = cars.filter((other) => (other.variant_of ?? other.id) === first)
  const flip = (what: Shown) => setShown(shown === what ? null : what)
  return (
    <li className="border-b border-hair py-2">
      <div className="flex items-center gap-4">
        <img
          src={planOf(car.id, car.revision)}
          alt=""
          width={132}
          height={60}
          className="h-[60px] w-[132px] shrink-0 object-contain"
        />
        <div className="min-w-0 flex-1">
          <To
            to={`/car/${car.id}`}
            className="block text-lg font-semibold text-ink no-underline hover:text-blue"
          >
            {car.name}
            <Waiting car={car.id} />
          </To>
          <span className="text-sm text-soft">
            revision {car.revision}, {when(car.changed_at)}
          </span>
        </div>
        <span className="flex shrink-0 gap-4 text-sm">
          {family.length > 1 && (
            <Link
              aria-expanded={shown === 'variants'}
              aria-label={`Variants of ${car.name}, side by side`}
              onClick={() => flip('variants')}
            >
              side by side
            </Link>
          )}
          <Link
            aria-expanded={shown === 'sheet'}
            aria-label={`More of ${car.name}`}
            onClick={() => flip('sheet')}
          >
            more
          </Link>
        </span>
      </div>
      {shown === 'sheet' && <Sheet car={car} />}
      {shown === 'variants' && <Variants car={car.id} />}
    </li>
  )
}

const planOf = (car: string, revision: number) => `/api/projects/${car}/plan.svg?revision=${revision}`

/** What of a car was done and is not saved: it is sent when the car is opened. */
function Waiting({ car }: { car: string }) {
  const rows = useOutbox((s) => s.rows)
  const waiting = waitingOf(car, [...rows]).length
  return waiting ? <strong className="block text-base">not saved, {waiting} waiting: open it</strong> : null
}

/** A car and its variants by what decides between them. */
function Variants({ car }: { car: string }) {
  const { data } = useQuery(variantsQuery(car))
  return (
    <SideBySide
      label="Side by side"
      cars={data ?? []}
      nameOf={(v) => (
        <To to={`/car/${v.id}`} className="text-blue">
          {v.name}
        </To>
      )}
    />
  )
}

/** Renamed, copied, deleted, or as it was. */
function Sheet({ car }: { car: Car }) {
  const queries = useQueryClient()
  const [name, setName] = useState(car.name)
  const [problem, setProblem] = useState('')
  async function doIt(job: Promise<unknown>) {
    try {
      await job
      setProblem('')
      await queries.invalidateQueries({ queryKey: ['cars'] })
      await queries.invalidateQueries({ queryKey: ['history', car.id] })
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  return (
    <div className="my-2 rounded border border-edge bg-sheet p-3">
      <form
        className="flex flex-wrap items-center gap-3"
        onSubmit={(e) => (e.preventDefault(), void doIt(renameCar(car, name.trim())))}
      >
        <input
          aria-label={`New name of ${car.name}`}
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          className="min-h-9 w-64 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold"
        />
        <Button plain type="submit" disabled={!name.trim() || name.trim() === car.name}>
          Rename
        </Button>
        <Button plain onClick={() => void doIt(copyCar(car.id))}>
          Copy as a variant
        </Button>
        <Button plain onClick={() => void doIt(sameAgain(car.id))}>
          The same again, for another car
        </Button>
        <Button plain asChild>
          <a href={`/api/projects/${car.id}/archive`} download>
            Archive, with log and pictures
          </a>
        </Button>
        <Button plain onClick={() => void doIt(deleteCar(car.id))}>
          Delete, kept 30 days
        </Button>
      </form>
      {problem && (
        <p role="alert" className="m-0 mt-2 font-semibold text-foul">
          {problem}
        </p>
      )}
      <History car={car} doIt={doIt} />
    </div>
  )
}

function History({ car, doIt }: { car: Car; doIt: (job: Promise<unknown>) => Promise<void> }) {
  const { data } = useQuery(historyQuery(car.id, car.revision))
  const [looked, setLooked] = useState<number | null>(null)
  return (
    <section aria-label={`What ${car.name} was`}>
      <Heading>What it was</Heading>
      <ol className="m-0 max-h-60 list-none overflow-auto p-0" tabIndex={0} aria-label="Revisions">
        {data?.map((row) => (
          <li key={row.number} className="flex min-h-8 items-baseline gap-3 border-b border-hair">
            <span className="narrow w-10 text-right text-sm">{row.number}</span>
            <span className="min-w-0 flex-1">{row.sentence}</span>
            <span className="text-sm text-soft">
              {row.who && `${row.who}, `}
              {when(row.made_at)}
            </span>
            <span className="w-[92px] text-right text-sm">
              {row.number === car.revision ? (
                'stands now'
              ) : (
                <Link
                  aria-label={`look at it: revision ${row.number}`}
                  aria-expanded={looked === row.number}
                  onClick={() => setLooked(looked === row.number ? null : row.number)}
                >
                  look at it
                </Link>
              )}
            </span>
          </li>
        ))}
      </ol>
      {looked !== null && (
        <InSight key={looked}>
          <AsItWas car={car} number={looked} doIt={doIt} />
        </InSight>
      )}
    </section>
  )
}

/** An older revision beside the car as it stands, before it is taken back or opened as a car of its own. */
function AsItWas({
  car,
  number,
  doIt,
}: {
  car: Car
  number: number
  doIt: (job: Promise<unknown>) => Promise<void>
}) {
  const { data, error } = useQuery(thenAndNowQuery(car.id, number, car.revision))
  if (error)
    return (
      <p role="alert" className="font-semibold text-foul">
        {wordsOf(error)}
      </p>
    )
  return (
    <section aria-label={`As it was at revision ${number}`} className="mt-2">
      <SideBySide
        label="Then and now"
        cars={data ?? []}
        nameOf={(shown) => (
          <>
            <img
              src={planOf(car.id, shown.revision)}
              alt={`Plan at revision ${shown.revision}`}
              width={264}
              height={120}
              className="block h-[120px] w-[264px] object-contain"
            />
            {shown.name}, {shown.revision === number ? `revision ${number}` : 'as it stands'}
          </>
        )}
      />
      <div className="mt-2 flex flex-wrap gap-3">
        <Button plain onClick={() => void doIt(takeBack(car.id, number))}>
          Take revision {number} back
        </Button>
        <Button plain onClick={() => void doIt(copyCar(car.id, number))}>
          Open it as a variant
        </Button>
      </div>
    </section>
  )
}
