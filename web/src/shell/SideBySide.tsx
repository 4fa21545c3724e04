/** Cars beside each other by what decides between them: variants, or one car then and now. */
import { Hint } from '../ui/Hint'
import type { Variant } from '../design/types'
import { figure, mass, sentence } from '../ui/format'
import { Mark } from '../ui/Mark'
import { useUnits } from '../ui/units'

const NONE = '–'

export function SideBySide({
  label,
  cars,
  nameOf,
}: {
  label: string
  cars: readonly Variant[]
  nameOf: (car: Variant) => React.ReactNode
}) {
  const units = useUnits()
  const kg = (value: number | null) => (value === null ? NONE : mass(value, units.mass))
  const worst = (row: Variant['figures']['worst_gap'], short: (value: NonNullable<typeof row>) => string) =>
    row ? (
      <Hint words={sentence(row, units)}>
        <span className="inline-flex items-baseline gap-1.5">
          <Mark state={row.state} />
          <span>{short(row)}</span>
        </span>
      </Hint>
    ) : (
      NONE
    )
  const rows: [string, (v: Variant) => React.ReactNode][] = [
    ['Ready for the road', ({ figures: f }) => kg(f.total_kg)],
    ['Front axle', ({ figures: f }) => kg(f.front_kg)],
    ['Rear axle', ({ figures: f }) => kg(f.rear_kg)],
    ['Modules', ({ figures: f }) => f.modules],
    ['Worst gap', ({ figures: f }) => worst(f.worst_gap, (row) => sentence(row, units))],
    [
      'Weakest mount',
      ({ figures: f }) => worst(f.worst_mount, (row) => row.figures.map((use) => figure(use, units)).join()),
    ],
  ]
  return (
    <div className="my-2 overflow-x-auto">
      <table aria-label={label} className="border-collapse">
        <thead>
          <tr>
            <th scope="col" className="text-left text-sm font-semibold text-soft">
              by
            </th>
            {cars.map((v) => (
              <th
                key={`${v.id} ${v.revision}`}
                scope="col"
                className="border-l border-hair px-3 text-left align-top"
              >
                {nameOf(v)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, of]) => (
            <tr key={name} className="border-t border-hair align-top">
              <th scope="row" className="narrow py-1 pr-3 text-left font-normal whitespace-nowrap">
                {name}
              </th>
              {cars.map((v) => (
                <td
                  key={`${v.id} ${v.revision}`}
                  className="min-w-[150px] border-l border-hair px-3 py-1 font-semibold"
                >
                  {of(v)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
