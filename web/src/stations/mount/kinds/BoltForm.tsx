/** The bolt of a mount on the vehicle, and what is behind the metal there. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { BehindTheSheet } from './BehindTheSheet'

export function BoltForm({ path, on }: { path: string; on: Mount['lands_on'] }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  if (on.type !== 'hardpoint') return null
  const put = (field: string, value: string) =>
    void edit([{ op: 'replace', path: `${path}/bolt/${field}`, value }])
  return (
    <>
      <Heading>Bolt</Heading>
      <Choose
        label="Size"
        value={on.bolt.size}
        options={Object.keys(tables.bolts).map((s) => [s, s] as const)}
        onChange={(v) => put('size', v)}
      />
      <Choose
        label="Property class"
        value={on.bolt.property_class}
        options={Object.keys(tables.bolt_classes).map((s) => [s, s] as const)}
        onChange={(v) => put('property_class', v)}
      />
      <BehindTheSheet path={path} on={on} />
    </>
  )
}
