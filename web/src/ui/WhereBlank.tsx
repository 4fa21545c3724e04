/** A blank for a whole place that is not known yet: "840 aft, 120 R, 310 up", from the chosen reference point. */
import { type KeyboardEvent, useId, useState } from 'react'

import { misread, wordsOf } from '../design/api'
import { refusal, useDocument, useLive } from '../design/live'
import { readPlace } from '../design/queries'
import { place } from './format'
import { note } from './Blank'
import { Says } from './Says'
import { goOn, kept, unlessTyped, useTakenOnce } from './useTakenOnce'
import { useUnits } from './units'

type Spot = [number, number, number]

export function WhereBlank({
  path,
  label,
  base,
  onTaken,
}: {
  path: string
  label: string
  base: { id: string; at: Spot } | null
  onTaken?: () => void
}) {
  const edit = useLive((s) => s.edit)
  const { readings } = useDocument()
  const { length: unit } = useUnits('survey')
  const [draft, setDraft] = useState<{ text: string; says: string; wrong: boolean }>({
    text: '',
    says: '',
    wrong: false,
  })
  const id = useId()

  /** The place that is meant. Throws with what is missing. */
  async function read(text: string) {
    const moves = await readPlace(text, 'aft', unit)
    const said = [moves.aft, moves.across, moves.up].filter((m) => m !== null)
    if (said.length < 3) throw misread('Three figures: 840 aft, 120 R, 310 up.')
    return { said, spot: said.map((m, i) => m.value_mm + (base?.at[i] ?? 0)) as Spot }
  }

  async function understand(text: string) {
    setDraft({ text, says: '', wrong: false })
    if (!text.trim()) return
    try {
      const { spot } = await read(text)
      setDraft((d) => (d.text === text ? { text, says: place(spot, unit), wrong: false } : d))
    } catch (error) {
      setDraft((d) => (d.text === text ? { text, says: wordsOf(error), wrong: true } : d))
    }
  }

  /** Whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    const { text } = draft
    if (!text.trim()) return true
    const become = (next: typeof draft) => setDraft(unlessTyped(text, next))
    try {
      const { said, spot } = await read(text)
      const keep = { from: base?.id ?? null, basis: 'typed' }
      const notes = said.flatMap((part, i) =>
        note(readings, `${path}/${i}`, { ...keep, text: part.text, unit: part.unit }),
      )
      if (!(await edit([{ op: 'replace', path, value: spot }, ...notes]))) {
        become({ text, says: refusal(), wrong: true })
        return false
      }
      become({ text: '', says: '', wrong: false })
      return true
    } catch (error) {
      become({ text, says: wordsOf(error), wrong: true })
      return false
    }
  }

  const take = useTakenOnce(commit, draft.text || null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft.text !== '')
    if (event.key === 'Enter') goOn(take(), event.currentTarget, () => onTaken?.())
    if (event.key === 'Escape') setDraft({ text: '', says: '', wrong: false })
  }

  return (
    <span className="relative block py-[2px]">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        value={draft.text}
        data-stored={draft.text ? undefined : ''}
        placeholder="where: 840 aft, 120 R, 310 up"
        autoComplete="off"
        onChange={(e) => void understand(e.target.value)}
        onKeyDown={keys}
        onBlur={() => void take()}
        aria-invalid={draft.wrong}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${draft.wrong ? 'border-foul' : 'border-edge'}`}
      />
      <Says text={draft.says} wrong={draft.wrong} />
    </span>
  )
}
