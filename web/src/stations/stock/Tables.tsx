/** The tables that the checks rest on, each row with its source; a shop's own rows are marked and stay with the shop. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { at, freeId, pointer } from '../../design/pointer'
import { ownRowsQuery } from '../../design/queries'
import type { QuantityKind } from '../../design/figure'
import { useTyped } from '../../design/typed'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { OneOf } from '../../ui/Toggles'
import { Button, Heading, Link } from '../../ui/parts'

type Subject = 'materials' | 'fillers' | 'liners' | 'bolts' | 'bolt_classes' | 'gaps' | 'load_cases'
interface Column {
  name: string
  words: string
  kind?: QuantityKind | 'text' | readonly string[]
}

const SUBJECTS: Record<Subject, { words: string; columns: readonly Column[]; fresh: object | null }> = {
  materials: {
    words: 'Materials',
    columns: [
      { name: 'name', words: 'name', kind: 'text' },
      { name: 'density_kg_m3', words: 'kg/m³', kind: 'number' },
      { name: 'yield_mpa', words: 'yield, MPa', kind: 'number' },
      { name: 'ultimate_mpa', words: 'ultimate, MPa', kind: 'number' },
      { name: 'k_factor', words: 'K-factor', kind: 'number' },
      { name: 'weldable_with', words: 'welds to', kind: ['steel', 'aluminium'] },
      { name: 'series', words: 'series', kind: ['1xxx', '2xxx', '3xxx', '5xxx', '6xxx', '7xxx'] },
      { name: 'welded_yield_mpa', words: 'yield beside a weld', kind: 'number' },
      { name: 'welded_ultimate_mpa', words: 'ultimate beside a weld', kind: 'number' },
      { name: 'weld_metal_mpa', words: 'the weld itself, MPa', kind: 'number' },
      { name: 'bend_radii', words: 'bent to, × thick', kind: 'number' },
      { name: 'grain', words: 'cracks along its rolling', kind: ['yes', 'no'] },
      { name: 'price_per_kg', words: 'price a kg', kind: 'number' },
    ],
    fresh: {
      name: 'own material',
      density_kg_m3: 7850,
      yield_mpa: 235,
      ultimate_mpa: 360,
      k_factor: 0.42,
      weldable_with: 'steel',
      series: null,
      welded_yield_mpa: null,
      welded_ultimate_mpa: null,
      weld_metal_mpa: null,
      bend_radii: null,
      grain: null,
      price_per_kg: null,
      k_source: 'shop’s own',
    },
  },
  fillers: {
    words: 'Fillers of welds',
    columns: [
      { name: 'name', words: 'name', kind: 'text' },
      { name: 'welds', words: 'welds', kind: ['steel', 'aluminium'] },
      { name: 'cracks_with', words: 'cracks with', kind: 'text' },
    ],
    fresh: { name: 'own filler', welds: 'aluminium', cracks_with: '' },
  },
  liners: {
    words: 'Liners',
    columns: [
      { name: 'name', words: 'name', kind: 'text' },
      { name: 'thickness_mm', words: 'thick', kind: 'length' },
      { name: 'creeps', words: 'settles in time', kind: ['yes', 'no'] },
      { name: 'settles_percent', words: 'by, %', kind: 'number' },
      { name: 'conducts', words: 'conducts', kind: ['yes', 'no'] },
      { name: 'burns', words: 'burns', kind: ['yes', 'no'] },
      { name: 'limit_c', words: 'to, °C', kind: 'number' },
      { name: 'density_kg_m3', words: 'kg/m³', kind: 'number' },
      { name: 'price_per_m2', words: 'price a m²', kind: 'number' },
    ],
    fresh: {
      name: 'own liner',
      thickness_mm: 3,
      creeps: 'no',
      settles_percent: 0,
      conducts: 'no',
      burns: 'no',
      limit_c: 100,
      density_kg_m3: null,
      price_per_m2: null,
    },
  },
  bolts: {
    words: 'Bolts',
    columns: [
      { name: 'd_mm', words: 'd', kind: 'number' },
      { name: 'pitch_mm', words: 'pitch', kind: 'number' },
      { name: 'stress_area_mm2', words: 'area, mm²', kind: 'number' },
      { name: 'clearance_hole_mm', words: 'hole', kind: 'number' },
      { name: 'washer_mm', words: 'washer', kind: 'number' },
      { name: 'across_flats_mm', words: 'flats', kind: 'number' },
      { name: 'head_mm', words: 'head', kind: 'number' },
      { name: 'thread', words: 'thread', kind: ['metric', 'inch'] },
    ],
    fresh: {
      d_mm: 8,
      pitch_mm: 1,
      stress_area_mm2: 39.2,
      clearance_hole_mm: 9,
      washer_hole_mm: 8.4,
      washer_mm: 16,
      washer_thick_mm: 1.6,
      across_flats_mm: 13,
      head_mm: 5.3,
      thread: 'metric',
    },
  },
  bolt_classes: {
    words: 'Bolt classes',
    columns: [
      { name: 'ultimate_mpa', words: 'ultimate, MPa', kind: 'number' },
      { name: 'proof_mpa', words: 'proof, MPa', kind: 'number' },
      { name: 'alpha_v', words: 'shear factor', kind: 'number' },
      { name: 'thread', words: 'of bolts', kind: ['metric', 'inch'] },
    ],
    fresh: { ultimate_mpa: 800, proof_mpa: 600, alpha_v: 0.6, thread: 'metric' },
  },
  gaps: {
    words: 'Gaps',
    columns: [
      { name: 'need_mm', words: 'needs', kind: 'length' },
      { name: 'reason', words: 'because', kind: 'text' },
    ],
    fresh: null,
  },
  load_cases: {
    words: 'Load cases',
    columns: [
      { name: 'name', words: 'name', kind: 'text' },
      { name: 'kind', words: 'is', kind: ['road', 'crash'] },
      { name: 'aft_g', words: 'aft, g', kind: 'number' },
      { name: 'right_g', words: 'right, g', kind: 'number' },
      { name: 'up_g', words: 'up, g', kind: 'number' },
    ],
    fresh: { kind: 'road', name: 'own load case', aft_g: 0, right_g: 0, up_g: -1 },
  },
}

export function Tables() {
  const [subject, setSubject] = useState<Subject>('materials')
  const { tables } = useDocument()
  const { columns, fresh, words } = SUBJECTS[subject]
  const rows = Object.entries(tables[subject] as Record<string, Record<string, unknown>>)
  return (
    <>
      <OneOf
        bare
        label="Tables"
        value={subject}
        options={(Object.keys(SUBJECTS) as Subject[]).map((key) => [key, SUBJECTS[key].words] as const)}
        onChange={(key) => setSubject(key as Subject)}
      />
      <p className="my-1 text-sm">
        The design keeps its own copy, so that an old car computes the same for ever. A row that you change or
        add is your shop's own and says so.
      </p>
      <table aria-label={words} className="w-full border-collapse">
        <thead className="text-left text-sm text-soft">
          <tr>
            <th className="pr-3 font-semibold">row</th>
            {columns.map((c) => (
              <th key={c.name} className="pr-3 font-semibold">
                {c.words}
              </th>
            ))}
            {columns.length <= MOST_BESIDE && <th className="font-semibold">source</th>}
          </tr>
        </thead>
        <tbody>
          {rows.map(([key, row]) => (
            <Row key={`${subject}/${key}`} subject={subject} id={key} row={row} columns={columns} />
          ))}
        </tbody>
      </table>
      {fresh && <Add subject={subject} fresh={fresh} />}
      <OfTheShop subject={subject} />
    </>
  )
}

const MOST_BESIDE = 9 // columns that leave room for the source beside them

function Row({
  subject,
  id,
  row,
  columns,
}: {
  subject: Subject
  id: string
  row: Record<string, unknown>
  columns: readonly Column[]
}) {
  const edit = useLive((s) => s.edit)
  const path = pointer('tables', subject, id)
  const own = Boolean(row.own)
  const below = columns.length > MOST_BESIDE
  const source = (
    <td className="narrow py-1 text-sm text-soft" colSpan={below ? columns.length : 1}>
      {own ? (
        <NameBlank path={`${path}/source`} label={`${id}, source`} hideLabel wide />
      ) : (
        [row.source, row.welded_source].filter(Boolean).join('; beside a weld: ')
      )}
      <span className={below ? 'ml-3' : 'block'}>
        {own ? (
          subject !== 'gaps' && (
            <Link aria-label={`Remove ${id}`} onClick={() => void edit([{ op: 'remove', path }])}>
              remove
            </Link>
          )
        ) : (
          <Link
            aria-label={`change it: make ${id} the shop’s own`}
            onClick={() => void edit([{ op: 'replace', path: `${path}/own`, value: true }])}
          >
            change it
          </Link>
        )}
      </span>
    </td>
  )
  const cells = (
    <>
      <td className="py-2 pr-3 font-semibold">
        {id}
        {own && <span className="narrow block text-xs font-semibold text-blue">shop's own</span>}
      </td>
      {columns.map((c) => (
        <td key={c.name} className="py-1 pr-3">
          {own ? (
            <Cell path={`${path}/${c.name}`} name={`${id}, ${c.words}`} column={c} />
          ) : (
            shown(row[c.name])
          )}
        </td>
      ))}
    </>
  )
  const look = `border-hair align-top ${own ? 'bg-wash' : ''}`
  if (!below)
    return (
      <tr className={`border-b ${look}`}>
        {cells}
        {source}
      </tr>
    )
  return (
    <>
      <tr className={look}>{cells}</tr>
      <tr className={`border-b ${look}`}>
        <td />
        {source}
      </tr>
    </>
  )
}

const shown = (value: unknown) => (value === null || value === undefined ? '–' : String(value))

function Cell({ path, name, column }: { path: string; name: string; column: Column }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const kind = column.kind
  if (kind === 'text') return <NameBlank path={path} label={name} hideLabel wide />
  if (Array.isArray(kind)) {
    const cut = path.lastIndexOf('/')
    const field = path.slice(cut + 1)
    const row = at(document, path.slice(0, cut)) as Record<string, string> | undefined
    return (
      <Choose
        hideLabel
        label={name}
        value={row?.[field] ?? ''}
        options={[
          ...(row?.[field] ? [] : [['', 'nobody has said'] as const]),
          ...kind.map((w: string) => [w, w] as const),
        ]}
        onChange={(value) => void edit([{ op: 'replace', path, value }])}
      />
    )
  }
  return <Blank path={path} label={name} hideLabel bare kind={kind as QuantityKind} list="stock" />
}

/** A row of the shop's own, with where it comes from. */
function Add({ subject, fresh }: { subject: Subject; fresh: object }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const [name, setName] = useTyped(`/tables/${subject}/name`)
  const [source, setSource] = useTyped(`/tables/${subject}/source`)
  const taken = tables[subject] as object
  async function add() {
    const plain = name.trim()
    const id = subject === 'bolts' || subject === 'bolt_classes' ? plain : freeId(plain, taken)
    const named = 'name' in fresh ? { name: plain } : {}
    const value = { ...fresh, ...named, source: source.trim(), own: true }
    if (await edit([{ op: 'add', path: pointer('tables', subject, id), value }])) {
      setName('')
      setSource('')
    }
  }
  const blank =
    'min-h-9 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft'
  return (
    <form
      className="my-2 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        void add()
      }}
    >
      <input
        aria-label="Name of the own row"
        placeholder={subject === 'bolts' ? 'M8x1' : 'its name'}
        value={name}
        maxLength={60}
        onChange={(e) => setName(e.target.value)}
        className={`${blank} w-44`}
      />
      <input
        aria-label="Where its figures come from"
        placeholder="where its figures come from"
        value={source}
        maxLength={200}
        onChange={(e) => setSource(e.target.value)}
        className={`${blank} w-72`}
      />
      <Button plain type="submit" disabled={!name.trim() || !source.trim()}>
        Add a row of our own
      </Button>
    </form>
  )
}

/** Own rows of the shop's other cars, to take over. */
function OfTheShop({ subject }: { subject: Subject }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const { data } = useQuery(ownRowsQuery)
  const here = tables[subject] as object
  const rows = (data ?? []).filter((r) => r.subject === subject && !(r.id in here))
  if (rows.length === 0) return null
  return (
    <section aria-label="Own rows of other cars">
      <Heading>Our own rows in other cars</Heading>
      {rows.map((r) => (
        <p key={r.id} className="m-0 flex items-center justify-between border-b border-hair py-1">
          <span>
            <strong>{r.id}</strong> <span className="narrow text-sm text-soft">from {r.car}</span>
          </span>
          <Button
            plain
            onClick={() => void edit([{ op: 'add', path: pointer('tables', subject, r.id), value: r.row }])}
          >
            Take it over
          </Button>
        </p>
      ))}
    </section>
  )
}
