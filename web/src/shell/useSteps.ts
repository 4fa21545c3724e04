/** Undo and redo, showing the place that they changed. */
import { useCallback } from 'react'

import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useLive } from '../design/live'

/** Where a collection is looked at; boxes are seen in several stations, so the one on the screen stays. */
const STATION: Record<string, string> = {
  mounts: 'mount',
  module_kinds: 'stock',
  modules: 'stock',
  items: 'survey',
  bays: 'survey',
  keepouts: 'survey',
  hardpoints: 'survey',
  references: 'survey',
}
const SHOW_BOXES = ['place', 'box', 'mount', 'drawings']

export function useSteps(project: string) {
  const goTo = useGoTo(project)
  return useCallback(
    async (kind: 'undo' | 'redo') => {
      const path = await useLive.getState().step(kind)
      const [, collection = '', id] = path?.split('/') ?? []
      if (!id) return
      const here = location.pathname.split('/')[3] ?? 'place'
      const there =
        collection === 'boxes' ? (SHOW_BOXES.includes(here) ? here : 'place') : (STATION[collection] ?? here)
      const changed = `${collection}/${id}`
      if (there !== here) goTo(there, changed)
      useChoice.getState().select(changed)
    },
    [goTo],
  )
}
