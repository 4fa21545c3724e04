/** Find: type any name, finding or station, and go there. */
import { useMemo, useState } from 'react'
import { create } from 'zustand'

import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useAnalysis, useLoaded } from '../design/live'
import { Dialog } from '../ui/Dialog'
import { sentence } from '../ui/format'
import { useUnits } from '../ui/units'
import { STATIONS } from './stations'

export const useFind = create<{ open: boolean }>(() => ({ open: false }))

interface Row {
  name: string
  sort: string
  station: string
  path?: string
  finding?: string
}

const MOST = 12
const COLLECTIONS = [
  ['boxes', 'box', 'place'],
  ['mounts', 'mount', 'mount'],
  ['items', 'thing', 'place'],
  ['keepouts', 'keep-out', 'place'],
  ['bays', 'space', 'survey'],
  ['references', 'reference point', 'survey'],
  ['hardpoints', 'hard point', 'survey'],
  ['members', 'member', 'survey'],
  ['module_kinds', 'module kind', 'stock'],
  ['modules', 'module on the shelf', 'stock'],
  ['load_states', 'load state', 'level'],
] as const

function useRows(): Row[] {
  const { document } = useLoaded()
  const { findings } = useAnalysis()
  const units = useUnits()
  return useMemo(
    () => [
      ...STATIONS.map(([key, word]) => ({ name: word, sort: 'station', station: key })),
      ...COLLECTIONS.flatMap(([collection, sort, station]) =>
        Object.entries(document[collection] as Record<string, { name: string }>).map(([key, thing]) => ({
          name: thing.name,
          sort,
          station,
          path: `${collection}/${key}`,
        })),
      ),
      ...findings.map((f) => ({
        name: sentence(f, units),
        sort: 'finding',
        station: f.station,
        finding: f.id,
      })),
    ],
    [document, findings, units],
  )
}

/** Rows that hold every word typed; those that begin with it first. */
function found(rows: Row[], text: string): Row[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return rows.slice(0, MOST)
  const hits = rows.filter((r) => words.every((w) => `${r.name} ${r.sort}`.toLowerCase().includes(w)))
  const first = words[0] ?? ''
  return hits
    .map((row, i) => ({ row, rank: row.name.toLowerCase().startsWith(first) ? i : i + 10_000 }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST)
    .map(({ row }) => row)
}

export function Find() {
  const open = useFind((s) => s.open)
  return (
    <Dialog
      title="Find"
      hideTitle
      open={open}
      onOpen={(next) => useFind.setState({ open: next })}
      className="top-[84px] right-6 w-[460px] max-w-[94vw] p-3"
      trigger={
        <button
          type="button"
          className="narrow self-end px-1.5 pb-2 text-sm font-semibold underline decoration-steel underline-offset-4 hover:text-blue"
        >
          Find
        </button>
      }
    >
      <Search />
    </Dialog>
  )
}

function Search() {
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const { project } = useLoaded()
  const { choose, select } = useChoice.getState()
  const findings = useAnalysis().findings
  const goTo = useGoTo(project)
  const rows = found(useRows(), text)

  function take(row: Row | undefined) {
    if (!row) return
    useFind.setState({ open: false })
    const about = findings.find((f) => f.id === row.finding)?.subjects[0] ?? null
    goTo(row.station, row.finding ? about : (row.path ?? useChoice.getState().selected))
    if (row.finding) choose(row.finding, about)
    else if (row.path) select(row.path, row.name)
  }

  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        aria-label="A name, a finding or a station"
        aria-activedescendant={rows[at] ? `found-${at}` : undefined}
        value={text}
        placeholder="a name, a finding or a station"
        onChange={(e) => (setText(e.target.value), setAt(0))}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setAt(Math.min(at + 1, rows.length - 1))
          else if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0))
          else if (e.key === 'Enter') take(rows[at])
          else return
          e.preventDefault()
        }}
        className="h-11 w-full rounded border-[1.5px] border-blue bg-white px-3 text-lg"
      />
      <ul
        id="found"
        role="listbox"
        aria-label="Found"
        className="m-0 mt-2 max-h-96 list-none overflow-auto p-0"
      >
        {rows.map((row, i) => (
          <li
            key={`${row.sort}${row.path ?? row.finding ?? row.name}`}
            id={`found-${i}`}
            role="option"
            aria-selected={i === at}
            onPointerDown={(e) => (e.preventDefault(), take(row))}
            onPointerEnter={() => setAt(i)}
            className={`flex min-h-9 cursor-pointer items-center justify-between gap-3 border-b border-hair px-2 last:border-0 ${i === at ? 'bg-wash text-blue' : ''}`}
          >
            <span className="truncate font-semibold">{row.name}</span>
            <span className="narrow text-sm whitespace-nowrap text-soft">{row.sort}</span>
          </li>
        ))}
        {rows.length === 0 && <li className="px-2 py-2">Nothing goes by that name.</li>}
      </ul>
    </>
  )
}
