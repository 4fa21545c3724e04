/** Nudging with a thumb: the selected box by 1, 5 or 10 in the view that is shown. */
import { useState } from 'react'

import { boxOf, useChoice } from '../design/choice'
import { Toggles } from '../ui/Toggles'
import { useUnits } from '../ui/units'
import type { ViewName } from './scale'
import { type By, useMove } from './useMove'

const STEPS_MM = [1, 5, 10] as const

export function NudgePad({ view }: { view: ViewName }) {
  const box = boxOf(useChoice((s) => s.selected))
  const move = useMove()
  const { length } = useUnits('place')
  const [step, setStep] = useState<(typeof STEPS_MM)[number]>(5)
  if (!box) return null
  const by = (aft: number, other: number) => {
    const shift: By = view === 'plan' ? [aft, other, 0] : [aft, 0, other]
    move.nudge(`boxes/${box}`, shift.map((v) => v * step) as By)
  }
  const key =
    'flex h-12 w-12 items-center justify-center rounded border-[1.5px] border-edge bg-white text-figure font-bold active:bg-wash'
  return (
    <div
      role="group"
      aria-label="Nudge the selected box"
      className="absolute bottom-3 left-3 z-10 grid grid-cols-3 gap-1 rounded bg-sheet/90 p-1"
    >
      <span />
      <button
        type="button"
        aria-label={view === 'plan' ? 'to the right' : 'up'}
        className={key}
        onClick={() => by(0, 1)}
      >
        ↑
      </button>
      <span />
      <button type="button" aria-label="forward" className={key} onClick={() => by(-1, 0)}>
        ←
      </button>
      <button
        type="button"
        aria-label={view === 'plan' ? 'to the left' : 'down'}
        className={key}
        onClick={() => by(0, -1)}
      >
        ↓
      </button>
      <button type="button" aria-label="aft" className={key} onClick={() => by(1, 0)}>
        →
      </button>
      <Toggles
        label="Step"
        value={String(step)}
        options={STEPS_MM.map(
          (mm) => [String(mm), length === 'mm' ? mm : `${mm} mm`, `by ${mm} mm`] as const,
        )}
        onChange={(mm) => setStep(STEPS_MM.find((each) => String(each) === mm) ?? step)}
        className="contents"
        look={(pressed) =>
          `h-12 w-12 rounded border-2 font-semibold ${pressed ? 'border-blue bg-white text-blue' : 'border-edge bg-sheet'}`
        }
      />
    </div>
  )
}
