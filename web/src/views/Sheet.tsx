/** The sheets a view is drawn on, one over the other: each is painted by itself, so that what stands still is not painted anew. */
import type { ReactNode } from 'react'

import { useChoice } from '../design/choice'
import { type Scale, tallOf, type ViewName } from './scale'

interface Drawn {
  view: ViewName
  scale: Scale
  children: ReactNode
}

/** Presses go through it to the view, but for what asks for them. */
export function Sheet({ view, scale, children }: Drawn) {
  return (
    <svg
      width={scale.width}
      height={tallOf(view, scale)}
      className="pointer-events-none absolute inset-0 overflow-visible will-change-transform"
    >
      {children}
    </svg>
  )
}

/** What is drawn of a box goes with the hand that moves it: the sheet is shifted, nothing on it drawn again. */
export function Shifted({ path, view, scale, children }: Drawn & { path: string }) {
  const by = useChoice((s) => (s.offset?.path === path ? s.offset.by : null))
  const [aft, right, up] = by ?? [0, 0, 0]
  const transform = `translate(${aft * scale.k}px,${-(view === 'plan' ? right : up) * scale.k}px)`
  return (
    <div className="pointer-events-none absolute inset-0 will-change-transform" style={{ transform }}>
      <Sheet view={view} scale={scale}>
        {children}
      </Sheet>
    </div>
  )
}
