/** The car weighed along the way, and each box alone: what the scale says beside what was to be expected. */
import { useState } from 'react'

import { note } from '../../design/figure'
import { useAnalysis, useDocument, useLive } from '../../design/live'
import { freeId, pointer } from '../../design/pointer'
import { readText } from '../../design/queries'
import type { Document, Read, WeighedRow } from '../../design/types'
import { useTyped } from '../../design/typed'
import { AddFrom } from '../../ui/AddFrom'
import { Blank } from '../../ui/Blank'
import { mass, massUp } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Choose } from '../../ui/Choose'
import { Tick } from '../../ui/Tick'
import { Heading, Link, RowOpener } from '../../ui/parts'
import { ShortBlank, ShortForm } from '../../ui/ShortForm'
import { useUnits } from '../../ui/units'
import { READINGS, WAYS } from '../survey/weights/readings'

type WeighedBy = Read['type']
/** What is weighed: a stage of the car, or a box by its id. */
const STAGES = [
  ['stripped', 'the car stripped'],
  ['on the way', 'the car on the way'],
  ['finished', 'the car finished'],
] as const

export function Weighings() {
  const { boxes } = useDocument()
  const { weighed } = useAnalysis().level
  const [asked, setAsked] = useState<string | null>(null)
  const names = Object.entries(boxes).map(([id, box]) => [`boxes/${id}`, `${box.name}, alone`] as const)
  return (
    <section aria-label="Weighed along the way">
      <Heading>Weighed along the way</Heading>
      {weighed.map((row) => (
        <Weighed key={row.id} row={row} />
      ))}
      {asked ? (
        <NewWeighing what={asked} onDone={() => setAsked(null)} />
      ) : (
        <AddFrom label="Weigh" options={[...STAGES, ...names]} onAdd={setAsked} />
      )}
    </section>
  )
}

const words = (row: WeighedRow) => (row.kind === 'box' ? row.name : `the car, ${row.name}`)

function Weighed({ row }: { row: WeighedRow }) {
  const [open, setOpen] = useState(false)
  const { mass: unit } = useUnits('survey')
  const { agrees, rows, worst_kg: worst } = row
  return (
    <div className="border-b border-hair">
      <RowOpener open={open} onOpen={() => setOpen(!open)}>
        <span>{words(row)}</span>
        <span className="flex items-center gap-1 text-sm">
          {rows.length > 0 && <Mark state={agrees ? 'clear' : 'unknown'} />}
          {rows.length === 0 ? 'not compared' : agrees ? 'as expected' : `${mass(worst, unit)} off`}
        </span>
      </RowOpener>
      {open && (
        <div className="mb-2">
          <Compared row={row} />
          <Figures id={row.id} />
        </div>
      )}
    </div>
  )
}

