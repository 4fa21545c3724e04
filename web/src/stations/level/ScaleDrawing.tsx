/** The car on its scales, found and ready, nose at the left: a bar at each axle, to one scale. */
import type { Loads } from '../../design/types'
import { mass } from '../../ui/format'
import { useUnits } from '../../ui/units'

export function ScaleDrawing({ found, ready }: { found: Loads; ready: Loads }) {
  const units = useUnits()
  const most = Math.max(found.front_kg, found.rear_kg, ready.front_kg, ready.rear_kg)
  const rows = [
    ['as found', found, '#c9c2af'],
    ['ready', ready, 'var(--color-blue)'],
  ] as const
  return (
    <svg
      viewBox="0 0 860 150"
      className="w-full"
      role="img"
      aria-label={`Front ${mass(found.front_kg, units.mass)} found, ${mass(ready.front_kg, units.mass)} ready; rear ${mass(found.rear_kg, units.mass)} found, ${mass(ready.rear_kg, units.mass)} ready`}
    >
      {(['front', 'rear'] as const).map((axle, side) => {
        const middle = side ? 645 : 215
        return (
          <g key={axle} transform={`translate(${middle},0)`}>
            <text
              y="16"
              textAnchor="middle"
              fontSize="14"
              fontWeight="700"
              fill="var(--color-soft)"
              letterSpacing="1"
            >
              {axle === 'front' ? 'FRONT AXLE' : 'REAR AXLE'}
            </text>
            {rows.map(([name, loads, fill], i) => {
              const load = axle === 'front' ? loads.front_kg : loads.rear_kg
              const wide = (load / most) * 250
              return (
                <g key={name} transform={`translate(-200,${30 + i * 46})`}>
                  <rect width={wide} height="30" fill={fill} stroke="var(--color-ink)" />
                  {Array.from({ length: Math.floor(load / 50) }, (_, n) => (
                    <path
                      key={n}
                      d={`M${((n + 1) * 50 * 250) / most},30 v${(n + 1) % 2 ? -5 : -9}`}
                      stroke={i ? '#fff' : 'var(--color-ink)'}
                    />
                  ))}
                  <text x={wide + 10} y="22" fontSize="20" fontWeight="700">
                    {mass(load, units.mass)}
                  </text>
                  <text x={wide + 104} y="22" fontSize="13">
                    {name}
                  </text>
                </g>
              )
            })}
          </g>
        )
      })}
      <path d="M8,136 H852" stroke="var(--color-ink)" strokeWidth="2" />
    </svg>
  )
}
