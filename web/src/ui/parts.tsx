/** Small parts in the house look. */
import { Slot } from 'radix-ui'
import { type ButtonHTMLAttributes, type ReactNode, useEffect, useId, useState } from 'react'

import { useLive } from '../design/live'

export function Button({
  plain = false,
  asChild = false,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { plain?: boolean; asChild?: boolean }) {
  const look = plain
    ? 'border-edge bg-sheet text-ink hover:border-blue hover:text-blue'
    : 'border-blue bg-blue text-white hover:bg-ink'
  const Tag = asChild ? Slot.Root : 'button'
  return (
    <Tag
      {...(asChild ? {} : { type: 'button' as const })}
      {...rest}
      className={`inline-flex min-h-9 items-center justify-center gap-2 rounded border-[1.5px] px-3 py-1 font-semibold no-underline disabled:opacity-45 ${look} ${rest.className ?? ''}`}
    />
  )
}

export function Link({ children, ...rest }: ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type="button"
      {...rest}
      className="font-semibold text-blue underline underline-offset-4 hover:text-ink"
    >
      {children}
    </button>
  )
}

export function Heading({
  children,
  right,
  as: Tag = 'h3',
}: {
  children: ReactNode
  right?: ReactNode
  as?: 'h2' | 'h3'
}) {
  return (
    <div className="mt-4 mb-1 flex items-baseline justify-between gap-2 border-b border-hair pb-1 first:mt-0">
      <Tag className="heading m-0">{children}</Tag>
      <span className="text-sm text-soft">{right}</span>
    </div>
  )
}

export function Title({ children, right }: { children: ReactNode; right?: ReactNode }) {
  return (
    <div className="mb-2 flex items-baseline justify-between gap-3 border-b-2 border-ink pb-1.5">
      <h2 className="m-0 text-[22px] leading-tight font-bold text-blue">{children}</h2>
      <span className="narrow text-sm">{right}</span>
    </div>
  )
}

/** One line of a board: what, and its figure. */
export function Fact({ name, children }: { name: ReactNode; children: ReactNode }) {
  return (
    <div className="flex items-baseline justify-between gap-3 py-[3px]">
      <span className="narrow">{name}</span>
      <span className="text-right text-lg font-semibold">{children}</span>
    </div>
  )
}

/** What was chosen is shown at once, until the design says what it is now. */
export function useAhead<T>(value: T): [T, (value: T) => void] {
  const saving = useLive((s) => s.saving)
  const [ahead, setAhead] = useState<{ value: T } | null>(null)
  useEffect(() => {
    if (!saving) setAhead(null)
  }, [saving, value, ahead])
  return [ahead ? ahead.value : value, (next) => setAhead({ value: next })]
}

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

export function Tick({
  label,
  value,
  onChange,
}: {
  label: string
  value: boolean
  onChange: (value: boolean) => void
}) {
  const [shown, show] = useAhead(value)
  return (
    <label className="flex min-h-9 items-center gap-2">
      <input
        type="checkbox"
        checked={shown}
        onChange={() => {
          show(!value)
          onChange(!value)
        }}
        className="h-[18px] w-[18px] accent-blue"
      />
      {label}
    </label>
  )
}

/** The name of a row that opens its sheet beneath it. */
export function RowOpener({
  open,
  onOpen,
  children,
}: {
  open: boolean
  onOpen: () => void
  children: ReactNode
}) {
  return (
    <button
      type="button"
      aria-expanded={open}
      onClick={onOpen}
      className={`flex min-h-10 w-full flex-wrap items-center justify-between gap-x-3 text-left hover:text-blue ${open ? 'font-bold text-blue' : ''}`}
    >
      {children}
    </button>
  )
}

/** A row of things of which one is on the screen. */
export function OneOf({
  label,
  value,
  options,
  onChange,
  bare = false,
  children,
}: {
  label: string
  value: string | null
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
  bare?: boolean
  children?: ReactNode
}) {
  const rest = bare ? 'border-transparent' : 'border-edge bg-sheet'
  return (
    <div
      role="group"
      aria-label={label}
      className={`flex flex-wrap items-center ${bare ? 'gap-0.5' : 'gap-2'}`}
    >
      {options.map(([key, words]) => (
        <button
          key={key}
          type="button"
          aria-pressed={key === value}
          onClick={() => onChange(key)}
          className={`min-h-10 rounded border-2 font-semibold ${bare ? 'px-2' : 'px-3'} ${key === value ? 'border-blue bg-white text-blue' : rest}`}
        >
          {words}
        </button>
      ))}
      {children}
    </div>
  )
}

/** A caution of the trade, where it applies: words, never a box to click away. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p role="note" className="my-2 border-l-4 border-tight bg-white py-1.5 pr-2 pl-3 text-sm">
      <strong className="font-bold">Caution. </strong>
      {children}
    </p>
  )
}

/** A screen with nothing on it yet says what to do. */
export function Teach({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="mx-auto my-10 max-w-md text-center">
      <p className="mb-4 text-figure leading-snug">{children}</p>
      {action}
    </div>
  )
}
