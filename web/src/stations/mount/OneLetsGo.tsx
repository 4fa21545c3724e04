/** What the others carry where one mount of a box lets go: each in turn, asked for when it is opened. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useChoice } from '../../design/choice'
import { useDocument, useLoaded } from '../../design/live'
import { letGoQuery } from '../../design/queries'
import { useSettled } from '../../design/useSettled'
import { utilisation } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Button, Heading } from '../../ui/parts'

export function OneLetsGo() {
  const [asked, ask] = useState(false)
  return (
    <section aria-label="If one lets go">
      <Heading>If one lets go</Heading>
      {asked ? (
        <Answer />
      ) : (
        <Button plain onClick={() => ask(true)}>
          What the others take then
        </Button>
      )}
    </section>
  )
}

function Answer() {
  const { project } = useLoaded()
  const { mounts } = useDocument()
  const select = useChoice((s) => s.select)
  const settled = useSettled()
  const { data, error } = useQuery({ ...letGoQuery(project, settled ?? 0), enabled: settled !== null })
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!data) return <p role="status">Letting each go …</p>
  if (!data.length) return <p className="m-0 text-sm">Nothing holds a box yet.</p>
  return (
    <ul className="m-0 list-none p-0">
      {data.map((row) => (
        <li key={row.mount} className="border-b border-hair">
          <button
            type="button"
            onClick={() => select(`mounts/${row.mount}`)}
            className="flex w-full items-center justify-between gap-2 py-1.5 text-left hover:text-blue"
          >
            <span className="leading-tight">
              {mounts[row.mount]?.name ?? row.mount}
              <span className="narrow block text-sm text-soft">{told(row)}</span>
            </span>
            <span className="flex items-center gap-2 text-figure font-bold">
              {row.utilisation !== null && utilisation(row.utilisation)} <Mark state={row.state} />
            </span>
          </button>
        </li>
      ))}
    </ul>
  )
}

function told(row: { words: string; other: string; check: string; case: string }) {
  if (row.words) return row.words
  return row.other ? `${row.other}: ${row.check}, ${row.case}` : 'no use is given of the others'
}
