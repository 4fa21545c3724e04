/**
 * One view under the hand: a press selects the topmost thing, the same spot again the next below; a selected box is
 * dragged or nudged, elsewhere a drag moves the view. A finger drags only what is selected, after resting on it; two
 * fingers only zoom.
 */
import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef, type WheelEvent } from 'react'

import { boxOf, useChoice } from '../design/choice'
import type { Shape } from '../design/types'
import { Grips } from './Grips'
import { hitsAt } from './hits'
import { type Scale, tallOf, type ViewName } from './scale'
import { Sheet } from './Sheet'
import { pickPlace } from './pick'
import { type By, caught, CATCH_PX, useMove } from './useMove'
import { loose, useMoveBlock } from './useMoveBlock'

const STILL_PX = 6
const WHEEL_PX = 860 // so much turning comes e times closer; a touch pad sends small turns, a wheel 120 at once

/** A finger rests this long on the selected thing before it drags it. */
const HELD_MS = 300

interface Press {
  x: number
  y: number
  /** What a drag moves: a box, or a block in one. */
  moves: string | null
  ways: By
  /** What the hand turned out to do. */
  does: 'drag' | 'pan' | null
  /** Under a finger: since when, and whether the selected thing is under it. */
  finger: { since: number; onIt: boolean } | null
}

export interface LookBy {
  aside: (aft: number, right: number, up: number) => void
  closer: (factor: number, spot: { aft?: number; right?: number; up?: number }) => void
}

