/** A thing's size in one blank, "500 x 300 x 200" aft, across and up: it becomes a block about its middle. */
import { type KeyboardEvent, useState } from 'react'

import { misread, wordsOf } from '../../../design/api'
import { refusal, useLive } from '../../../design/live'
import { readText } from '../../../design/queries'
import type { Item, Op } from '../../../design/types'
import { length } from '../../../ui/format'
import { Says } from '../../../ui/Says'
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
  const edit = useLive((s) => s.edit)
  const { length: unit } = useUnits('survey')
  const [draft, setDraft] = useState<{ text: string; says: string } | null>(null)
  const solid = item.solid
  const block = solid?.type === 'block' ? solid : null
  const shown = block ? block.high_mm.map((h, i) => length(h - (block.low_mm[i] ?? 0), unit)).join(' × ') : ''

  /** The block that is meant. Throws with what is missing. */
  async function read(text: string): Promise<Op[]> {
    const path = `/items/${id}`
    if (!text.trim()) return [{ op: 'replace', path: `${path}/solid`, value: null }]
    const parts = text.split(/[x×*]/i)
    if (parts.length !== 3) throw misread('Three figures: 500 x 300 x 200.')
    const sizes = await Promise.all(
      parts.map((part) => readText({ text: part.trim(), path: '/size_mm/wide_mm', unit })),
    )
    await useLive.getState().settled() // where it is may be on its way
    const middle = block
      ? block.high_mm.map((h, i) => (h + (block.low_mm[i] ?? 0)) / 2)
      : (useLive.getState().loaded?.document.items[id]?.at_mm as number[] | null)
    if (!middle) throw misread('Say where it is first.')
    const low = middle.map((v, i) => v - (sizes[i] ?? 0) / 2)
    const high = middle.map((v, i) => v + (sizes[i] ?? 0) / 2)
    return [{ op: 'replace', path: `${path}/solid`, value: { type: 'block', low_mm: low, high_mm: high } }]
  }

  /** Whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    const become = (next: typeof draft) => setDraft(unlessTyped(draft?.text ?? '', next))
    if (!draft || draft.text === shown) {
      become(null)
      return true
    }
    try {
      if (await edit(await read(draft.text))) {
        become(null)
        return true
      }
      become({ text: draft.text, says: refusal() })
    } catch (error) {
      become({ text: draft.text, says: wordsOf(error) })
    }
    return false
  }

  const take = useTakenOnce(commit, draft?.text ?? null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft !== null)
    if (event.key === 'Enter') goOn(take(), event.currentTarget, onTaken)
    if (event.key === 'Escape') setDraft(null)
  }
  if (solid && !block) return <span className="narrow block text-sm">{SHAPES[solid.type]}</span>
  return (
    <span className="relative block py-[2px]">
      <input
        aria-label={`${item.name}, size`}
        value={draft?.text ?? shown}
        data-stored={draft ? undefined : ''}
        placeholder="not sized"
        autoComplete="off"
        aria-invalid={Boolean(draft?.says)}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setDraft({ text: e.target.value, says: '' })}
        onKeyDown={keys}
        onBlur={() => void take()}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${draft?.says ? 'border-foul' : 'border-edge'}`}
      />
      <Says text={draft?.says ?? ''} wrong />
    </span>
  )
}
