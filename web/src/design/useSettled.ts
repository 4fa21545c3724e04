/** The revision once nothing is being saved and it has stood still for a moment: for what is dear to compute. */
import { useEffect, useState } from 'react'

import { useLive, useLoaded } from './live'

const STILL_MS = 450

export function useSettled(): number | null {
  const { revision } = useLoaded()
  const saving = useLive((s) => s.saving)
  const dragged = useLive((s) => s.preview !== null)
  const [settled, setSettled] = useState<number | null>(null)
  useEffect(() => {
    if (saving || dragged) return
    const timer = window.setTimeout(() => setSettled(revision), STILL_MS)
    return () => window.clearTimeout(timer)
  }, [revision, saving, dragged])
  return settled === revision ? revision : null
}
