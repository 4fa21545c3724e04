/** Handles of the selected box that move one way only, and the peg of its anchor. */
import type { PointerEvent } from 'react'

import { boxOf, useChoice } from '../design/choice'
import { useDocument } from '../design/live'
import type { Shape } from '../design/types'
import { useTouch } from '../ui/touch'
import type { Scale, ViewName } from './scale'
import type { By } from './useMove'

export function Grips({
  view,
  scale,
  shapes,
  onGrip,
}: {
  view: ViewName
  scale: Scale
  shapes: readonly Shape[]
  onGrip: (event: PointerEvent, ways: By) => void
}) {
  const document = useDocument()
  const box = boxOf(useChoice((s) => s.selected))
  const offset = useChoice((s) => s.offset)
  const touch = useTouch()
  const tray = shapes.find((s) => s.kind === 'tray' && s.path === `boxes/${box}`)
  if (!box || !tray) return null
  const by = offset?.path === `boxes/${box}` ? offset.by : [0, 0, 0]
  const polygon = (view === 'plan' ? tray.plan : tray.side) as unknown as [number, number][]
  const xs = polygon.map(([a]) => scale.x(a + (by[0] ?? 0)))
  const shift = (view === 'plan' ? by[1] : by[2]) ?? 0
  const ys = polygon.map(([, b]) => (view === 'plan' ? scale.y(b + shift) : scale.z(b + shift)))
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const other: By = view === 'plan' ? [0, 1, 0] : [0, 0, 1]
  const grips: { x: number; y: number; ways: By; turn: number; words: string }[] = [
    { x: x0 - 11, y: (y0 + y1) / 2, ways: [1, 0, 0], turn: 0, words: 'moves aft only' },
    { x: x1 + 11, y: (y0 + y1) / 2, ways: [1, 0, 0], turn: 0, words: 'moves aft only' },
    {
      x: (x0 + x1) / 2,
      y: y0 - 11,
      ways: other,
      turn: 90,
      words: view === 'plan' ? 'moves across only' : 'moves up only',
    },
  ]
  const [aft = 0, right = 0, up = 0] = (document.boxes[box]?.pose.at_mm as number[] | undefined) ?? []
  return (
    <g>
      <circle
        cx={scale.x(aft + (by[0] ?? 0))}
        cy={view === 'plan' ? scale.y(right + (by[1] ?? 0)) : scale.z(up + (by[2] ?? 0))}
        r={5.5}
        fill="var(--color-blue)"
        stroke="#fff"
        strokeWidth={1.5}
        pointerEvents="none"
      />
      {grips.map((g) => (
        <g
          key={`${g.x} ${g.y}`}
          data-grip={g.words}
          transform={`translate(${g.x},${g.y}) rotate(${g.turn})`}
          className="cursor-grab"
          onPointerDown={(e) => onGrip(e, g.ways)}
        >
          <title>{g.words}</title>
          {touch && <rect x={-24} y={-24} width={48} height={48} fill="transparent" />}
          <rect
            x={-9}
            y={-9}
            width={18}
            height={18}
            rx={3}
            fill="#fff"
            stroke="var(--color-blue)"
            strokeWidth={1.6}
          />
          <path d="M-6,0 l4,-3.5 v7z M6,0 l-4,-3.5 v7z" fill="var(--color-blue)" />
        </g>
      ))}
    </g>
  )
}
