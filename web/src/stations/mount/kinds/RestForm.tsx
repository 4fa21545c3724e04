/** A pad that the box lies on: it pushes, and holds nothing sideways or up. */
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Heading } from '../../../ui/parts'
import { AlongTheBar } from './AlongTheBar'
import { OnTheBar } from './OnTheBar'

export function RestForm({ path, mount }: { path: string; mount: Mount }) {
  return (
    <>
      <Heading>Pad under the base</Heading>
      <p className="narrow m-0 text-sm text-soft">The box lies on it; it holds nothing sideways or up.</p>
      <Blank path={`${path}/shape/pad_mm`} label="Pad is thick" />
      <Blank path={`${path}/shape/length_mm`} label="Long" />
      <Blank path={`${path}/shape/width_mm`} label="Wide" />
      <Blank path={`${path}/shape/bears_mpa`} label="Its material bears (MPa)" kind="number" />
      {mount.lands_on.type === 'member' && (
        <>
          <AlongTheBar
            path={path}
            bar={{ kind: 'member', id: mount.lands_on.member }}
            at={mount.lands_on.along_mm}
          />
          <Blank path={`${path}/lands_on/along_mm`} label="From the start of the member" />
        </>
      )}
      {mount.lands_on.type === 'crossmember' && <OnTheBar path={path} on={mount.lands_on} />}
    </>
  )
}
