/** The shelf: one row a module, readings typed down a column with Enter, compared per cell. */
import { useState } from 'react'

import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { type QuantityKind, TYPED } from '../../design/figure'
import { freeId } from '../../design/pointer'
import type { Module } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, RowOpener, Teach } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { MakeMany } from './MakeMany'
import { ModuleSheet } from './ModuleSheet'
import { ShelfFile } from './ShelfFile'
import { selectedIn } from '../useParts'

const VERDICTS = [
  ['', 'not judged'],
  ['good', 'good'],
  ['spare', 'spare'],
  ['reject', 'reject'],
] as const

interface Column {
  name: 'open_circuit_v' | 'resistance_mohm' | 'temperature_c' | 'mass_kg'
  words: string
  unit: string
  kind: QuantityKind
}
const COLUMNS: readonly Column[] = [
  { name: 'open_circuit_v', words: 'volts', unit: 'V', kind: 'voltage' },
  { name: 'resistance_mohm', words: 'inner resistance', unit: 'mΩ', kind: 'number' },
  { name: 'temperature_c', words: 'temperature', unit: '°C', kind: 'number' },
  { name: 'mass_kg', words: 'mass', unit: '', kind: 'mass' },
]

export function Shelf() {
  const { modules, module_kinds } = useDocument()
  const { project } = useLoaded()
  const [importing, setImporting] = useState(false)
  const [day, setDay] = useState('')
  const kinds = Object.keys(module_kinds)
  const rows = Object.entries(modules).sort(([, a], [, b]) => a.order - b.order)
  if (kinds.length === 0)
    return <Teach>No modules yet. Measure one under Kinds, weigh it, and say how many are like it.</Teach>
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1">
        <MakeMany />
        <span className="flex gap-2">
          <Button plain onClick={() => setImporting(!importing)}>
            Read a table in
          </Button>
          <Button plain asChild>
            <a href={`/api/projects/${project}/shelf.csv`} download>
              Write it as CSV
            </a>
          </Button>
        </span>
      </div>
      {importing && <ShelfFile onDone={() => setImporting(false)} />}
      <Day day={day} onDay={setDay} />
      {rows.length > 0 && <Rows rows={rows} day={day} />}
    </>
  )
}

/** Which readings are typed: the first, undated ones, or those of a day. */
function Day({ day, onDay }: { day: string; onDay: (day: string) => void }) {
  const { modules } = useDocument()
  const known = new Set(Object.values(modules).flatMap((m) => Object.values(m.tests).map((t) => t.on)))
  const today = new Date().toISOString().slice(0, 10)
  const days = [...new Set([...known, today, day].filter(Boolean))].sort().reverse()
  return (
    <div className="mb-1 flex flex-wrap items-center gap-3">
      <span className="narrow">Readings</span>
      <Choose
        hideLabel
        label="Readings"
        value={day}
        options={[
          ['', 'as first read, no date'],
          ...days.map((d) => [d, d === today ? `of today, ${d}` : `of ${d}`] as const),
        ]}
        onChange={onDay}
      />
      <label className="flex items-center gap-2">
        <span className="narrow">another day</span>
        <input
          type="date"
          value={day}
          onChange={(e) => onDay(e.target.value)}
          className="min-h-9 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold"
        />
      </label>
    </div>
  )
}

/** Enter goes down the column. */
function down(input: HTMLInputElement) {
  const column = input.closest<HTMLElement>('[data-column]')?.dataset.column
  const all = [
    ...(input.closest('table')?.querySelectorAll<HTMLInputElement>(`[data-column="${column}"] input`) ?? []),
  ]
  all[all.indexOf(input) + 1]?.focus()
}

function Rows({ rows, day }: { rows: [string, Module][]; day: string }) {
  const { shelf } = useAnalysis()
  const units = useUnits('stock')
  const [open, setOpen] = useState<string | null>(selectedIn('modules'))
  const columns = day ? COLUMNS : COLUMNS.slice(0, 1)
  return (
    <table className="w-full border-collapse">
      <thead className="text-left text-sm text-soft">
        <tr>
          <th className="font-semibold">module</th>
          <th className="w-[140px] font-semibold">serial</th>
          {columns.map((c) => (
            <th key={c.name} className="w-[100px] text-right font-semibold">
              {c.words}, {c.unit || units.mass}
            </th>
          ))}
          <th className="w-[136px] text-right font-semibold">mV a cell off</th>
          <th className="w-[116px] pl-3 font-semibold">verdict</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([id, module]) => {
          const figure = shelf.rows.find((r) => r.id === id)
          return (
            <ModuleRow
              key={id}
              id={id}
              module={module}
              day={day}
              columns={columns}
              off={figure ? figure.off_v * 1000 : null}
              out={figure?.out_of_step ?? false}
              open={open === id}
              onOpen={() => setOpen(open === id ? null : id)}
            />
          )
        })}
      </tbody>
    </table>
  )
}

