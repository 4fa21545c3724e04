/** Takes the instruments out and puts them away. */
import { useHeld } from '../design/instruments'
import { Hint } from '../ui/Hint'
import { Link } from '../ui/parts'

export function InstrumentsSwitch() {
  const open = useHeld((s) => s.open)
  return (
    <Hint words="Scales, distance meter, voltmeter">
      <Link aria-pressed={open} onClick={() => useHeld.setState({ open: !open, armed: null })}>
        instruments
      </Link>
    </Hint>
  )
}
