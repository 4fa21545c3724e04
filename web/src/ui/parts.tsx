/** Small parts in the house look. */
import { Slot } from 'radix-ui'
import type { ButtonHTMLAttributes, ReactNode } from 'react'

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
