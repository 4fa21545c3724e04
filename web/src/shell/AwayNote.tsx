/** Said while the server or its database is away: what is typed stays where it is. */
import { useEffect } from 'react'

import { useAway, whenBack } from '../design/away'
import { useLive } from '../design/live'

export function AwayNote() {
  const away = useAway((s) => s.away)
  useEffect(
    () =>
      whenBack(() => {
        useLive.getState().dismiss()
        void useLive.getState().lookAgain()
      }),
    [],
  )
  if (!away) return null
  return (
    <div
      role="status"
      aria-label="The server is away"
      className="fixed top-20 left-1/2 z-40 max-w-xl -translate-x-1/2 rounded border-2 border-tight bg-white px-4 py-2 shadow-lg print:hidden"
    >
      <strong>The server is away for a moment.</strong> What you typed stays in its blank; nothing saved is
      lost. It is looked for every other second.
    </div>
  )
}
