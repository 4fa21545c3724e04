/** Parts shared by the survey's lists: a place in three blanks, a solid, a name with a remove button. */
import { useState } from 'react'

import { useChoice } from '../design/choice'
import { useDocument, useLive, useLoaded } from '../design/live'
import { another } from '../design/orders'
import { at } from '../design/pointer'
import { isTaken } from '../design/taken'
import { useAsked } from '../design/useAsked'
import { Blank } from '../ui/Blank'
import { NameBlank } from '../ui/NameBlank'
import { Choose } from '../ui/Choose'
import { Link } from '../ui/parts'

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
  of,
}: {
  path: string
  base?: Base | null
  words?: string[]
  /** What a screen reader says before each, where there are several. */
  of?: string
}) {
  return (
    <span className="flex flex-wrap gap-x-3">
      {words.map((word, i) => (
        <Blank
          key={word}
          path={`${path}/${i}`}
          label={word}
          {...(of && { name: `${of}, ${word}` })}
          list="survey"
          from={base}
        />
      ))}
    </span>
  )
}

export function RowHead({ path, onRemoved }: { path: string; onRemoved?: () => void }) {
  const edit = useLive((s) => s.edit)
  const row = at(useDocument(), path) as { name: string; mirror_of?: string | null }
  return (
    <>
      <span className="flex items-center justify-between gap-3">
        <NameBlank path={`${path}/name`} label="Name" />
        <Link
          aria-label={`Remove ${row.name}`}
          onClick={() => void edit([{ op: 'remove', path }]).then((ok) => ok && onRemoved?.())}
        >
          remove
        </Link>
      </span>
      {'mirror_of' in row && <Twin path={path} row={row} />}
    </>
  )
}

/** Copied, or mirrored about the centreline: twins go together until they are cut loose. */
function Twin({ path, row }: { path: string; row: { name: string; mirror_of?: string | null } }) {
  const document = useDocument()
  const { project } = useLoaded()
  const select = useChoice((s) => s.select)
  const edit = useLive((s) => s.edit)
  const { ask, problem } = useAsked()
  const [, collection = '', id = ''] = path.split('/')
  const rows = document[collection as 'hardpoints']
  const twin = row.mirror_of ?? Object.keys(rows).find((key) => rows[key]?.mirror_of === id)
  const loose = row.mirror_of ? path : `/${collection}/${twin}`
  async function make(mirrored: boolean) {
    let made = ''
    const done = await ask(async () => {
      const order = await another(project, path.slice(1), mirrored)
      made = order.path
      return order
    })
    if (done) select(made)
  }
  return (
    <span className="flex flex-wrap items-center gap-x-4 text-sm">
      <Link aria-label={`Copy ${row.name}`} onClick={() => void make(false)}>
        copy
      </Link>
      {twin ? (
        <>
          <span>mirror twin of {rows[twin]?.name}: they go together</span>
          <Link onClick={() => void edit([{ op: 'replace', path: `${loose}/mirror_of`, value: null }])}>
            cut loose
          </Link>
        </>
      ) : (
        <Link aria-label={`Mirror twin of ${row.name}`} onClick={() => void make(true)}>
          mirror twin
        </Link>
      )}
      {problem && (
        <span role="alert" className="font-semibold text-foul">
          {problem}
        </span>
      )}
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
