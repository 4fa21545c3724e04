/** By whose rules the crash cases are: one set at a time, exchanged as one edit. */
import { useQuery } from '@tanstack/react-query'

import { wordsOf } from '../../design/api'
import { useLive, useLoaded } from '../../design/live'
import { loadSetsQuery } from '../../design/queries'
import type { Op } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { Choose } from '../../ui/Choose'

export function CrashCases() {
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const settled = useSettled()
  const { data, error } = useQuery({ ...loadSetsQuery(project, settled ?? 0), enabled: settled !== null })
  if (error) return <p role="alert">{wordsOf(error)}</p>
  if (!data) return null
  const now = data.find((set) => set.now)
  return (
    <Choose
      label="Crash cases by"
      value={now?.id ?? ''}
      options={[
        ...(now ? [] : [['', 'the shop’s own table'] as const]),
        ...data.map((set) => [set.id, set.words] as const),
      ]}
      onChange={(id) => {
        const patch = data.find((set) => set.id === id)?.patch
        if (patch) void edit(patch as Op[])
      }}
    />
  )
}
