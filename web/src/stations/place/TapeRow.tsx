/** The tape between two things: shortest distance and its aft, across and up parts. */
import { useQuery } from '@tanstack/react-query'

import { useChoice } from '../../design/choice'
import { useDocument, useLoaded } from '../../design/live'
import { at } from '../../design/pointer'
import { tapeQuery } from '../../design/queries'
import { axisWord, gap } from '../../ui/format'
import { Button, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { MakeIt } from './MakeIt'

export function TapeRow() {
  const taping = useChoice((s) => s.taping)
  const tape = useChoice((s) => s.tape)
  const selected = useChoice((s) => s.selected)
  const document = useDocument()
  const { project, revision } = useLoaded()
  const units = useUnits()
  const [one, other] = taping ?? []
  const { data, error } = useQuery(tapeQuery(project, revision, one, other))
  const name = (path: string | undefined) => (at(document, `/${path}/name`) as string | undefined) ?? path
  if (!taping)
    return (
      <p className="mt-4">
        <Button
          plain
          onClick={() =>
            tape(
              selected?.startsWith('boxes/')
                ? [selected.split('#')[0]?.replace(/\/blocks\/.*$/, '') ?? selected]
                : [],
            )
          }
        >
          Tape between two things (T)
        </Button>
      </p>
    )
  return (
    <section aria-label="Tape" className="mt-3 rounded border border-blue bg-wash p-3">
      <Heading right={<Link onClick={() => tape(null)}>put away</Link>}>Tape</Heading>
      {!one && <p className="m-0">Press the first thing.</p>}
      {one && !other && <p className="m-0">From {name(one)}: press the second thing.</p>}
      {error && <p role="alert">{error.message}</p>}
      {data && (
        <p className="m-0" role="status">
          {name(one)} to {name(other)}:{' '}
          <strong className="text-figure">{gap(data.distance_mm, units.length)}</strong>
          <span className="block">
            {data.parts_mm
              .map(
                (v, axis) =>
                  `${gap(Math.abs(v), units.length, 'near')} ${axis === 2 ? (v < 0 ? 'down' : 'up') : axisWord(axis, v)}`,
              )
              .join(' · ')}
          </span>
        </p>
      )}
      {data && one && other && <MakeIt one={one} other={other} />}
    </section>
  )
}
