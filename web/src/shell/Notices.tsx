/** Whose work this is built of, each with its licence: the typeface, what runs in the browser, what runs on the server. */
import { useQuery } from '@tanstack/react-query'
import { Link as To } from 'react-router'

import { wordsOf } from '../design/api'
import { noticesQuery, ownNoticesQuery } from '../design/queries'
import type { Notice } from '../design/types'
import { Fold } from '../ui/Fold'
import { Heading } from '../ui/parts'

export default function Notices() {
  const { data: here, error: unread } = useQuery(ownNoticesQuery)
  const { data: there, error } = useQuery(noticesQuery)
  return (
    <main className="h-full overflow-auto px-6 py-6" tabIndex={0} aria-label="Licences of others">
      <To to="/" className="text-blue">
        Cars on the bench
      </To>
      <h1 className="mt-4 mb-0 text-[22px] font-extrabold">Licences of others</h1>
      <p className="mb-6">Level Cradle is built with the work of many. Each is used under its own licence.</p>
      {(unread ?? error) && <p role="alert">{wordsOf(unread ?? error)}</p>}
      <Rows title="In the browser" rows={here ?? []} />
      <Rows title="On the server" rows={there ?? []} />
    </main>
  )
}

function Rows({ title, rows }: { title: string; rows: readonly Notice[] }) {
  return (
    <section aria-label={title} className="max-w-3xl">
      <Heading as="h2">{title}</Heading>
      {rows.map((row) => (
        <Fold
          key={row.name}
          look=""
          className="border-b border-hair py-1"
          words={
            <>
              <span className="flex-1 font-semibold">{row.name}</span>
              <span className="narrow text-sm">{row.version}</span>
              <span className="narrow w-56 text-right text-sm">{row.licence}</span>
            </>
          }
        >
          <pre className="overflow-x-auto text-xs whitespace-pre-wrap" tabIndex={0}>
            {row.text || 'Its package says no more.'}
          </pre>
        </Fold>
      ))}
    </section>
  )
}
