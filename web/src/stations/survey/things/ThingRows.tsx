/** One row a thing: what comes out, stays, goes in and rides along. Enter goes through a row and on to the next, like a shop list. */
import { useQuery } from '@tanstack/react-query'
import { type KeyboardEvent, useRef, useState } from 'react'

import { useChoice } from '../../../design/choice'
import { useAnalysis, useDocument, useLive } from '../../../design/live'
import { freeId, pointer } from '../../../design/pointer'
import { startersQuery } from '../../../design/queries'
import type { Item, Op } from '../../../design/types'
import { useTyped } from '../../../design/typed'
import { AddFrom } from '../../../ui/AddFrom'
import { Blank } from '../../../ui/Blank'
import { mass, place } from '../../../ui/format'
import { Choose } from '../../../ui/Choose'
import { Caution, Heading, RowOpener } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { WhereBlank } from '../../../ui/WhereBlank'
import { type Base, useBase } from '../../rows'
import { type State, STATES } from './states'
import { ThingSheet } from './ThingSheet'
import { SizeBlank } from './SizeBlank'
import { selectedIn } from '../../useParts'

export function ThingRows() {
  const { items } = useDocument()
  const { base, pick } = useBase()
  return (
    <>
      {pick}
      {STATES.map(([state, words]) => (
        <section key={state} aria-label={words} className="mt-4">
          <Heading right={<Sum state={state} />}>{words}</Heading>
          {state === 'out' && Object.values(items).some((i) => i.fuel && i.state === 'out') && (
            <Caution>
              Fuel first: drain, purge and cap. No drill, spark or weld near a tank or line that held fuel.
            </Caution>
          )}
          <Table state={state} base={base} />
        </section>
      ))}
    </>
  )
}

function Sum({ state }: { state: State }) {
  const { sums_kg: sums } = useAnalysis().level
  const { mass: unit } = useUnits('survey')
  const total = sums[state]
  if (total === undefined) return null
  if (state === 'out' && sums.found !== undefined && sums.kept !== undefined)
    return `${mass(total, unit)} out + ${mass(sums.kept, unit)} kept = ${mass(sums.found, unit)} found`
  return `${mass(total, unit)} in all`
}

/** Where Enter goes: the next blank of the row, and from the last to the line for a new thing. */
function onward(input: HTMLInputElement) {
  const blanks = [
    ...(input.closest('table')?.querySelectorAll<HTMLInputElement>('input[data-step], [data-step] input') ??
      []),
  ]
  blanks[blanks.indexOf(input) + 1]?.focus()
}

/** After the whole place was typed its blank is gone: on to the size in its row. */
function sizeOf(row: HTMLTableRowElement | null) {
  ;[...(row?.querySelectorAll<HTMLInputElement>('[data-step] input') ?? [])].at(-1)?.focus()
}

const inTheWay = (state: State) => state === 'stays' || state === 'in'
const KINDS_OF_GAP = [
  ['same', 'fixed'],
  ['other', 'shakes'],
  ['moving', 'moves'],
  ['axle', 'axle'],
  ['warm', 'warm'],
  ['hot', 'hot'],
  ['hand', 'by hand'],
] as const

/** On to the row below. */
function below(row: HTMLTableRowElement | null) {
  const blanks = row?.nextElementSibling?.querySelectorAll<HTMLInputElement>(
    'input[data-step], [data-step] input',
  )
  blanks?.[0]?.focus()
}

function Table({ state, base }: { state: State; base: Base | null }) {
  const { items } = useDocument()
  const [open, setOpen] = useState<string | null>(selectedIn('items'))
  const rows = Object.entries(items)
    .filter(([, item]) => item.state === state)
    .sort(([, a], [, b]) => a.order - b.order)
  const weighs = state !== 'stays'
  const units = useUnits('survey')
  const mm = units.length
  return (
    <table className="w-full border-collapse">
      <thead className="text-left text-sm text-soft">
        <tr>
          <th className="font-semibold">thing</th>
          {weighs && <th className="w-[104px] font-semibold">mass, {units.mass}</th>}
          <th className="w-[300px] font-semibold">
            {weighs ? 'its CG' : 'its middle'}: aft, across, up, {mm}
          </th>
          <th className="w-[168px] font-semibold">size: aft × across × up, {mm}</th>
          <th className="w-[104px] font-semibold">
            {inTheWay(state) ? 'is' : <span className="sr-only">how it stands in the way</span>}
          </th>
          <th className="w-10">
            <span className="sr-only">more</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([id, item]) => (
          <Row
            key={id}
            id={id}
            item={item}
            base={base}
            open={open === id}
            onOpen={() => setOpen(open === id ? null : id)}
          />
        ))}
        <NewRow state={state} />
      </tbody>
    </table>
  )
}

