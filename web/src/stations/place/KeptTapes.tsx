/** Tapes that are kept: live rows. */
import { useQueries } from '@tanstack/react-query'

import { useDocument, useLive, useLoaded } from '../../design/live'
import { at } from '../../design/pointer'
import { tapeQuery } from '../../design/queries'
import { gap } from '../../ui/format'
import { Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'

export function KeptTapes() {
  const { project, revision } = useLoaded()
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const units = useUnits()
  const rows = Object.entries(document.tapes)
  const read = useQueries({ queries: rows.map(([, t]) => tapeQuery(project, revision, t.one, t.other)) })
  const name = (path: string) => (at(document, `/${path}/name`) as string | undefined) ?? path
  if (rows.length === 0) return null
  return (
    <section aria-label="Kept tapes">
      <Heading>Tapes</Heading>
      {rows.map(([key, tape], i) => (
        <p key={key} className="m-0 flex items-baseline justify-between gap-2 border-b border-hair py-1">
          <span className="min-w-0 flex-1 leading-tight">
            {name(tape.one)} to {name(tape.other)}
          </span>
          <strong className="text-figure">
            {read[i]?.data ? gap(read[i].data.distance_mm, units.length) : '…'}
          </strong>
          <Link onClick={() => void edit([{ op: 'remove', path: `/tapes/${key}` }])}>drop</Link>
        </p>
      ))}
    </section>
  )
}
