/** The board at the right of every station; under fingers it is a drawer. */
import { type ReactNode, useState } from 'react'

import { UnitSwitch } from '../ui/UnitSwitch'
import { useTouch } from '../ui/touch'

export function Ledger({ children, label }: { children: ReactNode; label: string }) {
  const touch = useTouch()
  const [open, setOpen] = useState(false)
  if (touch && !open)
    return (
      <button
        type="button"
        aria-expanded={false}
        onClick={() => setOpen(true)}
        className="flex w-12 shrink-0 items-center justify-center border-l border-edge bg-sheet font-semibold text-blue [writing-mode:vertical-rl]"
      >
        {label}
      </button>
    )
  return (
    <aside
      aria-label={label}
      className={`w-[358px] shrink-0 overflow-y-auto border-l border-edge bg-sheet px-4 py-3 ${touch ? 'absolute inset-y-0 right-0 z-20 shadow-xl' : 'relative'}`}
    >
      {touch && (
        <div className="mb-2 flex items-center justify-between">
          <UnitSwitch />
          <button
            type="button"
            aria-expanded={true}
            onClick={() => setOpen(false)}
            className="px-3 font-semibold text-blue underline underline-offset-4"
          >
            close
          </button>
        </div>
      )}
      {children}
    </aside>
  )
}

/** Left of it: a drawing or a list. One that holds nothing to press can be scrolled by keys all the same. */
export function Bench({ children, still = false }: { children: ReactNode; still?: boolean }) {
  return (
    <div tabIndex={still ? 0 : undefined} className="relative min-h-0 min-w-0 flex-1 overflow-auto px-5 py-3">
      {children}
    </div>
  )
}

export function StationFrame({ children }: { children: ReactNode }) {
  return <div className="relative flex min-h-0 flex-1">{children}</div>
}
