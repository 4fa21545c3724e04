/** The bolt of a mount on the vehicle, and what is behind the metal there. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { BehindTheSheet } from './BehindTheSheet'
import { OnTheBar, Sleeve } from './OnTheBar'

const HOLES = [
  ['round', 'round'],
  ['oversize', 'oversize'],
  ['slot along', 'slot along the bend'],
  ['slot across', 'slot across the bend'],
] as const

export function BoltForm({
  path,
  hole,
  on,
  angle = false,
}: {
  path: string
  hole: string
  on: Mount['lands_on']
  /** It may stand on an isolator. */
  angle?: boolean
}) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  if (on.type !== 'hardpoint' && on.type !== 'crossmember') return null
  const put = (field: string, value: string) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  return (
    <>
      <Heading>Bolt</Heading>
      <Choose
        label="Size"
        value={on.bolt.size}
        options={Object.keys(tables.bolts).map((s) => [s, s] as const)}
        onChange={(v) => put('lands_on/bolt/size', v)}
      />
      <Choose
        label="Property class"
        value={on.bolt.property_class}
        options={Object.keys(tables.bolt_classes).map((s) => [s, s] as const)}
        onChange={(v) => put('lands_on/bolt/property_class', v)}
      />
      <Choose
        label="Its hole in the bracket"
        value={hole}
        options={HOLES}
        onChange={(v) => put('shape/hole', v)}
      />
      {on.type === 'hardpoint' ? (
        <BehindTheSheet path={`${path}/lands_on`} on={on} angle={angle} />
      ) : (
        <>
          <OnTheBar path={path} on={on} />
          <Sleeve path={`${path}/lands_on/sleeve`} sleeve={on.sleeve} />
        </>
      )}
    </>
  )
}
