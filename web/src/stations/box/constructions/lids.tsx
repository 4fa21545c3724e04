/** What lids of several constructions have in common: the edge they swing on, and what they are of. */
import { useLive } from '../../../design/live'
import { Choose } from '../../../ui/Choose'
import { EDGES, type FaceName } from '../OnFace'

export function SwingsOn({ path, face, hinge }: { path: string; face: FaceName; hinge?: string | null }) {
  const edit = useLive((s) => s.edit)
  return (
    <Choose
      label="It"
      value={hinge ?? ''}
      options={[
        ['', 'comes off'],
        ...EDGES[face].flat().map((edge) => [edge, `swings on its ${edge} edge`] as const),
      ]}
      onChange={(v) => void edit([{ op: 'replace', path: `${path}/hinge`, value: v || null }])}
    />
  )
}

const METAL_OR_WINDOW = [
  ['sheet', 'the box’s own metal'],
  ['window', 'clear polycarbonate, a window'],
] as const

export function WindowOf({ path, window }: { path: string; window: boolean }) {
  const edit = useLive((s) => s.edit)
  return (
    <Choose
      label="Of"
      value={window ? 'window' : 'sheet'}
      options={METAL_OR_WINDOW}
      onChange={(of) => void edit([{ op: 'replace', path: `${path}/window`, value: of === 'window' }])}
    />
  )
}
