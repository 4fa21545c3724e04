/** A new car: its name, its wheelbase, and what is known of what it weighs. What is typed outlives the page. */
import { type FormEvent, useId, useState } from 'react'
import { useNavigate } from 'react-router'

import { Refused } from '../design/api'
import { newCar, readText } from '../design/queries'
import { keepTyped, typedAt } from '../design/typed'
import type { FoundWeighing } from '../design/types'
import { Button, Heading } from '../ui/parts'

const FIGURES = [
  ['wheelbase', 'Wheelbase', '/vehicle/wheelbase_mm', true],
  ['front', 'Track, front', '/vehicle/track_mm/front', false],
  ['rear', 'Track, rear', '/vehicle/track_mm/rear', false],
] as const
const AXLES = [
  ['front_kg', 'Front axle'],
  ['rear_kg', 'Rear axle'],
] as const
const CORNERS = [
  ['lf_kg', 'Left front'],
  ['rf_kg', 'Right front'],
  ['lr_kg', 'Left rear'],
  ['rr_kg', 'Right rear'],
] as const

const NEW = 'new car' // no car's key has a blank in it

function keepField({ target }: FormEvent<HTMLFormElement>) {
  if (!(target instanceof HTMLInputElement) || target.type === 'radio') return
  const { name, value: text } = target
  keepTyped(NEW, name, text ? { text, seen: 0, stood: '' } : null)
}

export function NewCarForm() {
  const go = useNavigate()
  const [unit, setUnit] = useState('mm')
  const [by, setBy] = useState<'axles' | 'corners'>('axles')
  const [problems, setProblems] = useState<Record<string, string>>({})

  async function submit(event: FormEvent<HTMLFormElement>) {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const text = (name: string) => String(form.get(name) ?? '').trim()
    const wrong: Record<string, string> = {}
    async function figure(name: string, path: string, needed: boolean, kind = unit) {
      if (!text(name)) {
        if (needed) wrong[name] = 'Needed'
        return null
      }
      try {
        return await readText({ text: text(name), path, unit: kind })
      } catch (error) {
        wrong[name] = (error as Error).message
        return null
      }
    }
    const [wheelbase, front, rear] = await Promise.all(
      FIGURES.map(([n, , path, needed]) => figure(n, path, needed)),
    )
    const names = by === 'axles' ? AXLES : CORNERS
    const weighed = names.some(([n]) => text(n))
    const loads = await Promise.all(
      names.map(([n]) => figure(n, `/weighings/as-found/read/${n}`, weighed, 'kg')),
    )
    const step = await figure('step_kg', '/weighings/as-found/read/step_kg', weighed, 'kg')
    if (!text('name')) wrong['name'] = 'Needed'
    if ((front === null) !== (rear === null))
      wrong[front === null ? 'front' : 'rear'] = 'Give both tracks, or none'
    setProblems(wrong)
    if (Object.keys(wrong).length || wheelbase === null || wheelbase === undefined) return
    // a load that was not given is told at its field by the server
    const read = { type: by, ...Object.fromEntries(names.map(([n], i) => [n, loads[i]])), step_kg: step }
    try {
      const car = await newCar({
        name: text('name'),
        wheelbase_mm: wheelbase,
        track_mm: typeof front === 'number' && typeof rear === 'number' ? { front, rear } : null,
        weighing: weighed ? (read as FoundWeighing) : null,
      })
      for (const name of form.keys()) keepTyped(NEW, name, null)
      void go(`/car/${car.id}/survey`)
    } catch (error) {
      const first = error instanceof Refused ? error.problem.errors?.[0] : undefined
      const name = first?.path.split('/').pop() ?? 'name'
      setProblems({
        [name === 'wheelbase_mm' ? 'wheelbase' : name]: first?.message ?? (error as Error).message,
      })
    }
  }

  return (
    <form onSubmit={(e) => void submit(e)} onInput={keepField} noValidate aria-label="New car">
      <Heading as="h2" right={<UnitPick unit={unit} onUnit={setUnit} />}>
        New car
      </Heading>
      <p className="mt-1 mb-2">
        Start with what the car weighs. Two axle readings will do; four wheels are better.
      </p>
      <Row name="name" label="Name" problem={problems['name']} wide />
      {FIGURES.map(([name, label]) => (
        <Row key={name} name={name} label={`${label} (${unit})`} problem={problems[name]} />
      ))}
      {/* the browser's own: what stands in the form is kept by its input events, whatever field they come from */}
      <fieldset className="m-0 mt-3 border-0 border-t border-hair p-0 pt-2">
        <legend className="sr-only">Weighed by</legend>
        {(['axles', 'corners'] as const).map((way) => (
          <label key={way} className="mr-5 inline-flex min-h-9 items-center gap-2">
            <input
              type="radio"
              name="by"
              checked={by === way}
              onChange={() => setBy(way)}
              className="h-4 w-4 accent-blue"
            />
            {way === 'axles' ? 'two axle readings' : 'four wheels'}
          </label>
        ))}
      </fieldset>
      {(by === 'axles' ? AXLES : CORNERS).map(([name, label]) => (
        <Row key={name} name={name} label={`${label} (kg)`} problem={problems[name]} />
      ))}
      <Row name="step_kg" label="The scale's step (kg)" problem={problems['step_kg']} />
      <Button type="submit" className="mt-3 w-full">
        Start this car
      </Button>
    </form>
  )
}

function UnitPick({ unit, onUnit }: { unit: string; onUnit: (unit: string) => void }) {
  return (
    <select
      aria-label="Unit of lengths"
      value={unit}
      onChange={(e) => onUnit(e.target.value)}
      className="rounded border border-edge bg-white px-1"
    >
      <option value="mm">mm</option>
      <option value="in">in</option>
    </select>
  )
}

function Row({
  name,
  label,
  problem,
  wide = false,
}: {
  name: string
  label: string
  problem: string | undefined
  wide?: boolean
}) {
  const id = useId()
  return (
    <div className="py-1">
      <span className="flex items-center justify-between gap-3">
        <label htmlFor={id}>{label}</label>
        <input
          id={id}
          name={name}
          defaultValue={typedAt(NEW, name)?.text}
          maxLength={120}
          autoComplete="off"
          aria-invalid={Boolean(problem)}
          aria-describedby={problem ? `${id}-message` : undefined}
          className={`min-h-10 rounded border-[1.5px] bg-white px-2 text-lg font-semibold ${wide ? 'w-64' : 'w-36 text-right'} ${problem ? 'border-foul' : 'border-edge'}`}
        />
      </span>
      {problem && (
        <p id={`${id}-message`} role="alert" className="m-0 text-right text-sm text-foul">
          {problem}
        </p>
      )}
    </div>
  )
}
