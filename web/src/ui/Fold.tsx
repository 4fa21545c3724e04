/** What is seldom wanted, behind a line that opens it. */
import { Collapsible } from 'radix-ui'
import type { ReactNode } from 'react'

export function Fold({
  words,
  open,
  look = 'font-semibold text-blue',
  className = '',
  children,
}: {
  words: ReactNode
  /** Open whatever was pressed: something in it is to be mended. */
  open?: boolean
  look?: string
  className?: string
  children: ReactNode
}) {
  return (
    <Collapsible.Root {...(open ? { open } : {})} className={className}>
      <Collapsible.Trigger className={`group flex min-h-8 w-full items-center gap-2 py-1 text-left ${look}`}>
        <svg
          viewBox="0 0 10 10"
          aria-hidden="true"
          className="h-2.5 w-2.5 shrink-0 fill-current group-data-[state=open]:rotate-90"
        >
          <path d="M2 1 8 5 2 9Z" />
        </svg>
        {words}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  )
}
