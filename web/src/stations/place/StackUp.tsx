/** The stack-up: every allowance along a line through a box, drawn to scale against the space there. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { misread } from '../../design/api'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { freeId } from '../../design/pointer'
import { chainQuery, readText, type Axis } from '../../design/queries'
import { useSettled } from '../../design/useSettled'
import type { Op, StackUp as Chain } from '../../design/types'
import { useTyped } from '../../design/typed'
import { Hint } from '../../ui/Hint'
import { Toggles } from '../../ui/Toggles'
import { gap, length } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Choose } from '../../ui/Choose'
import { Heading, Link } from '../../ui/parts'
import { ShortBlank, ShortForm } from '../../ui/ShortForm'
import { useUnits } from '../../ui/units'

const WAYS = [
  ['up', 'up'],
  ['across', 'across'],
  ['aft', 'aft'],
] as const
const FILL: Record<string, string> = {
  gap: '#fff',
  metal: 'var(--color-copper)',
  liner: '#d8c9a8',
  space: '#fff',
  module: 'var(--color-slate)',
  growth: '#8fb0aa',
  other: 'var(--color-ink)',
}
const HIGH_PX = 190

export function StackUp({ box }: { box: string }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const [way, setWay] = useState<Axis>('up')
  const [module, setModule] = useState('')
  const numbers = useNumbers(box)
  const { data, error } = useQuery({
    ...chainQuery(project, revision ?? 0, box, way, module ? Number(module) : null),
    enabled: revision !== null,
    placeholderData: keepPreviousData,
  })
  return (
    <section aria-label="Stack-up">
      <Heading right={data && <Spare chain={data} />}>Stack-up</Heading>
      <Toggles
        label="Along"
        value={way}
        options={WAYS}
        onChange={(key) => setWay(key as Axis)}
        className="mb-1 flex gap-4"
        look={(pressed) => `min-h-8 font-semibold ${pressed ? 'border-b-2 border-blue text-blue' : ''}`}
      />
      {numbers.length > 1 && (
        <Choose
          label="Where"
          value={module}
          options={[['', 'where it is tightest'], ...numbers.map((n) => [n, `through module ${n}`] as const)]}
          onChange={setModule}
        />
      )}
      {error && <p role="alert">{error.message}</p>}
      {data && <ChainRows chain={data} />}
      <ByHand box={box} way={way} />
    </section>
  )
}

/** Rows entered by hand: they stay, whatever the box becomes. */
function ByHand({ box, way }: { box: string; way: Axis }) {
  const { chains } = useDocument()
  const edit = useLive((s) => s.edit)
  const [adding, setAdding] = useState(false)
  const slot = `/chains/${box}/${way}`
  const [words, setWords] = useTyped(`${slot}/words`)
  const [mm, setMm] = useTyped(`${slot}/mm`)
  const [tol, setTol] = useTyped(`${slot}/tol`)
  const unit = useUnits('place').length
  const found = Object.entries(chains).find(([, c]) => c.box === box && c.axis === way)
  const path = `/chains/${found?.[0] ?? freeId(`${box}-${way}`, chains)}`
  async function add() {
    if (!words.trim()) throw misread('Say what it is.')
    const row = {
      words: words.trim(),
      mm: await readText({ text: mm, path: `${path}/rows/row/mm`, unit }),
      tol_mm: tol ? await readText({ text: tol, path: `${path}/rows/row/tol_mm`, unit }) : 0,
    }
    const patch: Op[] = found
      ? [{ op: 'add', path: `${path}/rows/${freeId('row', found[1].rows)}`, value: row }]
      : [{ op: 'add', path, value: { box, axis: way, rows: { row } } }]
    if (await edit(patch)) leave()
  }
  function leave() {
    setAdding(false)
    setWords('')
    setMm('')
    setTol('')
  }
  return (
    <>
      {Object.entries(found?.[1].rows ?? {}).map(([key, row]) => (
        <p key={key} className="m-0 flex justify-between text-sm">
          by hand: {row.words}
          <Link onClick={() => void edit([{ op: 'remove', path: `${path}/rows/${key}` }])}>drop</Link>
        </p>
      ))}
      {adding ? (
        <ShortForm does="Add the row" onSubmit={add} onLeave={leave}>
          <ShortBlank label="What" value={words} onChange={setWords} autoFocus />
          <ShortBlank label="How much" value={mm} onChange={setMm} number />
          <ShortBlank label="±" value={tol} onChange={setTol} number />
        </ShortForm>
      ) : (
        <Link onClick={() => setAdding(true)}>a row by hand</Link>
      )}
    </>
  )
}

