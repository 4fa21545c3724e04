/** A proposal in plan: the car's outline and the boxes, nose at the left. */
import type { Shape, Vehicle } from '../../../design/types'
import { Car } from '../../../views/Car'
import { makeScale } from '../../../views/scale'

const [WIDE, HIGH] = [180, 92]

export function Sketch({ vehicle, shapes }: { vehicle: Vehicle; shapes: readonly Shape[] }) {
  const overall = vehicle.overall
  const half = (overall?.width_mm ?? 1600) / 2
  const window = {
    aft: [
      -(overall?.overhang_front_mm ?? 600),
      vehicle.wheelbase_mm + (overall?.overhang_rear_mm ?? 800),
    ] as [number, number],
    right: [-half, half] as [number, number],
    up: [0, 0] as [number, number],
  }
  const scale = makeScale(window, WIDE + 44, HIGH, 'plan')
  return (
    <svg
      width={WIDE}
      height={HIGH - 22}
      viewBox={`22 4 ${WIDE} ${HIGH - 38}`}
      role="img"
      aria-label="The boxes in plan"
    >
      <Car vehicle={vehicle} scale={scale} view="plan" />
      {shapes.map((s, i) => (
        <polygon
          key={i}
          points={s.plan.map(([a, b]) => `${scale.x(a).toFixed(1)},${scale.y(b).toFixed(1)}`).join(' ')}
          fill={s.kind === 'tray' ? '#f3e6d8' : s.kind === 'module' ? '#dfe9e6' : 'none'}
          stroke={s.kind === 'module' ? 'var(--color-slate)' : 'var(--color-copper)'}
          strokeWidth={s.kind === 'tray' ? 1.6 : 0.5}
        />
      ))}
    </svg>
  )
}
