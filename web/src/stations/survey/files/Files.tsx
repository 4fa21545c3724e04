/** Spaces and things from files: scans as triangle meshes, closed outlines from drawings. */
import { useDocument } from '../../../design/live'
import { Heading } from '../../../ui/parts'
import { Outlines } from './Outlines'
import { ScanIn, ScanRow } from './Scans'
import { useBase } from '../../rows'

export function Files() {
  const { items } = useDocument()
  const { base, pick } = useBase()
  const scans = Object.entries(items).filter(([, item]) => item.solid?.type === 'mesh')
  return (
    <>
      <Heading>A scan (STL, OBJ, PLY or GLB, up to 50 MB)</Heading>
      <p className="my-1 max-w-[620px] text-sm">
        It is simplified to the tolerance you state, and every clearance to it counts that tolerance against
        you.
      </p>
      <ScanIn />
      {scans.length > 0 && (
        <>
          <Heading right={scans.length}>Scans in this car</Heading>
          {pick}
          {scans.map(([id, item]) => (
            <ScanRow key={id} id={id} item={item} base={base} />
          ))}
        </>
      )}
      <Heading>Closed outlines (DXF)</Heading>
      <p className="my-1 max-w-[620px] text-sm">
        As a section of a space, drawn across (x) and up (y), or as an outline in plan, drawn aft (x) and
        right (y).
      </p>
      <Outlines />
    </>
  )
}
