/** How true the welds of a box are kept, for the core leaves so much room inside for their pull, and with what. */
import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Choose } from '../../../ui/Choose'
import { WELDS } from '../../welds'

export function Welds({ path, box }: { path: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const fillers = Object.entries(useDocument().tables.fillers ?? {})
  return (
    <>
      <Choose
        label="Welded true to (ISO 13920)"
        value={box.weld_class ?? ''}
        options={WELDS}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/weld_class`, value: v || null }])}
      />
      <Choose
        label="Welded with"
        value={box.filler ?? ''}
        options={[['', 'nobody has said'], ...fillers.map(([key, row]) => [key, row.name] as const)]}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/filler`, value: v || null }])}
      />
    </>
  )
}
