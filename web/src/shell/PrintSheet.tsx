/** A station on paper: black on white, states by word and shape, a column to write in what was found. */
import { KINDS } from '../stations/mount/kinds'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { flushSync } from 'react-dom'

import { useAnalysis, useDocument, useLoaded } from '../design/live'
import { blanksQuery } from '../design/queries'
import type { Analysis, Document, Finding, SurveyBlank } from '../design/types'
import { figure, length, mass, massUp, place, sentence, type Units } from '../ui/format'
import { Mark, WORD } from '../ui/Mark'
import { useUnits } from '../ui/units'
import { PrintDrawing } from '../views/PrintDrawing'
import { type Station, STATIONS } from './stations'

interface Row {
  what: string
  is: string
}

export function PrintSheet({ here }: { here: Station }) {
  const { project, revision } = useLoaded()
  const document = useDocument()
  const analysis = useAnalysis()
  const list = here === 'survey' ? 'survey' : here === 'stock' ? 'stock' : 'place'
  const units = useUnits(list)
  const at = usePrinting()
  // asked for ahead: a printer does not wait for an answer
  const { data } = useQuery({ ...blanksQuery(project, revision), enabled: here === 'survey' })
  if (!at) return null
  const word = STATIONS.find(([key]) => key === here)?.[1]
  const running = [
    document.name,
    word,
    `rev. ${revision}`,
    at,
    ...(analysis.released || !Object.keys(document.boxes).length ? [] : ['NOT RELEASED']),
  ].join(' · ')
  const rows = rowsOf(here, document, analysis, units, data ?? [])
  const found = analysis.findings.filter((f) => f.station === here && f.state !== 'note')
  return (
    <section aria-label="Print sheet" className="hidden text-[11pt] print:block">
      <header className="flex items-baseline justify-between border-b-2 border-black pb-1">
        <h1 className="m-0 text-[16pt] font-bold">
          {word} · {document.name}
        </h1>
        <span>
          rev. {revision} · {at} · lengths in {units.length === 'mm' ? 'millimetres' : 'inches'}, masses in{' '}
          {units.mass}
        </span>
      </header>
      {!analysis.released && Object.keys(document.boxes).length > 0 && (
        <p className="my-2 border-2 border-black px-2 py-1 text-[14pt] font-bold">
          NOT RELEASED: nothing is to be cut from this.
        </p>
      )}
      {['place', 'survey', 'mount'].includes(here) && <PrintDrawing units={units} />}
      {rows.length > 0 && (
        <table className="mt-3 w-full border-collapse">
          <thead>
            <Running columns={3} message={running} />
            <tr className="border-b border-black text-left">
              <th>what</th>
              <th className="w-[60mm] text-right">is</th>
              <th className="w-[45mm] pl-4">found</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={i} className="break-inside-avoid border-b border-black/40">
                <td className="py-1">{row.what}</td>
                <td className="text-right font-semibold">{row.is}</td>
                <td className="border-l border-black/40" />
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found.length > 0 && <Findings rows={found} units={units} running={running} />}
      <footer className="mt-4 break-inside-avoid">
        <div data-check-line className="h-[3mm] w-[100mm] border-x border-b border-black" />
        100 mm when printed true to size. Results are engineering estimates; have them checked.
      </footer>
    </section>
  )
}

/** When it is being printed, and null else: the sheet costs nothing while something is dragged. */
function usePrinting(): string | null {
  const [at, setAt] = useState<string | null>(null)
  useEffect(() => {
    const media = window.matchMedia('print')
    const now = () => new Date().toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' })
    const before = () => flushSync(() => setAt(now()))
    const after = () => !media.matches && setAt(null)
    const turned = () => (media.matches ? setAt(now()) : after())
    window.addEventListener('beforeprint', before)
    window.addEventListener('afterprint', after)
    media.addEventListener('change', turned)
    return () => {
      window.removeEventListener('beforeprint', before)
      window.removeEventListener('afterprint', after)
      media.removeEventListener('change', turned)
    }
  }, [])
  return at
}

/** The head of a table stands on every sheet it runs over, and with it whose figures these are. */
function Running({ columns, message }: { columns: number; message: string }) {
  return (
    <tr>
      <th colSpan={columns} className="pb-1 text-right text-[9pt] font-normal">
        {message}
      </th>
    </tr>
  )
}

function Findings({ rows, units, running }: { rows: Finding[]; units: Units; running: string }) {
  const shown = (f: Finding, value: number | null, round: 'up' | 'down') =>
    value === null ? '' : figure({ value, unit: f.unit, round }, units)
  return (
    <table className="mt-3 w-full border-collapse">
      <thead>
        <Running columns={5} message={running} />
        <tr className="border-b border-black text-left">
          <th className="w-[32mm]">state</th>
          <th>finding</th>
          <th className="w-[26mm] text-right">has</th>
          <th className="w-[26mm] text-right">needs</th>
          <th className="w-[45mm] pl-4">found</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((f) => (
          <tr key={f.id} className="break-inside-avoid border-b border-black/40">
            <td className="py-1">
              <span className="flex items-center gap-1">
                <Mark state={f.state} silent /> {WORD[f.state]}
              </span>
            </td>
            <td>{sentence(f, units)}</td>
            <td className="text-right">{shown(f, f.value, 'down')}</td>
            <td className="text-right">{shown(f, f.limit, 'up')}</td>
            <td className="border-l border-black/40" />
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** The figures of a station, one line each. */
function rowsOf(
  here: Station,
  document: Document,
  analysis: Analysis,
  units: Units,
  blanks: readonly SurveyBlank[],
): Row[] {
  const long = (v: number) => `${length(v, units.length)}${units.length === 'mm' ? ' mm' : ''}`
  switch (here) {
    case 'survey':
      return blanks.map((b) => ({ what: `${b.number}  ${b.group}: ${b.label}`, is: b.text }))
    case 'stock':
      return Object.entries(document.modules)
        .sort(([, a], [, b]) => a.order - b.order)
        .map(([id, m]) => {
          const row = analysis.shelf.rows.find((r) => r.id === id)
          return {
            what: `${m.name}${m.serial ? `, ${m.serial}` : ''} (${m.verdict})`,
            is: row ? `${row.per_cell_v.toFixed(3)} V a cell` : '',
          }
        })
    case 'place':
    case 'box':
      return Object.values(analysis.boxes).flatMap((b) => [
        { what: `${b.name}: front left base corner`, is: place(b.corner_mm, units.length) },
        { what: `${b.name}: outside`, is: b.outer_mm.map(long).join(' × ') },
        { what: `${b.name}: inside`, is: b.inner_mm.map(long).join(' × ') },
        { what: `${b.name}: full`, is: mass(b.full_kg, units.mass) },
      ])
    case 'level': {
      const { found, ready, states } = analysis.level
      const all = [
        ...(found ? [{ name: 'as found, bare', loads: found }] : []),
        ...(ready ? [{ name: 'ready', loads: ready }] : []),
        ...states,
      ]
      return all.flatMap(({ name, loads }) => [
        {
          what: `Front axle, ${name}`,
          is: `${mass(loads.front_kg, units.mass)} ± ${massUp(loads.off.front_kg, units.mass)}`,
        },
        {
          what: `Rear axle, ${name}`,
          is: `${mass(loads.rear_kg, units.mass)} ± ${massUp(loads.off.rear_kg, units.mass)}`,
        },
      ])
    }
    case 'mount':
      return Object.values(document.mounts).map((m) => ({
        what: m.name,
        is: KINDS[m.shape.type].message(m),
      }))
    default:
      return []
  }
}
