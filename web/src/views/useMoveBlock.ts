/**
 * Moving a block in its box by hand or by keys. The core says where it goes: it turns the move into the box's axes and
 * catches it where it touches another block with their gap, or lies in line with it. The drawing shows the preview, since
 * a box that wraps its blocks grows and shrinks with them.
 */
import { useMemo, useRef } from 'react'

import { useLetGo, useLive, useSentBefore } from '../design/live'
import { rearranged } from '../design/orders'
import type { Op } from '../design/types'
import type { By } from './useMove'

const NUDGES_END_MS = 900

interface Moved {
  path: string
  by: By
  catchMm: number
}

/** The block of a selected path, where it has company in its box: alone it is its box that moves. */
export function loose(selected: string | null): string | null {
  const [, box, what, key] = selected?.split('/') ?? []
  if (what !== 'blocks' || !box || !key || key.includes('#')) return null
  const blocks = useLive.getState().loaded?.document.boxes[box]?.blocks ?? {}
  return Object.keys(blocks).length > 1 ? (selected as string) : null
}

async function patchOf({ path, by, catchMm }: Moved): Promise<Op[]> {
  const { loaded } = useLive.getState()
  const [, box = '', , block = ''] = path.split('/')
  const order = { do: 'move' as const, block, by_mm: by, catch_mm: catchMm }
  return (await rearranged(loaded?.project ?? '', box, order)).patch
}

export function useMoveBlock() {
  const now = useRef<Moved | null>(null)
  const timer = useRef<number | undefined>(undefined)
  const hand = useMemo(() => {
    let asking = false

    /** One question on the way; then the newest. */
    async function ask() {
      if (asking) return
      asking = true
      for (let asked: Moved | null = null; now.current && now.current !== asked;) {
        asked = now.current
        const patch = await patchOf(asked).catch(() => null)
        if (patch && now.current) useLive.getState().show(patch, true)
      }
      asking = false
    }

    function follow(path: string, by: By, catchMm: number) {
      now.current = { path, by, catchMm }
      void ask()
    }

    async function release() {
      const last = now.current
      now.current = null
      window.clearTimeout(timer.current)
      timer.current = undefined
      const patch = last && (await patchOf(last).catch(() => null))
      if (patch) await useLive.getState().edit(patch)
      else useLive.getState().drop()
    }

    function cancel() {
      now.current = null
      window.clearTimeout(timer.current)
      timer.current = undefined
      useLive.getState().drop()
    }

    /** A burst of nudges is previews and one edit; by keys nothing is caught. */
    function nudge(path: string, step: By) {
      const before: By = now.current?.path === path ? now.current.by : [0, 0, 0]
      follow(path, [before[0] + step[0], before[1] + step[1], before[2] + step[2]], 0)
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void release(), NUDGES_END_MS)
    }

    const letGo = () => timer.current !== undefined && cancel()
    const sent = async () => timer.current !== undefined && release()
    return { follow, release, cancel, nudge, letGo, sent, moving: () => now.current !== null }
  }, [])
  useLetGo(hand.letGo)
  useSentBefore(hand.sent)
  return hand
}
