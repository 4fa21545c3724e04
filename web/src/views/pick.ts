/** Picking a place in the views: a press in plan gives aft and across, one in side aft and up. */
import { type Picking, useChoice } from '../design/choice'
import { useLive } from '../design/live'
import { at as valueAt } from '../design/pointer'
import type { ViewName } from './scale'

export async function pickPlace(
  picking: Picking,
  { view, aft, other }: { view: ViewName; aft: number; other: number },
) {
  const { loaded, edit } = useLive.getState()
  const before = (valueAt(loaded?.document, picking.path) ?? picking.at) as Picking['at']
  const spot: Picking['at'] =
    view === 'plan'
      ? [Math.round(aft), Math.round(other), before[2]]
      : [Math.round(aft), before[1], Math.round(other)]
  useChoice.getState().pick({ ...picking, at: spot })
  if (spot.every((v) => v !== null)) await edit([{ op: 'replace', path: picking.path, value: spot }])
}
