/** Where on a crossmember a mount lands. */
import { useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Tick } from '../../../ui/Tick'

import { AlongTheBar } from './AlongTheBar'

type OnCrossmember = Extract<Mount['lands_on'], { type: 'crossmember' }>

const SIDES = [
  ['top', 'on its top'],
  ['under', 'under it'],
] as const

export function OnTheBar({ path, on }: { path: string; on: OnCrossmember }) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <AlongTheBar path={path} bar={{ kind: 'crossmember', id: on.crossmember }} at={on.along_mm} />
      <Blank path={`${path}/lands_on/along_mm`} label="From the crossmember’s first hard point" />
      <Choose
        label="It stands"
        value={on.top ? 'top' : 'under'}
        options={SIDES}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/lands_on/top`, value: v === 'top' }])}
      />
    </>
  )
}

export function Sleeve({ path, sleeve }: { path: string; sleeve: boolean }) {
  const edit = useLive((s) => s.edit)
  return (
    <Tick
      label="in a sleeve that keeps the tube’s walls apart"
      value={sleeve}
      onChange={(value) => void edit([{ op: 'replace', path, value }])}
    />
  )
}
