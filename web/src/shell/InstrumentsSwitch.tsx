/** Takes the instruments out and puts them away. */
import { useHeld } from '../design/instruments'
import { Link } from '../ui/parts'

export function InstrumentsSwitch() {
  const open = useHeld((s) => s.open)
  return (
    <Link
      aria-pressed={open}
      title="Scales, distance meter, voltmeter"
      onClick={() => useHeld.setState({ open: !open, armed: null })}
    >
      instruments
    </Link>
  )
}
