/**
 * Moving a box by hand or by keys. It follows the hand from here; its gaps come from previews; one edit is written at
 * the end. The figures of axes that were not moved stay as they are.
 */
import { useMemo, useRef } from 'react'

import { useChoice } from '../design/choice'
import { useLetGo, useLive, useSentBefore } from '../design/live'
import { at } from '../design/pointer'
import type { Op } from '../design/types'

export type By = [number, number, number]
const NUDGES_END_MS = 900

function patchOf(box: string, by: By): Op[] {
  const place = at(useLive.getState().loaded?.document, `/${box}/pose/at_mm`) as By
  return by.flatMap((d, axis) =>
    d === 0
      ? []
      : [{ op: 'replace' as const, path: `/${box}/pose/at_mm/${axis}`, value: tidy((place[axis] ?? 0) + d) }],
  )
}

/** Sums of decimals without their rounding tail. */
function tidy(value: number): number {
  return Math.round(value * 1e6) / 1e6
}

export const CATCH_PX = 12

/**
 * A drag stays where a gap is just kept until the hand is 12 px past it, on either side.
 */
export function caught(box: string, by: By, k: number): By {
  const { snap_points, loaded } = useLive.getState()
  const start = at(loaded?.document, `/${box}/pose/at_mm`) as By
  return by.map((d, axis) => {
    if (!d) return d
    const from = start[axis] ?? 0
    const past = (c: number) => Math.sign(d) * (from + d - c) * k
    const crossed = snap_points
      .filter((c) => c.axis === axis && (c.at_mm - from) * d > 0)
      .map((c) => c.at_mm)
      .filter((c) => past(c) >= 0 && past(c) < CATCH_PX)
    // of several the one that was crossed last
    const last = crossed.sort((a, b) => past(a) - past(b))[0]
    return last === undefined ? d : tidy(last - from)
  }) as By
}

export function useMove() {
  const timer = useRef<number | undefined>(undefined)
  const hand = useMemo(() => {
    const { move } = useChoice.getState()
    const { show, drop, edit } = useLive.getState()

    function follow(box: string, by: By) {
      move({ path: box, by })
      const patch = patchOf(box, by)
      if (patch.length) show(patch)
      else drop()
    }

    async function release() {
      window.clearTimeout(timer.current)
      timer.current = undefined
      const { offset } = useChoice.getState()
      if (!offset) return
      const patch = patchOf(offset.path, offset.by)
      if (patch.length) await edit(patch)
      else drop()
      if (useChoice.getState().offset === offset) move(null)
    }

    function cancel() {
      window.clearTimeout(timer.current)
      timer.current = undefined
      move(null)
      drop()
    }

    /** A burst of nudges is previews and one edit. */
    function nudge(box: string, step: By) {
      const { offset } = useChoice.getState()
      if (offset && offset.path !== box) void release()
      const before: By = offset?.path === box ? offset.by : [0, 0, 0]
      follow(box, [tidy(before[0] + step[0]), tidy(before[1] + step[1]), tidy(before[2] + step[2])])
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void release(), NUDGES_END_MS)
    }

    const letGo = () => timer.current !== undefined && cancel()
    const sent = async () => timer.current !== undefined && release()
    return { follow, release, cancel, nudge, letGo, sent }
  }, [])
  useLetGo(hand.letGo)
  useSentBefore(hand.sent)
  return hand
}