/** The numbers of the box's modules, as they are drawn. */
function useNumbers(box: string): string[] {
  const { shapes } = useLoaded().analysis
  return [
    ...new Set(shapes.filter((s) => s.kind === 'module' && s.owner === `boxes/${box}`).map((s) => s.label)),
  ]
}

function Spare({ chain }: { chain: Chain }) {
  const units = useUnits()
  if (chain.stands_in.length > 0)
    return (
      <span className="flex items-center gap-1.5 text-base font-bold text-ink">
        <Mark state={chain.state} /> stands in {chain.stands_in.join(', ')}
      </span>
    )
  if (chain.spare_mm === null) return <span>open at one end</span>
  const short = chain.spare_mm < 0
  return (
    <span className="flex items-center gap-1.5 text-base font-bold text-ink">
      <Mark state={chain.state} />
      {gap(Math.abs(chain.spare_mm), units.length, short ? 'up' : 'down')} {short ? 'missing' : 'spare'}
    </span>
  )
}

function ChainRows({ chain }: { chain: Chain }) {
  const units = useUnits()
  const select = useChoice((s) => s.select)
  const total = Math.max(chain.asked_mm, chain.there_mm ?? 0)
  const rows = chain.way === 'up' ? [...chain.rows].reverse() : chain.rows
  const ends = chain.way === 'up' ? [chain.ends[1], chain.ends[0]] : chain.ends
  const drawn = rows.filter((r) => r.mm > 0)
  const [all, setAll] = useState(false)
  const listed = all ? rows : drawn
  let at = 0
  return (
    <>
      <p className="m-0 text-sm text-soft">
        {ends[0]?.name} {chain.way === 'up' ? 'at the top' : 'first'}
      </p>
      <div className="flex gap-2">
        <svg width={38} height={HIGH_PX} aria-hidden="true" className="shrink-0">
          {drawn.map((row, i) => {
            const y = (at / total) * HIGH_PX
            const high = Math.max((row.mm / total) * HIGH_PX, 1)
            at += row.mm
            return (
              <rect
                key={i}
                x={1}
                y={y}
                width={26}
                height={high}
                fill={FILL[row.kind]}
                stroke="#3a404a"
                strokeWidth={0.6}
              />
            )
          })}
          {chain.there_mm !== null && (
            <path
              d={`M33,0 V${(chain.there_mm / total) * HIGH_PX} M30,0 h6 M30,${(chain.there_mm / total) * HIGH_PX - 0.5} h6`}
              stroke="var(--color-blue)"
              strokeWidth={1.6}
            />
          )}
        </svg>
        <table className="w-full border-collapse text-sm">
          <thead className="sr-only">
            <tr>
              <th>what</th>
              <th>takes, {units.length}</th>
              <th>±, {units.length}</th>
            </tr>
          </thead>
          <tbody>
            {listed.map((row, i) => (
              <tr key={i} className="align-baseline">
                <td>
                  <Hint words={row.source}>
                    <button
                      type="button"
                      onClick={() => select(row.path, row.what)}
                      className="min-h-6 text-left leading-tight hover:text-blue"
                    >
                      {row.what}
                    </button>
                  </Hint>
                </td>
                <td className="pl-2 text-right text-[15px] font-semibold">
                  {length(row.mm, units.length, 'up')}
                </td>
                <td className="w-14 pl-2 text-right text-soft">
                  {row.tol_mm > 0 && `± ${length(row.tol_mm, units.length, 'up')}`}
                </td>
              </tr>
            ))}
            <tr className="border-t border-ink">
              <td className="font-semibold">asked</td>
              <td className="text-right text-[15px] font-bold">
                {length(chain.asked_mm, units.length, 'up')} {units.length}
              </td>
              <td />
            </tr>
            {chain.there_mm !== null && (
              <tr>
                <td className="font-semibold text-blue">there</td>
                <td className="text-right text-[15px] font-bold text-blue">
                  {length(chain.there_mm, units.length, 'down')} {units.length}
                </td>
                <td />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <p className="m-0 text-sm text-soft">
        {ends[1]?.name} {chain.way === 'up' ? 'below' : 'last'}
      </p>
      <p className="m-0 mt-1 text-sm">
        May be off by {length(chain.worst_mm, units.length, 'up')} at worst, which decides;{' '}
        {length(chain.root_mm, units.length, 'up')} by the root of squares.{' '}
        <Link onClick={() => setAll(!all)}>{all ? 'only what takes room' : 'every allowance'}</Link>
      </p>
    </>
  )
}
