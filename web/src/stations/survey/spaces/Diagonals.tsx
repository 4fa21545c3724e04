/** Check diagonals: the tape from one corner to another, the misfit, and the angle it implies. */
import { useAnalysis, useLive } from '../../../design/live'
import { freeId } from '../../../design/pointer'
import type { Bay } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { length } from '../../../ui/format'
import { Choose } from '../../../ui/Choose'
import { Button, Heading, Link } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'

const CORNERS = [
  ['left_floor', 'left floor'],
  ['right_floor', 'right floor'],
  ['left_top', 'left top'],
  ['right_top', 'right top'],
] as const

export function Diagonals({ id, bay }: { id: string; bay: Bay }) {
  const edit = useLive((s) => s.edit)
  const figures = useAnalysis().bays[id]?.diagonals ?? []
  const units = useUnits('survey')
  const path = `/bays/${id}/diagonals`
  const order = Object.keys(bay.stations).sort(
    (a, b) => (bay.stations[a]?.aft_mm ?? 0) - (bay.stations[b]?.aft_mm ?? 0),
  )
  const corners = order.flatMap((station, n) =>
    CORNERS.map(([corner, words]) => [`${station}/${corner}`, `station ${n + 1}, ${words}`] as const),
  )
  function add() {
    const one = { station: order[0], corner: 'left_floor' }
    const other = { station: order[0], corner: 'right_top' }
    void edit([
      {
        op: 'add',
        path: `${path}/${freeId('diagonal', bay.diagonals)}`,
        value: { one, other },
      },
    ])
  }
  return (
    <section aria-label="Check diagonals">
      <Heading>Check diagonals</Heading>
      {Object.entries(bay.diagonals).map(([key, row]) => {
        const found = figures.find((f) => f.id === key)
        return (
          <div key={key} className="border-b border-hair py-1">
            {(['one', 'other'] as const).map((end) => (
              <Choose
                key={end}
                label={end === 'one' ? 'From' : 'To'}
                value={`${row[end].station}/${row[end].corner}`}
                options={corners}
                onChange={(v) => {
                  const [station, corner] = v.split('/')
                  void edit([{ op: 'replace', path: `${path}/${key}/${end}`, value: { station, corner } }])
                }}
              />
            ))}
            <Blank path={`${path}/${key}/length_mm`} label="The tape reads" list="survey" optional />
            <p className="m-0 flex justify-between text-sm">
              {found ? (
                <span>
                  misses by <strong>{length(Math.abs(found.misfit_mm), units.length)}</strong>
                  {found.out_of_square_deg !== null &&
                    `: ${Math.abs(found.out_of_square_deg).toFixed(1)}° out of square`}
                </span>
              ) : (
                <span>not taken yet</span>
              )}
              <Link onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}>remove</Link>
            </p>
          </div>
        )
      })}
      <Button plain className="mt-1" onClick={add}>
        A check diagonal
      </Button>
    </section>
  )
}
