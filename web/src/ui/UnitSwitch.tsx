/** Units of the list on the screen: millimetres or inches, kilograms or pounds. Kept in the document. */
import { useParams } from 'react-router'

import { useLive } from '../design/live'
import { useUnits } from './units'

export function UnitSwitch() {
  const { station: here } = useParams()
  const list = here === 'survey' ? 'survey' : here === 'stock' ? 'stock' : 'place'
  const units = useUnits(list)
  const edit = useLive((s) => s.edit)
  function turn(key: string, value: string) {
    void edit([{ op: 'replace', path: `/units/${key}`, value }])
  }
  return (
    <span className="flex items-center gap-2 text-xs" role="group" aria-label={`Units of this list`}>
      <Pair options={['mm', 'in']} value={units.length} onChange={(v) => turn(list, v)} />
      <Pair options={['kg', 'lb']} value={units.mass} onChange={(v) => turn('mass', v)} />
    </span>
  )
}

function Pair({
  options,
  value,
  onChange,
}: {
  options: [string, string]
  value: string
  onChange: (value: string) => void
}) {
  return (
    <span className="inline-flex overflow-hidden rounded border border-steel">
      {options.map((option) => (
        <button
          key={option}
          type="button"
          aria-pressed={option === value}
          onClick={() => option !== value && onChange(option)}
          className={`px-1.5 leading-[18px] ${option === value ? 'bg-ink font-semibold text-white' : 'bg-white/60'}`}
        >
          {option}
        </button>
      ))}
    </span>
  )
}
