/** Said while the server or its database is away: what is done meanwhile waits, and is sent when it is back. */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'

import { useAway, whenBack } from '../design/away'
import { useLive } from '../design/live'

export function AwayNote() {
  const away = useAway((s) => s.away)
  const revision = useLive((s) => s.loaded?.revision)
  const queries = useQueryClient()
  useEffect(
    () =>
      whenBack(() => {
        const { dismiss, sendKept, lookAgain } = useLive.getState()
        dismiss()
        void sendKept().then(lookAgain)
        void queries.refetchQueries({ predicate: ({ state }) => state.status === 'error' })
      }),
    [queries],
  )
  if (!away) return null
  return (
    <div
      role="status"
      aria-label="The server is away"
      className="fixed top-20 left-[52%] z-40 max-w-[460px] -translate-x-1/2 rounded border-2 border-tight bg-white px-4 py-2 shadow-lg print:hidden"
    >
      <strong>The server is away.</strong> What you enter is kept here, also when this page is closed, and
      goes in by itself when it is back. Verdicts and drawings are those of rev. {revision}.
    </div>
  )
}
