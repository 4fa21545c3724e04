/** The board at the right of every station. */
import type { ReactNode } from 'react'

export function Ledger({ children, label }: { children: ReactNode; label: string }) {
  return (
    <aside
      aria-label={label}
      className="relative w-[358px] shrink-0 overflow-y-auto border-l border-edge bg-sheet px-4 py-3"
    >
      {children}
    </aside>
  )
}

/** Left of it: a drawing or a list. */
export function Bench({ children }: { children: ReactNode }) {
  return <div className="relative min-h-0 min-w-0 flex-1 overflow-auto px-5 py-3">{children}</div>
}

export function StationFrame({ children }: { children: ReactNode }) {
  return <div className="flex min-h-0 flex-1">{children}</div>
}