function Compared({ row }: { row: WeighedRow }) {
  const { mass: unit } = useUnits('survey')
  const kg = (value: number) => mass(value, unit).replace(/ .*/, '')
  if (row.rows.length === 0) return <p className="m-0 text-sm">Nothing to hold it against yet.</p>
  return (
    <table className="w-full border-collapse text-right">
      <thead>
        <tr className="text-sm text-soft">
          {['on', `found (${unit})`, 'expected', 'agree within ±', 'off'].map((head) => (
            <th key={head} className="font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {row.rows.map((r) => (
          <tr key={r.name} className="border-t border-hair">
            <th className="text-left font-normal">{r.name}</th>
            <td className="font-bold">{kg(r.found_kg)}</td>
            <td>{kg(r.expected_kg)}</td>
            <td className="text-sm">{massUp(r.tol_kg, unit).replace(/ .*/, '')}</td>
            <td className={r.agrees ? '' : 'font-bold text-tight'}>
              {r.off_kg < 0 ? '−' : '+'}
              {kg(Math.abs(r.off_kg))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Its readings, and what was done or stood on the scale by then. */
function Figures({ id }: { id: string }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const weighed = document.weighings[id]
  if (!weighed) return null
  const path = `/weighings/${id}`
  function turn(what: string, on: boolean) {
    const at = pointer('weighings', id, 'done', what)
    void edit([on ? { op: 'add', path: at, value: true } : { op: 'remove', path: at }])
  }
  return (
    <>
      {READINGS[weighed.read.type].map(([name, label]) => (
        <Blank key={name} path={`${path}/read/${name}`} label={label} name={`${label} reads`} kind="mass" />
      ))}
      <Blank path={`${path}/read/step_kg`} label="The scale's step" kind="mass" />
      {choices(document, weighed.kind, weighed.done).map(([what, name]) => (
        <Tick
          key={what}
          label={weighed.kind === 'box' ? `with ${name}` : `${name} done`}
          value={what in weighed.done}
          onChange={(on) => turn(what, on)}
        />
      ))}
      <p className="m-0">
        <Link onClick={() => void edit([{ op: 'remove', path }])}>Take these readings away</Link>
      </p>
    </>
  )
}

/** What may be said to be done: on the way, all that changes the car's mass; of a box, what is fixed to it. */
function choices(
  { items, boxes }: Document,
  kind: string,
  done: Record<string, unknown>,
): [string, string][] {
  const things = Object.entries(items)
  if (kind === 'on the way')
    return [
      ...things
        .filter(([, item]) => item.state === 'out' || item.state === 'in')
        .map(([id, item]): [string, string] => [
          `items/${id}`,
          `${item.name} ${item.state === 'out' ? 'out' : 'in'}`,
        ]),
      ...Object.entries(boxes).map(([id, box]): [string, string] => [`boxes/${id}`, `${box.name} in`]),
    ]
  if (kind !== 'box') return []
  return things
    .filter(([, item]) => {
      const box = item.place.type === 'box' ? item.place.box : item.fixed_to
      return `boxes/${box}` in done
    })
    .map(([id, item]) => [`items/${id}`, item.name])
}

const USUAL = JSON.stringify({ step_kg: '1' })

/** Nothing is stored before its readings are there. */
function NewWeighing({ what, onDone }: { what: string; onDone: () => void }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const { mass: unit } = useUnits('survey')
  const isBox = what.startsWith('boxes/')
  const [way, setWay] = useState<WeighedBy>(isBox ? 'total' : 'axles')
  const [kept, keep] = useTyped(`/weighings/${what}/new`, USUAL)
  const texts = JSON.parse(kept) as Record<string, string>
  const fields = [...READINGS[way], ['step_kg', "The scale's step"] as const]

  async function store() {
    const { weighings, readings } = document
    const id = freeId(isBox ? what.slice(6) : what, weighings)
    const at = (name: string) => `/weighings/${id}/read/${name}`
    const read = await Promise.all(
      fields.map(async ([name]): Promise<[string, number]> => [
        name,
        await readText({ text: texts[name] ?? '', path: at(name), unit }),
      ]),
    )
    const value = {
      kind: isBox ? 'box' : what,
      order: Object.keys(weighings).length,
      read: { type: way, ...Object.fromEntries(read) },
      done: isBox ? { [what]: true } : {},
    }
    const notes = fields.flatMap(([name]) =>
      note(readings, at(name), { text: texts[name], unit, basis: 'measured' }),
    )
    if (await edit([{ op: 'add', path: `/weighings/${id}`, value }, ...notes])) leave()
  }
  function leave() {
    keep(USUAL)
    onDone()
  }

  return (
    <ShortForm does="Put it beside what was expected" onSubmit={store} onLeave={leave}>
      <strong>
        {isBox
          ? `${document.boxes[what.slice(6)]?.name}: full, without brackets`
          : STAGES.find(([key]) => key === what)?.[1]}
      </strong>
      {!isBox && <Choose label="Weighed by" value={way} options={WAYS} onChange={setWay} />}
      {fields.map(([name, label]) => (
        <ShortBlank
          key={name}
          label={`${isBox && name === 'total_kg' ? 'It weighs' : label} (${unit})`}
          value={texts[name] ?? ''}
          number
          inputMode="decimal"
          onChange={(text) => keep(JSON.stringify({ ...texts, [name]: text }))}
        />
      ))}
    </ShortForm>
  )
}
