/** A blank for a name or a note of the document. */
import { useId, useState } from 'react'

import { useDocument, useLive, useLoaded } from '../design/live'
import { useOutbox, waitingAt } from '../design/outbox'
import { at } from '../design/pointer'
import { keepTyped, typedAt } from '../design/typed'
import { NotSaved } from './NotSaved'
import { kept, useTakenOnce } from './useTakenOnce'

export function NameBlank({
  path,
  label,
  hideLabel = false,
  wide = false,
  long = false,
}: {
  path: string
  label: string
  hideLabel?: boolean
  wide?: boolean
  /** A note rather than a name. */
  long?: boolean
}) {
  const value = String(at(useDocument(), path) ?? '')
  const { project, revision } = useLoaded()
  const edit = useLive((s) => s.edit)
  const row = useOutbox((s) => waitingAt(project, path, s.rows))
  const [draft, setDraft] = useState<string | null>(() => typedAt(project, path)?.text ?? null)
  const id = useId()
  function type(text: string | null) {
    setDraft(text)
    keepTyped(project, path, text === null ? null : { text, seen: revision, stood: value })
  }
  async function commit() {
    const text = draft?.trim()
    const same = text === undefined || text === value
    const taken = same || (await edit([{ op: 'replace', path, value: text }]))
    if (taken) {
      setDraft((d) => (d === draft ? null : d)) // what is typed meanwhile stays
      keepTyped(project, path, null)
    }
    return taken
  }
  const take = useTakenOnce(commit, draft)
  return (
    <span className="flex items-center justify-between gap-2 py-[2px]">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'narrow shrink-0'}>
        {label}
        {row && <NotSaved why={row.refused} />}
      </label>
      <input
        id={id}
        value={draft ?? value}
        maxLength={long ? 2000 : 120}
        onChange={(event) => type(event.target.value)}
        onBlur={() => void take()}
        data-stored={draft === null ? '' : undefined}
        onKeyDown={(event) => {
          kept(event, draft !== null)
          if (event.key === 'Enter') void take()
          if (event.key === 'Escape') type(null)
        }}
        className={`min-h-9 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold ${wide ? 'w-full' : long ? 'w-72 max-w-full' : 'w-44'}`}
      />
    </span>
  )
}
