/** Undo and redo, showing the place that they changed. */
import { useCallback } from 'react'
import { useNavigate } from 'react-router'

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
  const go = useNavigate()
  return useCallback(
    async (kind: 'undo' | 'redo') => {
      const path = await useLive.getState().step(kind)
      const [, collection = '', id] = path?.split('/') ?? []
      if (!id) return
      const here = location.pathname.split('/')[3] ?? 'place'
      const there =
        collection === 'boxes' ? (SHOW_BOXES.includes(here) ? here : 'place') : (STATION[collection] ?? here)
      useChoice.getState().select(`${collection}/${id}`)
      if (there !== here) void go(`/car/${project}/${there}`)
    },
    [go, project],
  )
}
