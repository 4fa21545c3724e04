/**
 * A list of things to start from. The mouse takes what it presses; by keys one goes through the list and takes with Enter, so
 * that the first letter of a name is no choice yet. The browser's own control, as in Choose.
 */
import { type KeyboardEvent, useId, useRef, useState } from 'react'

export function AddFrom({
  label,
  options,
  onAdd,
}: {
  label: string
  options: readonly (readonly [string, string])[]
  onAdd: (key: string) => void
}) {
  const id = useId()
  const byKeys = useRef(false)
  const [thought, setThought] = useState<string | null>(null)
  function take(key: string | null) {
    byKeys.current = false
    setThought(null)
    if (key !== null) onAdd(key)
  }
  function keys(event: KeyboardEvent) {
    byKeys.current = true
    event.stopPropagation()
    if (event.key === 'Enter' && thought !== null) {
      event.preventDefault()
      take(thought)
    }
    if (event.key === 'Escape') take(null)
  }
  return (
    <p className="my-2">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <select
        id={id}
        value={thought ?? '-'}
        onPointerDown={() => (byKeys.current = false)}
        onKeyDown={keys}
        onChange={(event) => (byKeys.current ? setThought(event.target.value) : take(event.target.value))}
        onBlur={() => take(null)}
        className="min-h-9 max-w-full rounded border-[1.5px] border-edge bg-sheet px-1.5 font-semibold"
      >
        <option value="-" disabled>
          {label} …
        </option>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
      {thought !== null && (
        <span role="status" className="narrow ml-2 text-sm">
          Enter takes it
        </span>
      )}
    </p>
  )
}
