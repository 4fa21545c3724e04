/** What a bolt lands on: a plate with a captive nut behind the vehicle's sheet, or a sleeve in a closed section. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { Tick } from '../../../ui/Tick'

type OnHardPoint = Extract<Mount['lands_on'], { type: 'hardpoint' }>

/** An angle may stand on rubber. */
function OnRubber({ path, isolator }: { path: string; isolator: OnHardPoint['isolator'] | null }) {
  const edit = useLive((s) => s.edit)
  const put = (value: unknown, field = '') => void edit([{ op: 'replace', path: `${path}${field}`, value }])
  if (!isolator)
    return (
      <Button plain onClick={() => put({ stiffness_n_per_mm: 1000 })}>
        An isolator under it
      </Button>
    )
  return (
    <>
      <Blank path={`${path}/thick_mm`} label="Isolator thick" />
      <Blank path={`${path}/stiffness_n_per_mm`} label="Gives 1 mm for, N, as its maker says" kind="number" />
      <Blank path={`${path}/travel_mm`} label="Moves to its stop" />
      <Tick
        label="its bolt and washers hold when the rubber is torn"
        value={isolator.captive}
        onChange={(v) => put(v, '/captive')}
      />
      <Button plain onClick={() => put(null)}>
        No isolator
      </Button>
    </>
  )
}

export function BehindTheSheet({ path, on, angle }: { path: string; on: OnHardPoint; angle: boolean }) {
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
      {angle && <OnRubber path={`${path}/isolator`} isolator={on.isolator ?? null} />}
    </>
  )
}
