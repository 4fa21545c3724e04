/** Handles of the selected box that move one way only, and the peg of its anchor. */
import type { PointerEvent } from 'react'

import { boxOf, useChoice } from '../design/choice'
import { useDocument } from '../design/live'
import type { Shape } from '../design/types'
import { useTouch } from '../ui/touch'
import type { Scale, ViewName } from './scale'
import { Shifted } from './Sheet'
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
  const touch = useTouch()
  const tray = shapes.find((s) => s.kind === 'tray' && s.path === `boxes/${box}`)
  if (!box || !tray) return null
  const polygon = view === 'plan' ? tray.plan : tray.side
  const xs = polygon.map(([a]) => scale.x(a))
  const ys = polygon.map(([, b]) => (view === 'plan' ? scale.y(b) : scale.z(b)))
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
    <Shifted path={`boxes/${box}`} view={view} scale={scale}>
      <circle
        cx={scale.x(aft)}
        cy={view === 'plan' ? scale.y(right) : scale.z(up)}
        r={5.5}
        fill="var(--color-blue)"
        stroke="#fff"
        strokeWidth={1.5}
      />
      {grips.map((g) => (
        <g
          key={`${g.x} ${g.y}`}
          data-grip={g.words}
          transform={`translate(${g.x},${g.y}) rotate(${g.turn})`}
          className="pointer-events-auto cursor-grab"
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
    </Shifted>
  )
}
