/** Another row in one line: its name and its place; Enter, and the next. */
import { useState } from 'react'

import { wordsOf } from '../design/api'
import { asSaid, readSpot } from '../design/figure'
import { useDocument, useLive } from '../design/live'
import { freeId } from '../design/pointer'
import { useTyped } from '../design/typed'
import type { Document } from '../design/types'
import { Button } from '../ui/parts'
import { useUnits } from '../ui/units'
import type { Collection } from './fields'
import type { Base } from './rows'

export function InOneLine({
  collection,
  base,
  fresh,
}: {
  collection: Collection | 'references'
  base: Base | null
  /** All but its name and its place. */
  fresh: (base: Base | null, document: Document) => object
}) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const { length: unit } = useUnits('survey')
  const [name, setName] = useTyped(`/${collection}/line/name`)
  const [where, setWhere] = useTyped(`/${collection}/line/where`)
  const [message, setMessage] = useState('')
  async function add(form: HTMLFormElement) {
    try {
      const found = await readSpot(where, base, unit)
      const path = `/${collection}/${freeId(name || 'point', document[collection])}`
      const value = { ...fresh(base, document), name: name.trim() || 'point', at_mm: found.spot }
      const done = await edit([
        { op: 'add', path, value },
        ...asSaid(document.readings, `${path}/at_mm`, found.said, base),
      ])
      setMessage('')
      if (!done) return
      setName('')
      setWhere('')
      form.querySelector('input')?.focus()
    } catch (error) {
      setMessage(wordsOf(error))
    }
  }
  const look =
    'min-h-9 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft'
  return (
    <form
      className="my-2 flex flex-wrap items-center gap-3"
      onSubmit={(e) => (e.preventDefault(), void add(e.currentTarget))}
    >
      <input
        data-goes={`/${collection}`}
        aria-label="Its name"
        value={name}
        placeholder="another: its name"
        maxLength={120}
        autoComplete="off"
        onChange={(e) => setName(e.target.value)}
        className={`w-56 ${look}`}
      />
      <input
        aria-label="Where it is"
        value={where}
        placeholder="840 aft, 120 R, 310 up, Enter"
        autoComplete="off"
        aria-invalid={Boolean(message)}
        onChange={(e) => setWhere(e.target.value)}
        className={`w-64 ${look} aria-invalid:border-foul`}
      />
      <Button plain type="submit">
        Add
      </Button>
      {message && (
        <span role="alert" className="text-sm font-semibold text-foul">
          {message}
        </span>
      )}
    </form>
  )
}
