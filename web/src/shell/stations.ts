/** The stations in working order, and the screen of each. */
import { type ComponentType, lazy } from 'react'

export const STATIONS = [
  ['survey', 'Survey'],
  ['stock', 'Stock'],
  ['place', 'Place'],
  ['box', 'Box'],
  ['mount', 'Mount'],
  ['level', 'Level'],
  ['wire', 'Wire'],
  ['flow', 'Flow'],
  ['drawings', 'Drawings'],
  ['build', 'Build'],
] as const
export type Station = (typeof STATIONS)[number][0]

const later = lazy(() => import('../stations/later/Later').then((m) => ({ default: m.Later })))
export const SCREENS: Record<Station, ComponentType> = {
  survey: lazy(() => import('../stations/survey/Survey').then((m) => ({ default: m.Survey }))),
  stock: lazy(() => import('../stations/stock/Stock').then((m) => ({ default: m.Stock }))),
  place: lazy(() => import('../stations/place/Place').then((m) => ({ default: m.Place }))),
  box: lazy(() => import('../stations/box/BoxStation').then((m) => ({ default: m.BoxStation }))),
  mount: lazy(() => import('../stations/mount/MountStation').then((m) => ({ default: m.MountStation }))),
  level: lazy(() => import('../stations/level/Level').then((m) => ({ default: m.Level }))),
  drawings: lazy(() => import('../stations/drawings/Drawings').then((m) => ({ default: m.Drawings }))),
  wire: later,
  flow: later,
  build: later,
}

export function isStation(name: string | undefined): name is Station {
  return STATIONS.some(([key]) => key === name)
}
