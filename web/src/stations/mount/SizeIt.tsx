/** Size it: the lightest of its kind that hold where a mount stands, or why none does. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useLive, useLoaded } from '../../design/live'
import { sizesQuery } from '../../design/queries'
import type { Op } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { massUp, sentence, utilisation } from '../../ui/format'
import { InSight } from '../../ui/InSight'
import { Button, Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'

/** One that is foul is asked for at once, but not while it is in the hand: the answer would come under it. */
export function SizeIt({ id, foul }: { id: string; foul: boolean }) {
  const [asked, ask] = useState(false)
  const held = useLive((s) => s.preview !== null)
  return (
    <section aria-label="Size it" className="mt-4">
      <Heading>Size it</Heading>
      {asked || (foul && !held) ? (
        <InSight>
          <Sizes id={id} />
        </InSight>
      ) : (
        <Button plain onClick={() => ask(true)}>
          The lightest that holds here
        </Button>
      )}
    </section>
  )
}

function Sizes({ id }: { id: string }) {
  const { project } = useLoaded()
  const settled = useSettled()
  const edit = useLive((s) => s.edit)
  const units = useUnits()
  const { data, error } = useQuery({ ...sizesQuery(project, settled ?? 0, id), enabled: settled !== null })
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!data) return <p role="status">Trying sizes …</p>
  if (data.why) return <p className="m-0">{sentence(data.why, units)}.</p>
  return (
    <>
      <p className="narrow m-0 text-sm text-soft">It weighs {massUp(data.now_kg, units.mass)} now.</p>
      {data.sizes.map((row) => (
        <div
          key={row.message}
          className="my-1 flex items-start justify-between gap-2 border-b border-hair pb-1"
        >
          <span className="leading-snug">
            {massUp(row.mass_kg, units.mass)}: {row.message}
            <span className="narrow block text-sm text-soft">
              use {utilisation(row.utilisation)}: {row.governs}
            </span>
          </span>
          <Button plain className="shrink-0" onClick={() => void edit(row.patch as Op[])}>
            Make it so
          </Button>
        </div>
      ))}
    </>
  )
}
