/** How true the welds of a box are kept: the core leaves so much room inside for their pull. */
import { useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Choose } from '../../../ui/Choose'
import { WELDS } from '../../welds'

export function Welds({ path, box }: { path: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  return (
    <Choose
      label="Welded true to (ISO 13920)"
      value={box.weld_class ?? ''}
      options={WELDS}
      onChange={(v) => void edit([{ op: 'replace', path: `${path}/weld_class`, value: v || null }])}
    />
  )
}
