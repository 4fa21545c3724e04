/** The welds of a bracket compared: its edges alone, with one across its end, with plugs; which can be left out. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useLive, useLoaded } from '../../design/live'
import { weldsQuery } from '../../design/queries'
import type { Op } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { sentence, utilisation } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { Button } from '../../ui/parts'
import { useUnits } from '../../ui/units'

export function WeldsCompared({ id }: { id: string }) {
  const [asked, ask] = useState(false)
  return asked ? (
    <Compared id={id} />
  ) : (
    <Button plain onClick={() => ask(true)}>
      Which welds it needs
    </Button>
  )
}

function Compared({ id }: { id: string }) {
  const { project } = useLoaded()
  const settled = useSettled()
  const edit = useLive((s) => s.edit)
  const units = useUnits()
  const { data, error } = useQuery({ ...weldsQuery(project, settled ?? 0, id), enabled: settled !== null })
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!data) return <p role="status">Comparing welds …</p>
  return (
    <ul aria-label="Which welds it needs" className="m-0 list-none border-t border-hair p-0">
      {data.map((row) => (
        <li
          key={row.words}
          className="flex items-center justify-between gap-2 border-b border-hair py-1 leading-tight"
        >
          <span>
            {row.words}
            {row.enough && <b> · enough</b>}
            <span className="narrow block text-sm text-soft">
              {row.why ? sentence({ message: row.why, figures: [] }, units) : row.governs}
            </span>
          </span>
          <span className="flex shrink-0 items-center gap-2">
            <b className="text-figure">{row.utilisation !== null && utilisation(row.utilisation)}</b>
            <Mark state={row.state} />
            {row.now ? (
              <span className="narrow text-sm text-soft">so now</span>
            ) : (
              <Button plain onClick={() => void edit(row.patch as Op[])}>
                Take it
              </Button>
            )}
          </span>
        </li>
      ))}
    </ul>
  )
}
