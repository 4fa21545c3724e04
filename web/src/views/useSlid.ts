/** One figure moved by hand or by keys: what follows from it comes from previews, and one edit is written at the end. */
import { useMemo, useRef, useState } from 'react'

import { useLetGo, useLive, useSentBefore } from '../design/live'
import { at } from '../design/pointer'

const NUDGES_END_MS = 900

/** `path`: of the figure in the document. */
export function useSlid(path: string, most: number) {
  const [slid, show] = useState<number | null>(null)
  const now = useRef<number | null>(null)
  const timer = useRef<number | undefined>(undefined)
  const hand = useMemo(() => {
    const live = useLive.getState()
    const was = () => at(useLive.getState().loaded?.document, path) as number
    const patch = (value: number) => [{ op: 'replace' as const, path, value }]

    function still() {
      window.clearTimeout(timer.current)
      timer.current = undefined
    }

    function hold(value: number | null) {
      still()
      now.current = value
      show(value)
    }

    function follow(value: number) {
      const next = Math.min(Math.max(Math.round(value * 10) / 10, 0), most)
      hold(next)
      if (next === was()) live.drop()
      else live.show(patch(next))
    }

    function cancel() {
      hold(null)
      live.drop()
    }

    async function release() {
      const value = now.current
      still()
      if (value !== null && value !== was()) await live.edit(patch(value))
      else live.drop()
      if (now.current === value) hold(null)
    }

    /** A burst of nudges is previews and one edit. */
    function nudge(step: number) {
      follow((now.current ?? was()) + step)
      timer.current = window.setTimeout(() => void release(), NUDGES_END_MS)
    }

    const letGo = () => timer.current !== undefined && cancel()
    const sent = async () => timer.current !== undefined && release()
    return { follow, release, cancel, nudge, letGo, sent, was }
  }, [path, most])
  useLetGo(hand.letGo)
  useSentBefore(hand.sent)
  return { slid, ...hand }
}
