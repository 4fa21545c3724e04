/** A place is picked in the views. */
import { type Picking as Wanted, useChoice } from '../../design/choice'
import { useDocument } from '../../design/live'
import { at } from '../../design/pointer'
import { place } from '../../ui/format'
import { Button } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { PlanSide } from '../../views/PlanSide'

export function Picking({ picking }: { picking: Wanted }) {
  const pick = useChoice((s) => s.pick)
  const { length } = useUnits('survey')
  const now = at(useDocument(), picking.path) as number[] | null
  const missing = ['aft', 'across', 'up'].filter((_, i) => now === null && picking.at[i] === null)
  return (
    <>
      <p className="m-0 flex items-center justify-between gap-3 border-b border-blue bg-wash px-4 py-2">
        <span role="status">
          Press where <strong>{picking.name}</strong> is: in plan for aft and across, from the side for aft
          and up.{' '}
          {now
            ? `Now ${place(now, length)}.`
            : missing.length < 3 && `Still missing: ${missing.join(' and ')}.`}
        </span>
        <Button onClick={() => pick(null)}>{now ? 'That is it' : 'Not now'}</Button>
      </p>
      <PlanSide flags={false} picks />
    </>
  )
}
