/** What is read off by each way of weighing. */
import type { Read } from '../../../design/types'

export const READINGS: Record<Read['type'], readonly (readonly [string, string])[]> = {
  corners: [
    ['lf_kg', 'Left front'],
    ['rf_kg', 'Right front'],
    ['lr_kg', 'Left rear'],
    ['rr_kg', 'Right rear'],
  ],
  axles: [
    ['front_kg', 'Front axle'],
    ['rear_kg', 'Rear axle'],
  ],
  total: [['total_kg', 'Whole car']],
}
export const WAYS = [
  ['axles', 'two axle readings'],
  ['corners', 'four wheels'],
  ['total', 'one reading of the whole car'],
] as const
