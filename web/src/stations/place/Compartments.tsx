/** What parts the modules of a block, of what, and by which side each compartment blows off. */
import { useDocument, useLive, useLoaded } from '../../design/live'
import { relieved } from '../../design/orders'
import type { Block } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Button } from '../../ui/parts'
import { FACES, type FaceName } from '../box/OnFace'

const EVERY = [1, 2, 3, 4, 5, 6, 8, 10]
const WAYS = [
  ['aft', 'along'],
  ['across', 'across'],
  ['up', 'up, between tiers'],
] as const

interface Parted {
  box: string
  name: string
  block: Block
}

export function Compartments({ box, name, block }: Parted) {
  const edit = useLive((s) => s.edit)
  const path = `/boxes/${box}/blocks/${name}`
  const dividers = block.dividers
  function parted(along: string) {
    const fresh = { every: 1, thickness_mm: 2, material: null, relief: null }
    const value = along ? { ...fresh, ...dividers, along } : null
    void edit([{ op: 'replace', path: `${path}/dividers`, value }])
  }
  return (
    <>
      <Choose
        label="Turn every second about"
        value={block.alternate ?? ''}
        options={[['', 'no'], ...WAYS]}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/alternate`, value: value || null }])}
      />
      <Choose
        label="Dividers"
        value={dividers?.along ?? ''}
        options={[['', 'none'], ...WAYS]}
        onChange={parted}
      />
      {dividers && <Parting box={box} name={name} block={block} dividers={dividers} />}
    </>
  )
}

function Parting({ box, name, dividers }: Parted & { dividers: NonNullable<Block['dividers']> }) {
  const { project } = useLoaded()
  const liners = useDocument().tables.liners ?? {}
  const edit = useLive((s) => s.edit)
  const { ask, problem } = useAsked()
  const path = `/boxes/${box}/blocks/${name}/dividers`
  function of(key: string) {
    const row = liners[key]
    void edit([
      { op: 'replace', path: `${path}/material`, value: key || null },
      ...(row ? [{ op: 'replace', path: `${path}/thickness_mm`, value: row.thickness_mm } as const] : []),
    ])
  }
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Choose
          label="after every"
          value={String(dividers.every)}
          options={EVERY.map((n) => [String(n), String(n)] as const)}
          onChange={(n) => void edit([{ op: 'replace', path: `${path}/every`, value: Number(n) }])}
        />
        <Blank path={`${path}/thickness_mm`} label="thick" />
      </div>
      <Choose
        label="Dividers of"
        value={dividers.material ?? ''}
        options={[
          ['', 'the box’s own sheet'],
          ...Object.entries(liners).map(([key, row]) => [key, row.name] as const),
        ]}
        onChange={of}
      />
      <Choose
        label="Each blows off on the"
        value={dividers.relief ?? ''}
        options={[['' as FaceName | '', 'nobody has said'], ...FACES]}
        onChange={(face) => void edit([{ op: 'replace', path: `${path}/relief`, value: face || null }])}
      />
      {dividers.relief && (
        <Button plain onClick={() => void ask(() => relieved(project, box, name))}>
          Put a relief in each
        </Button>
      )}
      {problem && (
        <p role="alert" className="m-0 text-foul">
          {problem}
        </p>
      )}
    </>
  )
}
