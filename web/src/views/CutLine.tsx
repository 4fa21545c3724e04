/** The cut line: a marker that slides along the rule, and its dashes through plan and side. */
import type { KeyboardEvent, PointerEvent } from 'react'

import { useUnits } from '../ui/units'
import { length, withCommas } from '../ui/format'
import { useCut } from './cut'
import type { Scale } from './scale'

export function CutMarker({ scale }: { scale: Scale }) {
  const { aft, set } = useCut()
  const unit = useUnits('place').length
  if (aft === null) return null
  const x = scale.x(aft)

  function slide(event: PointerEvent<HTMLDivElement>) {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const left = event.currentTarget.parentElement?.getBoundingClientRect().left ?? 0
    set(scale.aft(Math.min(Math.max(event.clientX - left, 4), scale.width - 4)))
  }

  function nudge(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -100, PageUp: 100 }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    set((aft ?? 0) + by * (event.shiftKey ? 10 : 1))
  }

  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Where the section is cut, aft"
      aria-valuenow={aft}
      aria-valuetext={`${length(aft, unit)} aft`}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={slide}
      onKeyDown={nudge}
      className="absolute top-0 z-10 flex h-[30px] w-[76px] -translate-x-1/2 cursor-ew-resize touch-none flex-col items-center justify-end"
      style={{ left: x }}
    >
      <span className="rounded bg-ink px-1 text-xs font-bold whitespace-nowrap text-white">
        cut {unit === 'mm' ? withCommas(length(aft, unit)) : length(aft, unit)}
      </span>
      <svg width="14" height="9" aria-hidden="true">
        <path d="M0,0 H14 L7,9Z" fill="var(--color-ink)" />
      </svg>
    </div>
  )
}

export function CutDashes({ scale, tall }: { scale: Scale; tall: number }) {
  const aft = useCut((s) => s.aft)
  if (aft === null) return null
  return (
    <line
      x1={scale.x(aft)}
      x2={scale.x(aft)}
      y1={0}
      y2={tall}
      stroke="var(--color-ink)"
      strokeWidth={1.2}
      strokeDasharray="9 5"
    />
  )
}
