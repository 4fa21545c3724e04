/**
 * One of a list. The browser's own control: under a finger it opens the device's own wheel, by keys the first letters find a row, and it
 * is not cut off by a narrow board; none of which a list drawn by us would have.
 */
import { useId } from 'react'

import { useAhead } from './useAhead'

export function Choose<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
  goes,
}: {
  label: string
  value: T
  options: readonly (readonly [T, string])[]
  onChange: (value: T) => void
  hideLabel?: boolean
  /** The path of what is chosen, where somebody may be sent to it. */
  goes?: string
}) {
  const id = useId()
  const [shown, show] = useAhead(value)
  return (
    <span className="flex items-center justify-between gap-2 py-[3px]">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'narrow'}>
        {label}
      </label>
      <select
        id={id}
        data-goes={goes}
        value={shown}
        onChange={(event) => {
          show(event.target.value as T)
          onChange(event.target.value as T)
        }}
        className={`min-h-9 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold ${hideLabel ? '' : 'max-w-[62%]'}`}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </span>
  )
}
