/** Plan over side on paper: outlines alone, black on white. */
import { useAnalysis, useDocument } from '../design/live'
import type { Units } from '../ui/format'
import { Car } from './Car'
import { carWindow, makeScale, tallOf } from './scale'

const WIDTH = 960
const HEIGHT = 560
const HEAVY = new Set(['tray', 'lid', 'module', 'bracket'])

export function PrintDrawing({ units }: { units: Units }) {
  const document = useDocument()
  const { shapes } = useAnalysis()
  const scale = makeScale(carWindow(document, shapes), WIDTH, HEIGHT)
  const bar = units.length === 'mm' ? { mm: 500, message: '500 mm' } : { mm: 508, message: '20"' }
  return (
    <div className="mt-2 break-inside-avoid [&_:is(rect,circle,ellipse,path)]:fill-none">
      {(['plan', 'side'] as const).map((view) => (
        <svg key={view} viewBox={`0 0 ${WIDTH} ${tallOf(view, scale)}`} className="block w-full">
          <Car vehicle={document.vehicle} scale={scale} view={view} />
          {shapes.map((shape, i) => (
            <polygon
              key={i}
              points={(view === 'plan' ? shape.plan : shape.side)
                .map(([a = 0, b = 0]) => `${scale.x(a)},${view === 'plan' ? scale.y(b) : scale.z(b)}`)
                .join(' ')}
              fill="none"
              stroke="#000"
              strokeWidth={HEAVY.has(shape.kind) ? 1.6 : 0.6}
              strokeDasharray={shape.kind === 'gone' ? '4 3' : undefined}
            />
          ))}
          <text x={8} y={16} fontSize={12}>
            {view === 'plan' ? 'PLAN, NOSE at the left, RIGHT upward' : 'SIDE, seen from the left'}
          </text>
          {view === 'side' && (
            <g>
              <path
                d={`M20,${scale.sideHeight - 10} h${bar.mm * scale.k} m0,-5 v10 M20,${scale.sideHeight - 15} v10`}
                stroke="#000"
                strokeWidth={2}
              />
              <text x={28 + bar.mm * scale.k} y={scale.sideHeight - 6} fontSize={12}>
                {bar.message}
              </text>
            </g>
          )}
        </svg>
      ))}
    </div>
  )
}
