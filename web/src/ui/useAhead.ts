/** What was chosen is shown at once, until the design says what it is now. */
import { useEffect, useState } from 'react'

import { useLive } from '../design/live'

export function useAhead<T>(value: T): [T, (value: T) => void] {
  const saving = useLive((s) => s.saving)
  const [ahead, setAhead] = useState<{ value: T } | null>(null)
  useEffect(() => {
    if (!saving) setAhead(null)
  }, [saving, value, ahead])
  return [ahead ? ahead.value : value, (next) => setAhead({ value: next })]
}
