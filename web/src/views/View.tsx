/**
 * One view under the hand: a press selects the topmost thing, the same spot again the next below; a selected box is
 * dragged or nudged. Pointer work is three small states: idle (null), pressed, dragging.
 */
import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef } from 'react'

import { boxOf, useChoice } from '../design/choice'
import type { Shape } from '../design/types'
import { Grips } from './Grips'
import { hitsAt } from './hits'
import type { Scale, ViewName } from './scale'
import { pickPlace } from './pick'
import { type By, useMove } from './useMove'

const STILL_PX = 6

interface Press {
  x: number
  y: number
  box: string | null
  ways: By
  dragging: boolean
}

export function View({
  view,
  scale,
  shapes,
  step,
  back,
  children,
}: {
  view: ViewName
  scale: Scale
  shapes: readonly Shape[]
  step: number
  /** What does not move while something is dragged: painted on a sheet of its own, once. */
  back: ReactNode
  children: ReactNode
}) {
  const frame = useRef<SVGSVGElement>(null)
  const press = useRef<Press | null>(null)
  const last = useRef<{ x: number; y: number; turn: number } | null>(null)
  const move = useMove()
  const tall = view === 'plan' ? scale.planHeight : scale.sideHeight

  function spot(event: PointerEvent) {
    const edge = (frame.current as SVGSVGElement).getBoundingClientRect()
    return { x: event.clientX - edge.left, y: event.clientY - edge.top }
  }

  function under({ x, y }: { x: number; y: number }) {
    return hitsAt(shapes, view, scale.aft(x), view === 'plan' ? scale.right(y) : scale.up(y))
  }

  function down(event: PointerEvent<SVGSVGElement>) {
    if (event.button !== 0) return
    frame.current?.focus({ preventScroll: true })
    const at = spot(event)
    const hits = under(at)
    const selected = useChoice.getState().selected
    const box = boxOf(selected)
    const onIt = box !== null && hits.some((h) => boxOf(h.path) === box)
    press.current = {
      ...at,
      box: onIt ? `boxes/${box}` : boxPath(hits[0]?.path),
      ways: view === 'plan' ? [1, 1, 0] : [1, 0, 1],
      dragging: false,
    }
    frame.current?.setPointerCapture(event.pointerId)
  }

  function grip(event: PointerEvent, ways: By) {
    event.stopPropagation()
    const box = boxOf(useChoice.getState().selected)
    if (!box) return
    frame.current?.focus({ preventScroll: true })
    press.current = { ...spot(event), box: `boxes/${box}`, ways, dragging: false }
    frame.current?.setPointerCapture(event.pointerId)
  }

  function drag(event: PointerEvent) {
    const held = press.current
    if (!held) return
    const at = spot(event)
    const [dx, dy] = [at.x - held.x, at.y - held.y]
    if (!held.dragging && Math.hypot(dx, dy) < STILL_PX) return
    if (!held.box) return
    if (!held.dragging) {
      held.dragging = true
      useChoice.getState().select(held.box)
    }
    const other = -dy / scale.k
    const by: By = [dx / scale.k, view === 'plan' ? other : 0, view === 'side' ? other : 0]
    move.follow(held.box, by.map((d, i) => (held.ways[i] ? Math.round(d / step) * step : 0)) as By)
  }

  function up(event: PointerEvent) {
    const held = press.current
    press.current = null
    if (!held) return
    if (held.dragging) return void move.release()
    choose(spot(event))
  }

  function choose(at: { x: number; y: number }) {
    const { select, taping, tape, picking } = useChoice.getState()
    if (picking)
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
    if (event.key === 'Escape' && (press.current?.dragging || useChoice.getState().offset)) {
      press.current = null
      move.cancel()
      event.stopPropagation()
      return
    }
    const box = boxOf(useChoice.getState().selected)
    const way = ARROWS[event.key]
    if (!box || !way || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation()
    const by = step * (event.shiftKey ? 10 : 1)
    move.nudge(`boxes/${box}`, [
      way[0] * by,
      view === 'plan' ? way[1] * by : 0,
      view === 'side' ? way[1] * by : 0,
    ])
  }

  return (
    <div className="relative" style={{ width: scale.width, height: tall }}>
      <svg
        width={scale.width}
        height={tall}
        aria-hidden="true"
        className="pointer-events-none absolute inset-0 will-change-transform"
      >
        {back}
      </svg>
      <svg
        ref={frame}
        width={scale.width}
        height={tall}
        tabIndex={0}
        role="application"
        aria-label={
          view === 'plan'
            ? 'Plan: arrows nudge the selected box aft and across'
            : 'Side: arrows nudge the selected box aft and up'
        }
        data-view={view}
        className="absolute inset-0 block touch-none will-change-transform outline-none select-none focus-visible:shadow-[inset_0_0_0_3px_var(--color-blue)] focus:shadow-[inset_0_0_0_2px_var(--color-blue)]"
        onPointerDown={down}
        onPointerMove={drag}
        onPointerUp={up}
        onPointerCancel={() => {
          press.current = null
          move.cancel()
        }}
        onKeyDown={keys}
      >
        {children}
        <Grips view={view} scale={scale} shapes={shapes} onGrip={grip} />
      </svg>
    </div>
  )
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

function boxPath(path: string | undefined): string | null {
  const box = boxOf(path ?? null)
  return box ? `boxes/${box}` : null
}
