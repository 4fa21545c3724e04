/** What a bolt lands on: a plate with a captive nut behind the vehicle's sheet, or a sleeve in a closed section. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { Tick } from '../../../ui/Tick'

type OnHardPoint = Extract<Mount['lands_on'], { type: 'hardpoint' }>

export function BehindTheSheet({ path, on }: { path: string; on: OnHardPoint }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const put = (field: string, value: unknown) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  const plate = on.backing
  return (
    <>
      <Heading>Behind the vehicle&apos;s metal</Heading>
      <Tick
        label="sleeve between the walls of a closed section"
        value={on.sleeve ?? false}
        onChange={(v) => put('sleeve', v)}
      />
      {plate ? (
        <>
          <Blank path={`${path}/backing/size_mm/0`} label="Backing plate long" />
          <Blank path={`${path}/backing/size_mm/1`} label="Wide" />
          <Blank path={`${path}/backing/thickness_mm`} label="Thick" />
          <Choose
            label="Of"
            value={plate.material ?? ''}
            options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
            onChange={(v) => put('backing/material', v)}
          />
          <Blank path={`${path}/backing/entry_mm`} label="Passed in by a hole of (empty: not said)" />
          <Tick
            label="an end bent, so that it cannot fall in or turn"
            value={plate.stop ?? true}
            onChange={(v) => put('backing/stop', v)}
          />
          <Button plain onClick={() => put('backing', null)}>
            No backing plate
          </Button>
        </>
      ) : (
        <Button plain onClick={() => put('backing', {})}>
          A backing plate with a captive nut
        </Button>
      )}
    </>
  )
}
