/** Parts shared by the survey's lists: a place in three blanks, a solid, a name with a remove button. */
import { useState } from 'react'

import { useDocument, useLive } from '../design/live'
import { at } from '../design/pointer'
import { isTaken } from '../design/taken'
import { Blank } from '../ui/Blank'
import { NameBlank } from '../ui/NameBlank'
import { Choose, Link } from '../ui/parts'

export interface Base {
  id: string
  at: [number, number, number]
}

/** The reference point that the tape is hooked on, chosen once for a list. */
export function useBase(start = ''): { base: Base | null; pick: React.ReactNode } {
  const document = useDocument()
  const references = Object.fromEntries(
    Object.entries(document.references).filter(([key]) => isTaken(document, `/references/${key}/at_mm`)),
  )
  const [id, setId] = useState(start)
  const chosen = references[id]
  const pick = (
    <Choose
      label="The tape is hooked on"
      value={chosen ? id : ''}
      options={[
        ['', 'front axle line, centreline and ground'],
        ...Object.entries(references).map(([key, r]) => [key, r.name] as const),
      ]}
      onChange={setId}
    />
  )
  return { base: chosen ? { id, at: chosen.at_mm as [number, number, number] } : null, pick }
}

export function PointBlanks({
  path,
  base = null,
  words = ['aft', 'across', 'up'],
}: {
  path: string
  base?: Base | null
  words?: string[]
}) {
  return (
    <span className="flex flex-wrap gap-x-3">
      {words.map((word, i) => (
        <Blank key={word} path={`${path}/${i}`} label={word} list="survey" from={base} />
      ))}
    </span>
  )
}

export function RowHead({ path, onRemoved }: { path: string; onRemoved?: () => void }) {
  const edit = useLive((s) => s.edit)
  const name = String(at(useDocument(), `${path}/name`) ?? '')
  return (
    <span className="flex items-center justify-between gap-3">
      <NameBlank path={`${path}/name`} label="Name" />
      <Link
        aria-label={`Remove ${name}`}
        onClick={() => void edit([{ op: 'remove', path }]).then((ok) => ok && onRemoved?.())}
      >
        remove
      </Link>
    </span>
  )
}

export const GAPS = [
  ['same', 'fixed to the same structure'],
  ['other', 'shakes on its own'],
  ['moving', 'moves or flexes'],
  ['axle', 'axle, suspension'],
  ['warm', 'warm'],
  ['hot', 'hot'],
  ['hand', 'room for a hand'],
] as const

export function GapClass({ path }: { path: string }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const value = at(document, path) as (typeof GAPS)[number][0]
  return (
    <Choose
      label="Gap it needs"
      value={value}
      options={GAPS.map(
        ([key, words]) => [key, `${document.tables.gaps[key]?.need_mm ?? '?'} mm: ${words}`] as const,
      )}
      onChange={(v) => void edit([{ op: 'replace', path, value: v }])}
    />
  )
}
