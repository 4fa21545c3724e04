/** A blank for a whole place that is not known yet: "840 aft, 120 R, 310 up", from the chosen reference point. */
import { type KeyboardEvent, useId, useState } from 'react'

import { isAway, wordsOf } from '../design/api'
import { type Hook, readSpot } from '../design/figure'
import { toldBy, useLive, useLoaded } from '../design/live'
import { useOutbox, waitingAt } from '../design/outbox'
import { keepTyped, typedAt } from '../design/typed'
import { place } from './format'
import { NotSaved } from './NotSaved'
import { Message } from './Message'
import { goOn, kept, unlessTyped, useTakenOnce } from './useTakenOnce'
import { useUnits } from './units'

export function WhereBlank({
  path,
  label,
  base,
  onTaken,
}: {
  path: string
  label: string
  base: Hook
  onTaken?: () => void
}) {
  const { project, revision } = useLoaded()
  const enter = useLive((s) => s.enter)
  const row = useOutbox((s) => waitingAt(project, path, s.rows))
  const { length: unit } = useUnits('survey')
  const [draft, setDraft] = useState({ text: typedAt(project, path)?.text ?? '', message: '', wrong: false })
  const id = useId()

  function type(text: string) {
    setDraft({ text, message: '', wrong: false })
    keepTyped(project, path, text ? { text, seen: revision, stood: '' } : null)
    if (text.trim()) void understand(text)
  }

  async function understand(text: string) {
    const tell = (message: string, wrong: boolean) =>
      setDraft((d) => (d.text === text ? { text, message, wrong } : d))
    try {
      tell(place((await readSpot(text, base, unit)).spot, unit), false)
    } catch (error) {
      if (!isAway(error)) tell(wordsOf(error), true)
    }
  }

  /** Whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    const { text } = draft
    if (!text.trim()) return true
    const become = (next: typeof draft) => setDraft(unlessTyped(text, next))
    try {
      await enter({ reads: 'place', path, text, label, unit, hook: base }, revision)
      become({ text: '', message: '', wrong: false })
      keepTyped(project, path, null)
      return true
    } catch (error) {
      become({ text, message: toldBy(error), wrong: true })
      return false
    }
  }

  const take = useTakenOnce(commit, draft.text || null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft.text !== '')
    if (event.key === 'Enter') goOn(take(), event.currentTarget, () => onTaken?.())
    if (event.key === 'Escape') type('')
  }

  return (
    <span className="relative block py-[2px]">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        data-goes={path}
        value={draft.text || (row?.figure?.text ?? '')}
        data-stored={draft.text || row ? undefined : ''}
        placeholder="where: 840 aft, 120 R, 310 up"
        autoComplete="off"
        onChange={(e) => type(e.target.value)}
        onKeyDown={keys}
        onBlur={() => void take()}
        aria-invalid={draft.wrong}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${draft.wrong ? 'border-foul' : 'border-edge'}`}
      />
      {row && <NotSaved why={row.refused} />}
      <Message text={draft.message} wrong={draft.wrong} />
    </span>
  )
}