export function View({
  view,
  scale,
  shapes,
  step,
  back,
  inHand,
  onLook,
  picks,
  children,
}: {
  view: ViewName
  scale: Scale
  shapes: readonly Shape[]
  step: number
  /** What does not move while something is dragged. */
  back: ReactNode
  /** What is dragged, if anything is. */
  inHand: ReactNode
  onLook: LookBy
  /** A press gives a place and selects nothing. */
  picks: boolean
  children: ReactNode
}) {
  const frame = useRef<HTMLDivElement>(null)
  const press = useRef<Press | null>(null)
  const last = useRef<{ x: number; y: number; turn: number } | null>(null)
  const fingers = useRef(new Map<number, { x: number; y: number }>())
  const move = useMove()
  const moveBlock = useMoveBlock()

  function spot(event: PointerEvent | WheelEvent) {
    const edge = (frame.current as HTMLDivElement).getBoundingClientRect()
    return { x: event.clientX - edge.left, y: event.clientY - edge.top }
  }

  function under({ x, y }: { x: number; y: number }) {
    return hitsAt(shapes, view, scale.aft(x), view === 'plan' ? scale.right(y) : scale.up(y))
  }

  function down(event: PointerEvent) {
    if (event.button !== 0) return
    frame.current?.focus({ preventScroll: true })
    const at = spot(event)
    frame.current?.setPointerCapture(event.pointerId)
    fingers.current.set(event.pointerId, at)
    if (fingers.current.size > 1) {
      // two fingers only zoom
      if (press.current?.does === 'drag') cancel()
      press.current = null
      return
    }
    const hits = under(at)
    const { selected } = useChoice.getState()
    const block = loose(selected)
    const box = boxOf(selected)
    const onBlock = block !== null && hits.some((h) => h.path.startsWith(`${block}#`))
    const onIt = onBlock || (box !== null && hits.some((h) => boxOf(h.path) === box))
    const touch = event.pointerType === 'touch'
    press.current = {
      ...at,
      moves: onBlock ? block : onIt ? `boxes/${box}` : touch ? null : boxPath(hits[0]?.path),
      ways: view === 'plan' ? [1, 1, 0] : [1, 0, 1],
      does: null,
      finger: touch ? { since: event.timeStamp, onIt } : null,
    }
  }

  function grip(event: PointerEvent, ways: By) {
    event.stopPropagation()
    const box = boxOf(useChoice.getState().selected)
    if (!box) return
    frame.current?.focus({ preventScroll: true })
    press.current = { ...spot(event), moves: `boxes/${box}`, ways, does: null, finger: null }
    fingers.current.set(event.pointerId, spot(event))
    frame.current?.setPointerCapture(event.pointerId)
  }

  function drag(event: PointerEvent) {
    const at = spot(event)
    const was = fingers.current.get(event.pointerId)
    if (fingers.current.size > 1 && was) return pinch(event.pointerId, was, at)
    if (was) fingers.current.set(event.pointerId, at)
    const held = press.current
    if (!held || !was) return
    const [dx, dy] = [at.x - held.x, at.y - held.y]
    if (!held.does) {
      if (Math.hypot(dx, dy) < STILL_PX) return
      const waited = !held.finger || (held.finger.onIt && event.timeStamp - held.finger.since >= HELD_MS)
      held.does = held.moves && waited ? 'drag' : 'pan'
      if (held.does === 'drag') useChoice.getState().select(held.moves)
    }
    if (held.does === 'pan') {
      const [aft, other] = [(was.x - at.x) / scale.k, (at.y - was.y) / scale.k]
      return onLook.aside(aft, view === 'plan' ? other : 0, view === 'side' ? other : 0)
    }
    const other = -dy / scale.k
    const by: By = [dx / scale.k, view === 'plan' ? other : 0, view === 'side' ? other : 0]
    const stepped = by.map((d, i) => (held.ways[i] ? Math.round(d / step) * step : 0)) as By
    if (!held.moves) return
    if (isBlock(held.moves)) moveBlock.follow(held.moves, stepped, CATCH_PX / scale.k)
    else move.follow(held.moves, caught(held.moves, stepped, scale.k))
  }

  function spotIn({ x, y }: { x: number; y: number }) {
    return view === 'plan'
      ? { aft: scale.aft(x), right: scale.right(y) }
      : { aft: scale.aft(x), up: scale.up(y) }
  }

  function pinch(id: number, was: { x: number; y: number }, at: { x: number; y: number }) {
    const other = [...fingers.current].find(([key]) => key !== id)?.[1]
    fingers.current.set(id, at)
    if (!other) return
    const apart = (p: { x: number; y: number }) => Math.max(Math.hypot(p.x - other.x, p.y - other.y), 1)
    onLook.closer(apart(at) / apart(was), spotIn({ x: (at.x + other.x) / 2, y: (at.y + other.y) / 2 }))
  }

  function wheel(event: WheelEvent) {
    onLook.closer(Math.exp(-event.deltaY / WHEEL_PX), spotIn(spot(event)))
  }

  function cancel() {
    move.cancel()
    moveBlock.cancel()
  }

  function up(event: PointerEvent) {
    fingers.current.delete(event.pointerId)
    const held = press.current
    press.current = null
    if (!held) return
    if (held.does === 'drag') return void (isBlock(held.moves) ? moveBlock : move).release()
    if (held.does === null) choose(spot(event))
  }

  function choose(at: { x: number; y: number }) {
    const { select, taping, tape, picking } = useChoice.getState()
    if (picks && picking)
      return void pickPlace(picking, {
        view,
        aft: scale.aft(at.x),
        other: view === 'plan' ? scale.right(at.y) : scale.up(at.y),
      })
    const hits = under(at)
    const same = last.current && Math.hypot(at.x - last.current.x, at.y - last.current.y) < STILL_PX
    const turn = same && last.current && hits.length ? (last.current.turn + 1) % hits.length : 0
    last.current = { ...at, turn }
    const hit = hits[turn]
    if (!hit) return select(null)
    select(hit.path, hits.length > 1 ? `${turn + 1} of ${hits.length} here: ${hit.words}` : hit.words)
    if (taping && taping.length < 2)
      tape([...taping, hit.path.split('#')[0]?.replace(/\/blocks\/.*$/, '') ?? hit.path])
  }

  function keys(event: KeyboardEvent) {
    if (
      event.key === 'Escape' &&
      (press.current?.does === 'drag' || useChoice.getState().offset || moveBlock.moving())
    ) {
      press.current = null
      cancel()
      event.stopPropagation()
      return
    }
    const box = boxOf(useChoice.getState().selected)
    const way = ARROWS[event.key]
    if (!box || !way || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation()
    const by = step * (event.shiftKey ? 10 : 1)
    const step_: By = [way[0] * by, view === 'plan' ? way[1] * by : 0, view === 'side' ? way[1] * by : 0]
    const block = loose(useChoice.getState().selected)
    if (block) moveBlock.nudge(block, step_)
    else move.nudge(`boxes/${box}`, step_)
  }

  return (
    <div
      ref={frame}
      style={{ width: scale.width, height: tallOf(view, scale) }}
      tabIndex={0}
      role="application"
      aria-label={
        view === 'plan'
          ? 'Plan: arrows nudge the selected box aft and across'
          : 'Side: arrows nudge the selected box aft and up'
      }
      data-view={view}
      className="relative touch-none overflow-hidden outline-none select-none focus-visible:shadow-[inset_0_0_0_3px_var(--color-blue)] focus:shadow-[inset_0_0_0_2px_var(--color-blue)]"
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onWheel={wheel}
      onPointerCancel={(event) => {
        fingers.current.delete(event.pointerId)
        press.current = null
        cancel()
      }}
      onKeyDown={keys}
    >
      <Sheet view={view} scale={scale}>
        {back}
      </Sheet>
      {inHand}
      <Sheet view={view} scale={scale}>
        {children}
      </Sheet>
      <Grips view={view} scale={scale} shapes={shapes} onGrip={grip} />
    </div>
  )
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

const isBlock = (path: string | null) => Boolean(path?.includes('/blocks/'))

function boxPath(path: string | undefined): string | null {
  const box = boxOf(path ?? null)
  return box ? `boxes/${box}` : null
}
