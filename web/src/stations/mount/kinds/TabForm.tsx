/** A flat tab on a wall, beyond one of its edges: its plate, what holds it, its bolt. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { BoltForm } from './BoltForm'
import { Joined } from './Joined'

const BLANKS = [
  ['thickness_mm', 'Thickness'],
  ['width_mm', 'Width'],
  ['toe_mm', 'Bolt to its free end'],
  ['long_mm', 'Bolt to its end on the box'],
  ['packing_mm', 'Packing under it, on the vehicle'],
] as const

export function TabForm({ path, mount }: { path: string; mount: Mount }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  if (mount.shape.type !== 'tab') return null
  return (
    <>
      <Heading>Tab</Heading>
      <p className="narrow m-0 text-sm text-soft">
        {mount.face === 'base'
          ? 'Flat under a tube of the box’s frame and on the vehicle’s metal, beyond an edge of the box.'
          : 'Flat on the box’s wall and on the vehicle’s metal, beyond an edge of the box.'}
      </p>
      {BLANKS.map(([at, label]) => (
        <Blank key={at} path={`${path}/shape/${at}`} label={label} />
      ))}
      <Choose
        label="Material"
        value={mount.shape.material ?? ''}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/shape/material`, value: v }])}
      />
      <BoltForm path={path} hole={mount.shape.hole ?? 'round'} on={mount.lands_on} />
      <Joined path={path} mount={mount} />
    </>
  )
}
