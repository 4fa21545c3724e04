/** The stations in working order, each with its number key, and the screen of each. Those to come keep their numbers free. */
import { type ComponentType, lazy } from 'react'

import { patiently } from '../design/away'

export const STATIONS = [
  ['survey', 'Survey', 1],
  ['stock', 'Stock', 2],
  ['place', 'Place', 3],
  ['box', 'Box', 4],
  ['mount', 'Mount', 5],
  ['level', 'Level', 6],
  ['drawings', 'Drawings', 9],
] as const
export type Station = (typeof STATIONS)[number][0]

const LOAD = {
  survey: () => import('../stations/survey/Survey').then((m) => ({ default: m.Survey })),
  stock: () => import('../stations/stock/Stock').then((m) => ({ default: m.Stock })),
  place: () => import('../stations/place/Place').then((m) => ({ default: m.Place })),
  box: () => import('../stations/box/BoxStation').then((m) => ({ default: m.BoxStation })),
  mount: () => import('../stations/mount/MountStation').then((m) => ({ default: m.MountStation })),
  level: () => import('../stations/level/Level').then((m) => ({ default: m.Level })),
  drawings: () => import('../stations/drawings/Drawings').then((m) => ({ default: m.Drawings })),
}
export const SCREENS: Record<Station, ComponentType> = {
  survey: lazy(() => patiently(LOAD.survey)),
  stock: lazy(() => patiently(LOAD.stock)),
  place: lazy(() => patiently(LOAD.place)),
  box: lazy(() => patiently(LOAD.box)),
  mount: lazy(() => patiently(LOAD.mount)),
  level: lazy(() => patiently(LOAD.level)),
  drawings: lazy(() => patiently(LOAD.drawings)),
}

/** Every screen is fetched while the server is there: it may be away by the time one is asked for. */
export function loadAll() {
  for (const load of Object.values(LOAD)) load().catch(() => undefined)
}

export function isStation(name: string | undefined): name is Station {
  return STATIONS.some(([key]) => key === name)
}
