/** A sheet over the screen: the keys stay in it, Esc and a press beside it close it, and the focus goes back to where it was. */
import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

export function Dialog({
  title,
  open,
  onOpen,
  className,
  hideTitle = false,
  trigger,
  children,
}: {
  title: string
  open: boolean
  onOpen: (open: boolean) => void
  /** Where it stands and how wide it is. */
  className: string
  hideTitle?: boolean
  /** What opens it, if it stands beside. */
  trigger?: ReactNode
  children: ReactNode
}) {
  return (
    <Radix.Root open={open} onOpenChange={onOpen}>
      {trigger && <Radix.Trigger asChild>{trigger}</Radix.Trigger>}
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Radix.Content
          aria-describedby={undefined}
          onCloseAutoFocus={unlessInBlank}
          className={`fixed z-50 rounded border-2 border-ink bg-sheet ${className}`}
        >
          <Radix.Title className={hideTitle ? 'sr-only' : 'm-0 mb-2 text-[22px] font-bold text-blue'}>
            {title}
          </Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}

/** The focus goes back a moment later, and on a busy machine one types into the next blank by then: it would be taken half typed. */
function unlessInBlank(event: Event) {
  if (document.activeElement?.matches('input, textarea, select')) event.preventDefault()
}
