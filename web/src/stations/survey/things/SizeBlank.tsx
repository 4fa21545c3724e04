/** A thing's size in one blank, "500 x 300 x 200" aft, across and up: it becomes a block about its middle. */
import { type KeyboardEvent, useState } from 'react'

import { toldBy, useLive, useLoaded } from '../../../design/live'
import { useOutbox, waitingAt } from '../../../design/outbox'
import { keepTyped, typedAt } from '../../../design/typed'
import type { Item } from '../../../design/types'
import { length } from '../../../ui/format'
import { NotSaved } from '../../../ui/NotSaved'
import { Message } from '../../../ui/Message'
import { goOn, kept, unlessTyped, useTakenOnce } from '../../../ui/useTakenOnce'
import { useUnits } from '../../../ui/units'

type Solid = NonNullable<Item['solid']>
const SHAPES: Record<Solid['type'], string> = {
  block: 'block',
  rod: 'rod',
  prism: 'outline',
  path: 'run',
  below: 'line',
  mesh: 'scan',
}

export function SizeBlank({ id, item, onTaken }: { id: string; item: Item; onTaken: () => void }) {
  const path = `/items/${id}`
  const { project, revision } = useLoaded()
  const enter = useLive((s) => s.enter)
  const row = useOutbox((s) => waitingAt(project, `${path}/size`, s.rows))
  const { length: unit } = useUnits('survey')
  const [draft, setDraft] = useState<{ text: string; message: string } | null>(() => {
    const typed = typedAt(project, `${path}/size`)
    return typed && { text: typed.text, message: '' }
  })
  const solid = item.solid
  const block = solid?.type === 'block' ? solid : null
  const stands = block
    ? block.high_mm.map((h, i) => length(h - (block.low_mm[i] ?? 0), unit)).join(' × ')
    : ''

  const shown = row?.figure?.text ?? stands

  function type(text: string | null) {
    setDraft(text === null ? null : { text, message: '' })
    keepTyped(project, `${path}/size`, text === null ? null : { text, seen: revision, stood: stands })
  }

  /** Whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    if (!draft) return true
    const become = (next: typeof draft | null) => setDraft(unlessTyped<typeof draft | null>(draft.text, next))
    try {
      if (draft.text !== shown)
        await enter(
          { reads: 'size', path: `${path}/size`, text: draft.text, label: 'size', unit, hook: null },
          revision,
        )
      become(null)
      keepTyped(project, `${path}/size`, null)
      return true
    } catch (error) {
      become({ text: draft.text, message: toldBy(error) })
      return false
    }
  }

  const take = useTakenOnce(commit, draft?.text ?? null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft !== null)
    if (event.key === 'Enter') goOn(take(), event.currentTarget, onTaken)
    if (event.key === 'Escape') type(null)
  }
  if (solid && !block) return <span className="narrow block text-sm">{SHAPES[solid.type]}</span>
  return (
    <span className="relative block py-[2px]">
      <input
        data-goes={`${path}/solid`}
        aria-label={`${item.name}, size`}
        value={draft?.text ?? shown}
        data-stored={draft || row ? undefined : ''}
        placeholder="not sized"
        autoComplete="off"
        aria-invalid={Boolean(draft?.message)}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => type(e.target.value)}
        onKeyDown={keys}
        onBlur={() => void take()}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${draft?.message ? 'border-foul' : 'border-edge'}`}
      />
      {row && <NotSaved why={row.refused} />}
      <Message text={draft?.message ?? ''} wrong />
    </span>
  )
}
