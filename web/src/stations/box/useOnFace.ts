/** Moving what sits on a face of a box, by hand or by keys: it follows the hand, its findings come from previews, and one edit is
 * written at the end. */
import { useMemo, useRef, useState } from 'react'

import { useLetGo, useLive, useSentBefore } from '../../design/live'
import { at } from '../../design/pointer'
import type { BoxOpened, Op } from '../../design/types'
import { movedTo, type Two } from './faceMoves'

type OnFace = Pick<BoxOpened['faces'][number]['things'][number], 'path' | 'place'>
export interface Moved {
  path: string
  mm: Two
}
const NUDGES_END_MS = 900

/** As the document has it now: the drawing may be of an earlier one. */
export function here(path: string): Two {
  const hole = at(useLive.getState().loaded?.document, `/${path}`) as { u_mm: number; v_mm: number }
  return [hole.u_mm, hole.v_mm]
}

function patchOf({ path, mm }: Moved, was: Two): Op[] {
  return (['u_mm', 'v_mm'] as const).flatMap((name, i) =>
    mm[i] === was[i] ? [] : [{ op: 'replace' as const, path: `/${path}/${name}`, value: mm[i] }],
  )
}

export function useOnFace() {
  const [moved, show] = useState<Moved | null>(null)
  const now = useRef<{ moved: Moved; was: Two } | null>(null)
  const timer = useRef<number | undefined>(undefined)
  const hand = useMemo(() => {
    const live = useLive.getState()

    function still() {
      window.clearTimeout(timer.current)
      timer.current = undefined
      now.current = null
    }

    function follow(thing: OnFace, mm: Two) {
      const [next, was] = [{ path: thing.path, mm }, here(thing.path)]
      now.current = { moved: next, was }
      show(next)
      const patch = patchOf(next, was)
      if (patch.length) live.show(patch)
      else live.drop()
    }

    async function release() {
      const held = now.current
      still()
      if (!held) return
      const patch = patchOf(held.moved, held.was)
      if (!patch.length || !(await live.edit(patch))) cancel()
    }

    /** What was let go is drawn by the core now. */
    const landed = () => {
      if (!now.current) show(null)
    }

    function cancel() {
      still()
      show(null)
      live.drop()
    }

    /** A burst of nudges is previews and one edit. */
    function nudge(thing: OnFace, by: Two) {
      const held = now.current?.moved
      const from = held?.path === thing.path ? held.mm : here(thing.path)
      follow(thing, movedTo(thing.place.ways, from, by))
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void release(), NUDGES_END_MS)
    }

    const letGo = () => timer.current !== undefined && cancel()
    const sent = async () => timer.current !== undefined && release()
    return { follow, release, cancel, nudge, landed, letGo, sent }
  }, [])
  useLetGo(hand.letGo)
  useSentBefore(hand.sent)
  return { moved, ...hand }
}
