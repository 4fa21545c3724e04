/** The vehicle as its figures give it: outline, wheels, axle lines, ground. */
import type { Vehicle } from '../design/types'
import { type Scale, tallOf, type ViewName } from './scale'

const THIN = { fill: 'none', stroke: 'var(--color-ink)', strokeWidth: 1.2 }
const TYRE = { fill: '#e8e4d8', stroke: 'var(--color-ink)', strokeWidth: 1 }
const TYRE_WIDE_MM = 165

export function Car({ vehicle, scale, view }: { vehicle: Vehicle; scale: Scale; view: ViewName }) {
  return (
    <g aria-hidden="true">
      {vehicle.overall && (
        <path d={view === 'plan' ? planBody(vehicle, scale) : sideBody(vehicle, scale)} {...THIN} />
      )}
      {view === 'plan' ? (
        <PlanWheels vehicle={vehicle} scale={scale} />
      ) : (
        <SideWheels vehicle={vehicle} scale={scale} />
      )}
      <AxleLines vehicle={vehicle} scale={scale} view={view} />
    </g>
  )
}

function planBody({ overall, wheelbase_mm }: Vehicle, { x, y }: Scale): string {
  if (!overall) return ''
  const half = overall.width_mm / 2
  const fore = -overall.overhang_front_mm
  const aft = wheelbase_mm + overall.overhang_rear_mm
  const points: [number, number][] = [
    [fore, -half * 0.66],
    [fore + 60, -half * 0.82],
    [fore + 400, -half * 0.96],
    [wheelbase_mm * 0.2, -half],
    [wheelbase_mm * 0.8, -half],
    [aft - 420, -half * 0.97],
    [aft - 80, -half * 0.8],
    [aft, -half * 0.55],
  ]
  const mirrored = [...points].reverse().map(([a, r]): [number, number] => [a, -r])
  return closed([...points, ...mirrored].map(([a, r]) => [x(a), y(r)]))
}

function sideBody({ overall, wheelbase_mm }: Vehicle, { x, z }: Scale): string {
  if (!overall) return ''
  const fore = -overall.overhang_front_mm
  const aft = wheelbase_mm + overall.overhang_rear_mm
  const top = overall.height_mm
  const sill = overall.tyre_radius_mm + 40
  const points: [number, number][] = [
    [fore, sill],
    [fore + 10, top * 0.52],
    [fore + 130, top * 0.64],
    [wheelbase_mm * 0.24, top * 0.73],
    [wheelbase_mm * 0.48, top * 0.98],
    [wheelbase_mm * 0.9, top],
    [aft - 180, top * 0.9],
    [aft - 20, top * 0.7],
    [aft, sill + 60],
  ]
  return points.map(([a, u], i) => `${i ? 'L' : 'M'}${x(a).toFixed(1)},${z(u).toFixed(1)}`).join('')
}

function closed(points: [number, number][]): string {
  return points.map(([a, b], i) => `${i ? 'L' : 'M'}${a.toFixed(1)},${b.toFixed(1)}`).join('') + 'Z'
}

function PlanWheels({
  vehicle: { track_mm, overall, wheelbase_mm },
  scale: { x, y, k },
}: {
  vehicle: Vehicle
  scale: Scale
}) {
  if (!track_mm) return null
  const radius = overall?.tyre_radius_mm ?? 300
  const wheels = [
    [0, track_mm.front],
    [wheelbase_mm, track_mm.rear],
  ].flatMap(([aft = 0, track = 0]) => [-1, 1].map((side) => [aft, (side * track) / 2] as const))
  return wheels.map(([aft, right]) => (
    <rect
      key={`${aft} ${right}`}
      x={x(aft - radius)}
      y={y(right + TYRE_WIDE_MM / 2)}
      width={2 * radius * k}
      height={TYRE_WIDE_MM * k}
      rx={4}
      {...TYRE}
    />
  ))
}

function SideWheels({
  vehicle: { overall, wheelbase_mm },
  scale: { x, z, k, width },
}: {
  vehicle: Vehicle
  scale: Scale
}) {
  const radius = overall?.tyre_radius_mm ?? 300
  return (
    <>
      {[0, wheelbase_mm].map((aft) => (
        <g key={aft}>
          <circle cx={x(aft)} cy={z(radius)} r={radius * k} {...TYRE} />
          <circle
            cx={x(aft)}
            cy={z(radius)}
            r={radius * 0.6 * k}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth={0.8}
          />
        </g>
      ))}
      <line x1={6} x2={width - 6} y1={z(0)} y2={z(0)} stroke="var(--color-ink)" strokeWidth={1.8} />
    </>
  )
}

function AxleLines({ vehicle, scale, view }: { vehicle: Vehicle; scale: Scale; view: ViewName }) {
  const { x, y, width } = scale
  const tall = tallOf(view, scale)
  const dash = { stroke: '#9a958a', strokeWidth: 0.9, strokeDasharray: '9 4 2 4' }
  return (
    <>
      {[0, vehicle.wheelbase_mm].map((aft) => (
        <line key={aft} x1={x(aft)} x2={x(aft)} y1={4} y2={tall - 4} {...dash} />
      ))}
      {view === 'plan' && <line x1={6} x2={width - 6} y1={y(0)} y2={y(0)} {...dash} />}
    </>
  )
}
