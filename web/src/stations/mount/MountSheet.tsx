/** One mount: its uses, its shape's demands, the bracket's blanks, tightening, and what its hard point must carry. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { madeAlike } from '../../design/orders'
import type { Mount, Op } from '../../design/types'
import { newtons, utilisation } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { NameBlank } from '../../ui/NameBlank'
import { Fact, Heading, Link, Title } from '../../ui/parts'
import { SentenceRows } from '../FindingRows'
import { KINDS } from './kinds'
import { SizeIt } from './SizeIt'

export function MountSheet({ id }: { id: string }) {
  const document = useDocument()
  const { supports, findings } = useAnalysis()
  const select = useChoice((s) => s.select)
  const edit = useLive((s) => s.edit)
  const mount = document.mounts[id] as Mount
  const figures = supports.flatMap((s) => s.mounts).find((m) => m.id === id)
  const path = `/mounts/${id}`
  const pressed = figures?.demands.some((d) => d.press_n > 0)
  const { Form } = KINDS[mount.shape.type]
  const [shaped, setShaped] = useState(false)
  const { project } = useLoaded()
  const carries = Object.keys(mount.carries)[0] ?? ''
  const others =
    Object.values(document.mounts).filter((m) => carries in m.carries && m.shape.type === mount.shape.type)
      .length - 1
  const here = findings.filter((f) => f.station === 'mount' && f.subjects.includes(`mounts/${id}`))
  async function remove() {
    if (await edit([{ op: 'remove', path }])) select(null)
  }
  return (
    <>
      <Title right={<Link onClick={() => select(null)}>all mounts</Link>}>{mount.name}</Title>
      <SentenceRows findings={here} />
      <SizeIt id={id} foul={here.some((f) => f.state === 'foul')} />
      {figures && (
        <>
          <Heading right="over all cases and the envelope">Uses, weakest first</Heading>
          {figures.unchecked && (
            <p className="m-0 text-sm font-semibold">Not checked: {figures.unchecked}.</p>
          )}
          {figures.rows.map((row) => (
            <Fact key={row.check} name={`${row.check} · ${row.case}`}>
              <span className="inline-flex items-center gap-2">
                {utilisation(row.utilisation)} <Mark state={row.state} />
              </span>
            </Fact>
          ))}
          <Heading
            right={
              <Link aria-expanded={shaped} onClick={() => setShaped(!shaped)}>
                {shaped ? 'close' : 'change it'}
              </Link>
            }
          >
            Its shape
          </Heading>
          {figures.geometry.map((g) => (
            <p key={g.message} className="m-0 flex items-start gap-2 py-0.5 text-sm">
              <Mark state={g.fits ? 'clear' : 'foul'} /> {g.message}
            </p>
          ))}
          {figures.remarks.length > 0 && (
            <p className="m-0 text-sm">Outside the standard’s range: {figures.remarks.join('; ')}.</p>
          )}
          <Fact name="Tighten to">{figures.torque_nm.toFixed(1)} N·m</Fact>
        </>
      )}
      {(shaped || !figures) && <Form path={path} mount={mount} />}
      {others > 0 && (
        <p className="my-2">
          <Link
            onClick={() => void madeAlike(project, id).then((ops) => ops.length > 0 && edit(ops as Op[]))}
          >
            Make the other {others > 1 ? others : 'one'} of this box like it
          </Link>
        </p>
      )}
      {figures && (
        <>
          <Heading right={pressed ? 'pressed' : 'pull · shear'}>What it lands on must carry</Heading>
          {figures.demands.map((d) => (
            <Fact key={d.case} name={d.case}>
              {(pressed ? [d.press_n] : [d.pull_n, d.shear_n]).map(newtons).join(' · ')} N
            </Fact>
          ))}
          <p className="m-0 text-sm">
            From different solves, never to be combined. No margin is claimed for the vehicle’s own metal.
          </p>
        </>
      )}
      <Heading>Name</Heading>
      <NameBlank path={`${path}/name`} label="Name" />
      <p>
        <Link onClick={() => void remove()}>Remove this mount</Link>
      </p>
    </>
  )
}
