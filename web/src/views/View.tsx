/**
 * One view under the hand: a press selects the topmost thing, the same spot again the next below; a selected box is
 * dragged or nudged, elsewhere a drag moves the view. A finger drags only what is selected, after resting on it; two
 * fingers only zoom.
 */
import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef, type WheelEvent } from 'react'

import { boxOf, useChoice } from '../design/choice'
import type { Shape } from '../design/types'
import { Grips } from './Grips'
import {
  AT_REST,
  cancelled,
  type Effect,
  type Hand,
  type Hold,
  lifted,
  moved,
  pressed,
  type Spot,
  STILL_PX,
  type Touch,
} from './hand'
import { hitsAt } from './hits'
import { type Scale, tallOf, type ViewName } from './scale'
import { Sheet } from './Sheet'
import { pickPlace } from './pick'
import { type By, caught, CATCH_PX, useMove } from './useMove'
import { loose, useMoveBlock } from './useMoveBlock'

const WHEEL_PX = 860 // so much turning comes e times closer; a touch pad sends small turns, a wheel 120 at once

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
  const hand = useRef<Hand>(AT_REST)
  const last = useRef<(Spot & { turn: number }) | null>(null)
  const move = useMove()
  const moveBlock = useMoveBlock()

  function touch(event: PointerEvent): Touch {
    return { ...spot(event), id: event.pointerId, ms: event.timeStamp }
  }

  function spot(event: PointerEvent | WheelEvent): Spot {
    const edge = (frame.current as HTMLDivElement).getBoundingClientRect()
    return { x: event.clientX - edge.left, y: event.clientY - edge.top }
  }

  function under({ x, y }: Spot) {
    return hitsAt(shapes, view, scale.aft(x), view === 'plan' ? scale.right(y) : scale.up(y))
  }

  /** A move on the screen as one of the view's two axes. */
  function millimetres({ x, y }: Spot): By {
    const [aft, other] = [x / scale.k, -y / scale.k]
    return [aft, view === 'plan' ? other : 0, view === 'side' ? other : 0]
  }

  function spotIn({ x, y }: Spot) {
    return view === 'plan'
      ? { aft: scale.aft(x), right: scale.right(y) }
      : { aft: scale.aft(x), up: scale.up(y) }
  }

  function goOn([now, ...effects]: readonly [Hand, ...Effect[]]) {
    hand.current = now
    effects.forEach(act)
  }

  function act(effect: Effect) {
    switch (effect.do) {
      case 'take':
        return useChoice.getState().select(effect.moves)
      case 'follow':
        return follow(effect.moves, effect.ways, millimetres(effect.by))
      case 'release':
        return void (isBlock(effect.moves) ? moveBlock : move).release()
      case 'aside': {
        const [aft, right, up] = millimetres({ x: -effect.by.x, y: -effect.by.y })
        return onLook.aside(aft, right, up)
      }
      case 'closer':
        return onLook.closer(effect.factor, spotIn(effect.about))
      case 'choose':
        return choose(effect.at)
      case 'cancel':
        move.cancel()
        moveBlock.cancel()
    }
  }

  function follow(moves: string, ways: Hold['ways'], by: By) {
    const stepped = by.map((d, i) => (ways[i] ? Math.round(d / step) * step : 0)) as By
    if (isBlock(moves)) moveBlock.follow(moves, stepped, CATCH_PX / scale.k)
    else move.follow(moves, caught(moves, stepped, scale.k))
  }

  function take(event: PointerEvent, hold: Hold) {
    frame.current?.focus({ preventScroll: true })
    frame.current?.setPointerCapture(event.pointerId)
    goOn(pressed(hand.current, touch(event), hold))
  }

  function down(event: PointerEvent) {
    if (event.button !== 0) return
    const hits = under(spot(event))
    const { selected } = useChoice.getState()
    const block = loose(selected)
    const box = boxOf(selected)
    const onBlock = block !== null && hits.some((h) => h.path.startsWith(`${block}#`))
    const onIt = onBlock || (box !== null && hits.some((h) => boxOf(h.path) === box))
    const finger = event.pointerType === 'touch' ? { onIt } : null
    take(event, {
      moves: onBlock ? block : onIt ? `boxes/${box}` : finger ? null : boxPath(hits[0]?.path),
      ways: view === 'plan' ? [1, 1, 0] : [1, 0, 1],
      finger,
    })
  }

  function grip(event: PointerEvent, ways: By) {
    event.stopPropagation()
    const box = boxOf(useChoice.getState().selected)
    if (box) take(event, { moves: `boxes/${box}`, ways, finger: null })
  }

  function wheel(event: WheelEvent) {
    onLook.closer(Math.exp(-event.deltaY / WHEEL_PX), spotIn(spot(event)))
  }

  function choose(at: Spot) {
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
      (hand.current.does === 'drag' || useChoice.getState().offset || moveBlock.moving())
    ) {
      goOn(cancelled())
      event.stopPropagation()
      return
    }
    const box = boxOf(useChoice.getState().selected)
    const way = ARROWS[event.key]
    if (!box || !way || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation()
    const by = step * (event.shiftKey ? 10 : 1)
    const nudge: By = [way[0] * by, view === 'plan' ? way[1] * by : 0, view === 'side' ? way[1] * by : 0]
    const block = loose(useChoice.getState().selected)
    if (block) moveBlock.nudge(block, nudge)
    else move.nudge(`boxes/${box}`, nudge)
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
      onPointerMove={(event) => goOn(moved(hand.current, touch(event)))}
      onPointerUp={(event) => goOn(lifted(hand.current, touch(event)))}
      onWheel={wheel}
      onPointerCancel={() => goOn(cancelled())}
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