function Row({
  id,
  item,
  base,
  open,
  onOpen,
}: {
  id: string
  item: Item
  base: Base | null
  open: boolean
  onOpen: () => void
}) {
  const { readings } = useDocument()
  const edit = useLive((s) => s.edit)
  const row = useRef<HTMLTableRowElement>(null)
  const path = `/items/${id}`
  // what stays is in the weighing already: it stands where its shape stands
  const byShape = Boolean(item.solid) && (item.state === 'stays' || !item.at_mm)
  const guessed = readings[`${path}/mass_kg`]?.basis === 'assumed'
  return (
    <>
      <tr ref={row} className={`border-b border-hair align-middle ${open ? 'bg-wash' : ''}`}>
        <td>
          <RowOpener open={open} onOpen={onOpen}>
            {item.name}
          </RowOpener>
        </td>
        {item.state !== 'stays' && (
          <td data-step>
            {item.fluid ? (
              <Blank
                path={`${path}/fluid/volume_l`}
                label={`${item.name}, litres`}
                hideLabel
                bare
                kind="number"
                onTaken={onward}
              />
            ) : (
              <Blank
                path={`${path}/mass_kg`}
                label={`${item.name}, mass`}
                hideLabel
                bare
                kind="mass"
                optional
                onTaken={onward}
              />
            )}
            {(item.fluid || guessed) && (
              <span className="narrow block text-right text-xs text-soft">
                {item.fluid ? 'litres' : 'a guess'}
              </span>
            )}
          </td>
        )}
        <td data-step>
          {byShape && item.solid ? (
            <ByItsShape solid={item.solid} />
          ) : item.at_mm ? (
            <span className="flex gap-x-1">
              {(['aft', 'across', 'up'] as const).map((word, i) => (
                <Blank
                  key={word}
                  path={`${path}/at_mm/${i}`}
                  label={word}
                  name={`${item.name}, ${word}`}
                  hideLabel
                  bare
                  list="survey"
                  from={base}
                  onTaken={onward}
                />
              ))}
            </span>
          ) : (
            <WhereBlank
              path={`${path}/at_mm`}
              label={`${item.name}, where`}
              base={base}
              onTaken={() => sizeOf(row.current)}
            />
          )}
        </td>
        <td data-step className="pr-1">
          <SizeBlank id={id} item={item} onTaken={() => below(row.current)} />
        </td>
        <td>
          {inTheWay(item.state) && (
            <Choose
              hideLabel
              label={`${item.name} is`}
              value={item.gap_class}
              options={KINDS_OF_GAP}
              onChange={(v) => void edit([{ op: 'replace', path: `${path}/gap_class`, value: v }])}
            />
          )}
        </td>
        <td className="text-right">{!byShape && <Pick path={`${path}/at_mm`} name={item.name} />}</td>
      </tr>
      {open && (
        <tr>
          <td colSpan={6}>
            <ThingSheet id={id} item={item} base={base} />
          </td>
        </tr>
      )}
    </>
  )
}

/** A thing that is no mass stands where its shape stands. */
function ByItsShape({ solid }: { solid: NonNullable<Item['solid']> }) {
  const { length } = useUnits('survey')
  if (solid.type !== 'block') return <span className="narrow text-sm">where its shape is</span>
  const middle = solid.high_mm.map((h, i) => (h + (solid.low_mm[i] ?? 0)) / 2)
  return <span className="narrow">{place(middle, length)}</span>
}

function Pick({ path, name }: { path: string; name: string }) {
  const pick = useChoice((s) => s.pick)
  return (
    <button
      type="button"
      aria-label={`Pick the place of ${name} in a view`}
      onClick={() => pick({ path, name, at: [null, null, null] })}
      className="min-h-9 font-semibold text-blue underline underline-offset-4 hover:text-ink"
    >
      pick
    </button>
  )
}

/** The last line of a list: a name and Enter make a row, and the next figure is asked for. */
function NewRow({ state }: { state: State }) {
  const { items } = useDocument()
  const edit = useLive((s) => s.edit)
  const { data } = useQuery(startersQuery('typical-masses'))
  const [name, setName] = useTyped(`/items/${state}/name`)
  const order = Math.max(0, ...Object.values(items).map((i) => i.order)) + 1

  async function add(input: HTMLInputElement) {
    if (!name.trim()) return
    const id = freeId(name, items)
    const value = { name: name.trim(), state, order }
    if (!(await edit([{ op: 'add', path: `/items/${id}`, value }]))) return
    setName('')
    const table = input.closest('table')
    requestAnimationFrame(() => {
      const cells = table?.querySelectorAll<HTMLElement>('tbody tr:nth-last-child(2) [data-step] input')
      ;(cells?.[0] ?? input).focus()
    })
  }

  function start(key: string) {
    const row = data?.find((r) => r.id === key)
    if (!row) return
    const id = freeId(String(row.name), items)
    const item = { name: row.name, state, order, mass_kg: row.mass_kg, tol_kg: row.tol_kg, note: row.source }
    const path = `/items/${id}`
    const reading = { text: String(row.mass_kg), unit: 'kg', basis: 'assumed' }
    void edit([
      { op: 'add', path, value: item },
      { op: 'add', path: pointer('readings', `${path}/mass_kg`), value: reading },
    ] as Op[])
  }

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    event.stopPropagation()
    if (event.key === 'Enter') void add(event.currentTarget)
    if (event.key === 'Escape') setName('')
  }
  const typical = (data ?? []).filter((row) => row.state === state)
  return (
    <tr>
      <td colSpan={6} className="py-1">
        <span className="flex flex-wrap items-center gap-3">
          <input
            data-step
            data-goes={state === 'out' ? '/items' : undefined}
            value={name}
            aria-label={`Another that ${STATES.find(([k]) => k === state)?.[1]}`}
            placeholder="another: its name, Enter"
            maxLength={120}
            autoComplete="off"
            onChange={(e) => setName(e.target.value)}
            onKeyDown={keys}
            className="min-h-9 w-64 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft"
          />
          {typical.length > 0 && (
            <AddFrom
              label="start from a typical mass, a guess until weighed"
              options={typical.map(
                (row) => [String(row.id), `${row.name}: ${row.mass_kg} ± ${row.tol_kg} kg`] as const,
              )}
              onAdd={start}
            />
          )}
        </span>
      </td>
    </tr>
  )
}