function ModuleRow({
  id,
  module,
  day,
  columns,
  off,
  out,
  open,
  onOpen,
}: {
  id: string
  module: Module
  day: string
  columns: readonly Column[]
  off: number | null
  out: boolean
  open: boolean
  onOpen: () => void
}) {
  const edit = useLive((s) => s.edit)
  const { module_kinds } = useDocument()
  const path = `/modules/${id}`
  const several = Object.keys(module_kinds).length > 1
  const marks = [
    module.damage && 'damaged',
    module.altered && 'altered',
    module.stand_in && 'stand-in',
    module.tested_in_donor && 'tested in the donor',
  ].filter(Boolean)
  return (
    <>
      <tr className={`border-b border-hair ${open ? 'bg-wash' : ''}`}>
        <td>
          <RowOpener open={open} onOpen={onOpen}>
            {module.name}
            <span className="narrow w-full text-xs text-soft">
              {[several && module_kinds[module.kind]?.name, ...marks].filter(Boolean).join(' · ')}
            </span>
          </RowOpener>
        </td>
        <td className="pr-2">
          <NameBlank path={`${path}/serial`} label={`${module.name}, serial`} hideLabel wide />
        </td>
        {columns.map((column) => (
          <td key={column.name} data-column={column.name}>
            <Reading id={id} module={module} day={day} column={column} />
          </td>
        ))}
        <td className={`text-right font-semibold ${out ? 'text-tight' : ''}`}>
          {off === null ? '–' : `${off > 0 ? '+' : ''}${off.toFixed(0)}${out ? ', out of step' : ''}`}
        </td>
        <td className="pl-3">
          <Choose
            hideLabel
            label={`${module.name} is`}
            value={module.verdict ?? ''}
            options={VERDICTS}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/verdict`, value: v || null }])}
          />
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={columns.length + 4}>
            <ModuleSheet id={id} module={module} />
          </td>
        </tr>
      )}
    </>
  )
}

/** One reading of one module: undated, or of a day whose test is made when its first figure is typed. */
function Reading({ id, module, day, column }: { id: string; module: Module; day: string; column: Column }) {
  const shared = {
    label: `${module.name}, ${column.words}`,
    hideLabel: true,
    bare: true,
    kind: column.kind,
    optional: true,
    onTaken: down,
  }
  if (!day) return <Blank {...shared} path={`/modules/${id}/reading_v`} />
  const key = Object.keys(module.tests).find((k) => module.tests[k]?.on === day)
  if (key) return <Blank {...shared} path={`/modules/${id}/tests/${key}/${column.name}`} />
  const fresh = freeId(`test-${day}`, module.tests)
  return (
    <Blank
      {...shared}
      path={`/modules/${id}/tests/${fresh}/${column.name}`}
      figure={null}
      into={{
        ops: [{ op: 'add', path: `/modules/${id}/tests/${fresh}`, value: { on: day, [column.name]: TYPED } }],
        none: [],
      }}
    />
  )
}

/** How modules are compared, and what the meter can tell. */
export function ShelfRule() {
  const { shelf } = useAnalysis()
  return (
    <>
      <Heading>Out of step</Heading>
      <Blank path="/shelf_rule/floor_mv" label="Never below, mV a cell" kind="number" />
      <Blank path="/shelf_rule/meter_step_mv" label="The meter's step, mV" kind="number" />
      {shelf.middle_v !== null && (
        <p className="m-0">
          The middle is <strong>{shelf.middle_v.toFixed(3)} V</strong> a cell; more than{' '}
          <strong>{(shelf.limit_v * 1000).toFixed(0)} mV</strong> off is out of step.
        </p>
      )}
      <p className="m-0 mt-1 text-sm">{shelf.message}</p>
    </>
  )
}
