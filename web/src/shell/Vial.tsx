/**
 * The level vial. With four corner loads it is round and the bubble goes to the light side: the ring is 1 % of the
 * mass, the rim 5 %. With axle readings alone it is a straight tube: left and right were not weighed.
 */
import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useAnalysis, useLoaded } from '../design/live'
import type { Lean, Loads } from '../design/types'
import { mass } from '../ui/format'
import { useUnits } from '../ui/units'

const RIM_SHARE = 5
const RADIUS = 29

export function Vial() {
  const analysis = useAnalysis()
  const { project } = useLoaded()
  const goTo = useGoTo(project)
  const units = useUnits()
  const loads = analysis.level.ready
  const lean = analysis.level.lean
  const shown = (kg: number) =>
    units.mass === 'kg' ? String(Math.round(kg)) : mass(kg, 'lb').replace(/\.\d lb/, '')
  const corners = loads?.corners
  const words = lean?.words ?? 'not weighed'
  const label = !loads
    ? 'Level: the car was not weighed'
    : corners
      ? `Level: left front ${shown(corners.lf_kg)}, right front ${shown(corners.rf_kg)}, left rear ${shown(corners.lr_kg)}, right rear ${shown(corners.rr_kg)}; ${words}`
      : `Level: front ${shown(loads.front_kg)}, rear ${shown(loads.rear_kg)}; ${words}`
  return (
    <button
      type="button"
      onClick={() => goTo('level', useChoice.getState().selected)}
      className="flex w-[146px] shrink-0 flex-col items-center justify-center"
      data-vial={words}
    >
      <span className="sr-only">{label}</span>
      {loads && corners ? (
        <svg aria-hidden="true" width="146" height="60" viewBox="0 0 146 60">
          <Round lean={lean as Lean} />
          {/* The nose is at the left, as in plan: right of the car is upward. */}
          {[
            [corners.rf_kg, 36, 20, 'end'],
            [corners.lf_kg, 36, 50, 'end'],
            [corners.rr_kg, 110, 20, 'start'],
            [corners.lr_kg, 110, 50, 'start'],
          ].map(([kg, x, y, anchor]) => (
            <text
              key={`${x}${y}`}
              x={x as number}
              y={y as number}
              textAnchor={anchor as 'end'}
              fontSize="14"
              fontWeight="650"
            >
              {shown(kg as number)}
            </text>
          ))}
        </svg>
      ) : (
        <Tube loads={loads} lean={lean} shown={shown} />
      )}
      <span aria-hidden="true" className="narrow text-xs leading-3">
        {words}
      </span>
    </button>
  )
}

/** The bubble in plan: nose at the left. It floats to the light side. */
function Round({ lean }: { lean: Lean }) {
  const scale = (RADIUS - 6) / RIM_SHARE
  const [dx, dy] = [-lean.rear_percent * scale, lean.right_percent * scale]
  const far = Math.hypot(dx, dy)
  const most = RADIUS - 8
  const [x, y] = far > most ? [(dx * most) / far, (dy * most) / far] : [dx, dy]
  return (
    <g transform="translate(73,30)">
      <defs>
        <radialGradient id="vial-glass" cx=".4" cy=".35" r=".8">
          <stop offset="0" stopColor="#e9f0c2" />
          <stop offset="1" stopColor="#a9bf5a" />
        </radialGradient>
      </defs>
      <circle r={RADIUS} fill="url(#vial-glass)" stroke="#465056" strokeWidth="4" />
      <circle r={scale + 5} fill="none" stroke="#465056" strokeWidth="1.2" />
      <path
        d={`M${-RADIUS},0 h7 M${RADIUS},0 h-7 M0,${-RADIUS} v7 M0,${RADIUS} v-7`}
        stroke="#465056"
        strokeWidth="1"
      />
      <circle
        cx={x}
        cy={y}
        r="7.5"
        fill="#fbfdf0"
        stroke="#465056"
        strokeWidth="1.4"
        data-bubble={`${x.toFixed(1)},${y.toFixed(1)}`}
      />
    </g>
  )
}

function Tube({
  loads,
  lean,
  shown,
}: {
  loads: Loads | null
  lean: Lean | null
  shown: (kg: number) => string
}) {
  const x = lean ? Math.max(-34, Math.min(34, (-lean.rear_percent * 34) / RIM_SHARE)) : 0
  return (
    <svg aria-hidden="true" width="146" height="54" viewBox="0 0 146 54">
      <rect x="24" y="22" width="98" height="22" rx="11" fill="#c3d183" stroke="#465056" strokeWidth="3" />
      <path d="M62,22 v22 M84,22 v22" stroke="#465056" strokeWidth="1.2" />
      {loads && (
        <ellipse cx={73 + x} cy="33" rx="11" ry="7" fill="#fbfdf0" stroke="#465056" strokeWidth="1.2" />
      )}
      {loads && (
        <>
          <text x="24" y="16" fontSize="14" fontWeight="650">
            {shown(loads.front_kg)}
          </text>
          <text x="122" y="16" fontSize="14" fontWeight="650" textAnchor="end">
            {shown(loads.rear_kg)}
          </text>
        </>
      )}
    </svg>
  )
}
