/** Units of the list on the screen: millimetres or inches, kilograms or pounds. Kept in the document. */
import { useParams } from 'react-router'

import { useLive } from '../design/live'
import { Toggles } from './Toggles'
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
      <Pair label="Lengths" options={['mm', 'in']} value={units.length} onChange={(v) => turn(list, v)} />
      <Pair label="Masses" options={['kg', 'lb']} value={units.mass} onChange={(v) => turn('mass', v)} />
    </span>
  )
}

function Pair({
  label,
  options,
  value,
  onChange,
}: {
  label: string
  options: [string, string]
  value: string
  onChange: (value: string) => void
}) {
  return (
    <Toggles
      label={label}
      value={value}
      options={options.map((option) => [option, option] as const)}
      onChange={(option) => option !== value && onChange(option)}
      className="inline-flex overflow-hidden rounded border border-steel"
      look={(pressed) =>
        `px-1.5 leading-[18px] ${pressed ? 'bg-ink font-semibold text-white' : 'bg-white/60'}`
      }
    />
  )
}
