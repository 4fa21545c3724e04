/** What is still to measure for a goal, what matters most first; and what is worth taking twice without seeing the first. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { at, pointer } from '../../design/pointer'
import { type Goal, readText, toMeasureQuery, twiceQuery } from '../../design/queries'
import type { Reading, ToMeasure as Row } from '../../design/types'
import { useTyped } from '../../design/typed'
import { length, mass } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Choose } from '../../ui/Choose'
import { Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'

const GOALS = [
  ['clearances', 'clearances'],
  ['loads', 'what the axles will read'],
  ['level', 'the level of the car'],
] as const

export function ToMeasure({ onGo }: { onGo: (path: string) => void }) {
  const { project, revision } = useLoaded()
  const [goal, setGoal] = useState<Goal>('clearances')
  const { data } = useQuery(toMeasureQuery(project, revision, goal))
  return (
    <>
      <Heading right={data ? `${data.length}` : ''}>Still to measure</Heading>
      <div className="max-w-[440px]">
        <Choose label="For" value={goal} options={GOALS} onChange={setGoal} />
      </div>
      {data?.length === 0 && <p>Nothing is missing for that, and nothing rests on a guess.</p>}
      <table className="w-full max-w-[860px] border-collapse">
        <thead className="text-left text-sm text-soft">
          <tr>
            <th className="font-semibold">what to take</th>
            <th className="font-semibold">now it is</th>
            <th className="text-right font-semibold">could move the answer by</th>
          </tr>
        </thead>
        <tbody>
          {data?.map((row) => (
            <tr key={row.path + row.what} className="border-b border-hair">
              <td>
                <button
                  type="button"
                  onClick={() => onGo(row.path)}
                  className="min-h-9 text-left hover:text-blue"
                >
                  {row.what}
                </button>
              </td>
              <td className="narrow">{row.why}</td>
              <td className="text-right font-semibold">
                <Moves row={row} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Twice />
    </>
  )
}

function Moves({ row }: { row: Row }) {
  const units = useUnits('survey')
  if (row.moves === null) return <>nobody can say</>
  if (row.unit === 'kg') return <>{mass(row.moves, units.mass)}</>
  return (
    <>
      {length(row.moves, units.length, 'up')}
      {units.length === 'mm' && ' mm'}
    </>
  )
}

/** Dimensions where 5 mm wrong would turn a verdict, taken again with the first hidden. */
function Twice() {
  const { project, revision } = useLoaded()
  const { data } = useQuery(twiceQuery(project, revision))
  return (
    <section aria-label="Measure twice">
      <Heading right={data ? `${data.length}` : ''}>Measure twice</Heading>
      <p className="my-1 text-sm">
        Five millimetres wrong here would turn a verdict. Take each again without looking at the first.
      </p>
      {data?.length === 0 && <p>No verdict hangs on five millimetres.</p>}
      <ul className="m-0 max-w-[860px] list-none p-0">
        {data?.map((row) => (
          <Again key={row.path} row={row} />
        ))}
      </ul>
    </section>
  )
}

function Again({ row }: { row: Row }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const units = useUnits('survey')
  const [text, setText] = useTyped(`/${row.path}/again`)
  const [message, setMessage] = useState('')
  const path = `/${row.path}`
  const first = at(document, path) as number
  const reading = document.readings[path] as Reading | undefined
  const again = reading?.again_mm ?? null
  const hook = reading?.from ? document.references[reading.from] : undefined
  async function take() {
    if (!text.trim()) return
    try {
      const found = await readText({
        text,
        path,
        unit: units.length,
        base: hook?.at_mm as [number, number, number] | undefined,
      })
      const kept = reading ?? { text: String(first), unit: 'mm', basis: 'typed' }
      await edit([
        {
          op: reading ? 'replace' : 'add',
          path: pointer('readings', path),
          value: { ...kept, again_mm: found },
        },
      ])
      setText('')
      setMessage('')
    } catch (error) {
      setMessage(wordsOf(error))
    }
  }
  const told = useAnalysis().findings.find((f) => f.id === `survey:twice:${path}`)
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-hair py-1">
      <span className="flex-1">
        {row.what}
        <span className="narrow block text-sm text-soft">
          {row.why}
          {hook && `; hook on the ${hook.name}`}
        </span>
      </span>
      {again === null ? (
        <input
          aria-label={`${row.what}, again`}
          value={text}
          placeholder="again"
          autoComplete="off"
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Enter') void take()
          }}
          onBlur={() => void take()}
          className="min-h-9 w-[110px] rounded border-[1.5px] border-edge bg-white px-1.5 text-right text-lg font-semibold placeholder:font-normal placeholder:text-soft"
        />
      ) : (
        <span className="text-right">
          {told && <Mark state={told.state} />}
          <span className="narrow block text-sm">
            first {length(first, units.length)}, again {length(again, units.length)}{' '}
            <Link
              onClick={() =>
                void edit([
                  { op: 'replace', path, value: again },
                  {
                    op: 'replace',
                    path: pointer('readings', path),
                    value: {
                      ...reading,
                      text: String(again),
                      unit: 'mm',
                      from: null,
                      again_mm: null,
                    },
                  },
                ])
              }
            >
              keep the second
            </Link>
          </span>
        </span>
      )}
      {message && (
        <span role="alert" className="w-full text-right text-sm text-foul">
          {message}
        </span>
      )}
    </li>
  )
}
