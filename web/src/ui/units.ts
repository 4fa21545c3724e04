/** The unit of each list, as the document keeps it. */
import { useMemo } from 'react'

import { useLive } from '../design/live'
import type { Units } from './format'

export function useUnits(list: 'survey' | 'stock' | 'place' = 'place'): Units {
  const length = useLive((s) => s.loaded?.document.units[list] ?? 'mm')
  const mass = useLive((s) => s.loaded?.document.units.mass ?? 'kg')
  return useMemo(() => ({ length, mass }), [length, mass])
}
