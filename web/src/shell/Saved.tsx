/** Whether everything is stored; what waits for the server and what it refused; and who works at this screen. */
import { useState } from 'react'

import { nameWho, whoWorks } from '../design/api'
import { forget, useLive, useWaiting } from '../design/live'
import type { Row } from '../design/outbox'
import { Heading, Link } from '../ui/parts'
import { ShortBlank } from '../ui/ShortForm'

export function Saved() {
  const saving = useLive((s) => s.saving)
  const revision = useLive((s) => s.loaded?.revision)
  const rows = useWaiting()
  const [open, setOpen] = useState(false)
  const refused = rows.filter((row) => row.refused).length
  const waiting = rows.length - refused
  const counts = [waiting && `${waiting} waiting`, refused && `${refused} refused`].filter(Boolean)
  const stored = saving && !waiting ? 'saving …' : `saved · rev. ${revision}`
  return (
    <span className="relative">
      <span role="status">
        <button
          type="button"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          className={`narrow mt-1 text-left text-xs pointer-coarse:-mt-4 max-[1100px]:-mt-4 ${rows.length ? 'rounded bg-white px-1 font-bold text-tight' : ''}`}
        >
          {rows.length ? `not saved, ${counts.join(', ')}` : stored}
        </button>
      </span>
      {open && <Sheet rows={rows} onClose={() => setOpen(false)} />}
    </span>
  )
}

function Sheet({ rows, onClose }: { rows: readonly Row[]; onClose: () => void }) {
  const [name, setName] = useState(whoWorks)
  return (
    <div
      role="dialog"
      aria-label="What is saved"
      className="absolute top-full left-0 z-30 mt-2 w-[330px] rounded border-2 border-blue bg-sheet p-3 shadow-lg"
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <Heading right={<Link onClick={onClose}>close</Link>}>
        {rows.length ? 'Not saved yet' : 'Everything is saved'}
      </Heading>
      <ul className="m-0 max-h-72 list-none overflow-auto p-0">
        {rows.map((row) => (
          <Kept key={row.key} row={row} />
        ))}
      </ul>
      {rows.length > 0 && (
        <p className="my-1 text-sm">It is kept in this browser and goes in by itself, in this order.</p>
      )}
      <ShortBlank
        label="Who works here"
        value={name}
        onChange={(next) => {
          setName(next)
          nameWho(next.slice(0, 60))
        }}
      />
      <p className="m-0 mt-1 text-sm">Told to others where two mean the same figure.</p>
    </div>
  )
}

function Kept({ row }: { row: Row }) {
  const again = useLive((s) => s.again)
  return (
    <li className="border-b border-hair py-1">
      {row.message}
      {row.refused && <span className="block text-sm text-foul">{row.refused}</span>}
      <span className="flex gap-4 text-sm">
        {row.refused && <Link onClick={() => void again(row)}>put mine all the same</Link>}
        <Link aria-label={`Give up ${row.message}`} onClick={() => forget(row.key)}>
          give it up
        </Link>
      </span>
    </li>
  )
}
