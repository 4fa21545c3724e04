/** One query for each thing that is asked for besides the live design. */
import { queryOptions } from '@tanstack/react-query'

import { api, SESSION, taken } from './api'
import type { Op } from './types'

export const carsQuery = queryOptions({
  queryKey: ['cars'],
  queryFn: async () => taken(await api.GET('/api/projects')),
})

export const workingQuery = (project: string, revision: number, finding: string, patch: Op[]) =>
  queryOptions({
    queryKey: ['working', project, revision, finding, patch],
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/working', {
          params: { path: { project } },
          body: { base: revision, finding, patch: patch as never },
        }),
      ),
  })

export const sheetsQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['sheets', project, revision],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/sheets', { params: { path: { project } } })),
  })

export interface Typed {
  text: string
  path: string
  unit: string
  base?: [number, number, number] | undefined
}

/** What a typed text means, as the core reads it. Throws Refused. */
export async function readText({ text, path, unit, base }: Typed): Promise<number> {
  const body = { text, path, unit, ...(base ? { base_mm: base } : {}) }
  return taken(await api.POST('/api/read', { body: body as never })).value
}

export async function readPlace(text: string, axis: 'aft' | 'across' | 'up', unit: 'mm' | 'in') {
  return taken(await api.POST('/api/read-place', { body: { text, axis, unit } }))
}

export async function newCar(body: {
  name: string
  wheelbase_mm: number
  track_mm: { front: number; rear: number } | null
  weighing: object | null
}) {
  return taken(await api.POST('/api/projects', { params: { header: SESSION }, body: body as never }))
}

export async function importCar(text: string) {
  return taken(
    await api.POST('/api/projects/import', {
      params: { header: SESSION },
      body: text as never,
      bodySerializer: (body: unknown) => body as string,
    }),
  )
}
