/** A space as measured, looking aft, at each station: metal drawn, open not, unmeasured dotted. */
import type { Bay } from '../../design/types'

export function BaySketch({ bay }: { bay: Bay }) {
  const stations = Object.values(bay.stations).sort((a, b) => a.aft_mm - b.aft_mm)
  const xs = stations.flatMap((s) => [s.left_floor_mm, s.left_top_mm, s.right_floor_mm, s.right_top_mm])
  const zs = stations.flatMap((s) => [s.floor_mm, s.top_left_mm, s.top_right_mm])
  const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)]
  const k = Math.min(220 / Math.max(x1 - x0, 1), 110 / Math.max(z1 - z0, 1))
  return (
    <div className="my-2 flex gap-4 overflow-x-auto" aria-hidden="true">
      {stations.map((s, i) => {
        const at = (x: number, z: number) =>
          [14 + (x - x0) * k, 12 + (z1 - z) * k].map((v) => v.toFixed(1)).join(',')
        const corner = {
          lf: at(s.left_floor_mm, s.floor_mm),
          lt: at(s.left_top_mm, s.top_left_mm),
          rt: at(s.right_top_mm, s.top_right_mm),
          rf: at(s.right_floor_mm, s.floor_mm),
        }
        const sides = [
          ['left', `M${corner.lf} L${corner.lt}`],
          ['top', `M${corner.lt} L${corner.rt}`],
          ['right', `M${corner.rt} L${corner.rf}`],
          ['floor', `M${corner.lf} L${corner.rf}`],
        ] as const
        return (
          <svg key={i} width={28 + (x1 - x0) * k} height={44 + (z1 - z0) * k} className="shrink-0">
            {sides.map(([side, d]) => {
              const is = bay.sides[side].is
              return (
                <path
                  key={side}
                  d={d}
                  fill="none"
                  stroke="var(--color-ink)"
                  strokeWidth={is === 'metal' ? 3 : 1}
                  strokeDasharray={is === 'metal' ? undefined : is === 'open' ? '2 7' : '2 3'}
                />
              )
            })}
            <text x={14 + ((x1 - x0) * k) / 2} y={36 + (z1 - z0) * k} textAnchor="middle" fontSize="12">
              station {i + 1}, looking aft
            </text>
          </svg>
        )
      })}
    </div>
  )
}
