/** A car from a file; where one of that name is on the bench it is asked which it is. */
import { useQueryClient } from '@tanstack/react-query'
import { type ChangeEvent, useState } from 'react'
import { useNavigate } from 'react-router'

import { Refused } from '../design/api'
import { importArchive, importCar, renewCar } from '../design/queries'
import { Button, Link } from '../ui/parts'

/** What stands at a path that the file's reader names, as a person would look for it. */
const placed = (path: string, message: string) =>
  path ? `${path.slice(1).replaceAll('/', ', ')} ${message}.` : `${message}.`

export function FromFile() {
  const go = useNavigate()
  const queries = useQueryClient()
  const [problem, setProblem] = useState('')
  const [asked, setAsked] = useState<{ text: string; message: string; same: string } | null>(null)
  async function put(order: Promise<{ id: string }>, text: string) {
    setProblem('')
    setAsked(null)
    try {
      const car = await order
      await queries.invalidateQueries({ queryKey: ['cars'] })
      void go(`/car/${car.id}`)
    } catch (error) {
      const told = error instanceof Refused ? error.problem : null
      const same = (told as { same?: string } | null)?.same
      const first = told?.errors?.[0]
      if (told && same) setAsked({ text, message: told.detail, same })
      else
        setProblem(
          first ? `The file is not taken: ${placed(first.path, first.message)}` : (error as Error).message,
        )
    }
  }
  async function take(event: ChangeEvent<HTMLInputElement>) {
    const file = event.target.files?.[0]
    event.target.value = ''
    if (!file) return
    if (file.name.endsWith('.zip')) return put(importArchive(file), '')
    const text = await file.text()
    await put(importCar(text), text)
  }
  return (
    <div className="mt-6">
      <label className="inline-flex min-h-9 cursor-pointer items-center rounded border-[1.5px] border-edge bg-sheet px-3 font-semibold focus-within:outline-2 focus-within:outline-blue">
        Open a .cradle.json file or an archive
        <input
          type="file"
          accept=".json,application/json,.zip,application/zip"
          onChange={(e) => void take(e)}
          className="sr-only"
        />
      </label>
      {asked && (
        <div role="alert" className="mt-2 rounded border border-blue bg-wash p-3">
          <p className="m-0 mb-2">{asked.message}</p>
          <span className="flex flex-wrap items-center gap-3">
            <Button onClick={() => void put(renewCar(asked.same, asked.text), asked.text)}>
              A newer version of it
            </Button>
            <Button plain onClick={() => void put(importCar(asked.text, true), asked.text)}>
              Another car
            </Button>
            <Link onClick={() => setAsked(null)}>leave it</Link>
          </span>
        </div>
      )}
      {problem && (
        <p role="alert" className="text-foul">
          {problem}
        </p>
      )}
    </div>
  )
}
