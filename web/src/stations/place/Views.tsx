/** What the Place station shows. */
import { useChoice, type Shows } from '../../design/choice'
import { OneOf } from '../../ui/Toggles'

const SHOWS = [
  ['drawing', 'Drawing'],
  ['fit', 'How many fit?'],
  ['walk', 'Walk round'],
] as const

export function Views() {
  const shows = useChoice((s) => s.shows)
  const show = useChoice((s) => s.show)
  return (
    <div className="mb-3">
      <OneOf label="Place shows" value={shows} options={SHOWS} onChange={(v) => show(v as Shows)} />
    </div>
  )
}
