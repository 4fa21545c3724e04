/** Parts shared by the survey's lists: a place in three blanks, a solid, a name with a remove button. */
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { at } from '../../design/pointer'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose, Link } from '../../ui/parts'

export interface Base {
  id: string
  at: [number, number, number]
}

/** The reference point that the tape is hooked on, chosen once for a list. */
export function useBase(start = ''): { base: Base | null; pick: React.ReactNode } {
  const { references } = useDocument()
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

/** The shape of a thing: none, a block between two corners, or a rod. */
export function SolidBlanks({
  path,
  base,
  optional = false,
}: {
  path: string
  base: Base | null
  optional?: boolean
}) {
  const edit = useLive((s) => s.edit)
  const solid = at(useDocument(), path) as { type: 'block' | 'rod' | 'prism' } | null
  const at0 = base?.at ?? [0, 0, 300]
  const [a = 0, b = 0, c = 0] = at0
  const starts = {
    block: { type: 'block', low_mm: [a, b, c], high_mm: [a + 100, b + 100, c + 100] },
    rod: { type: 'rod', start_mm: [a, b, c], end_mm: [a + 300, b, c], radius_mm: 20 },
  }
  return (
    <>
      <Choose
        label="Shape"
        value={solid?.type ?? ''}
        options={[
          ...(optional ? [['', 'none'] as const] : []),
          ['block', 'block'] as const,
          ['rod', 'rod'] as const,
          ...(solid?.type === 'prism' ? [['prism', 'prism'] as const] : []),
        ]}
        onChange={(type) =>
          type !== 'prism' &&
          void edit([{ op: 'replace', path, value: type ? starts[type as 'block'] : null }])
        }
      />
      {solid?.type === 'block' && (
        <>
          <span className="narrow text-sm">from (fore, left, lower)</span>
          <PointBlanks path={`${path}/low_mm`} base={base} />
          <span className="narrow text-sm">to (aft, right, upper)</span>
          <PointBlanks path={`${path}/high_mm`} base={base} />
        </>
      )}
      {solid?.type === 'rod' && (
        <>
          <span className="narrow text-sm">from</span>
          <PointBlanks path={`${path}/start_mm`} base={base} />
          <span className="narrow text-sm">to</span>
          <PointBlanks path={`${path}/end_mm`} base={base} />
          <Blank path={`${path}/radius_mm`} label="radius" list="survey" />
        </>
      )}
    </>
  )
}
