/** One query for each thing that is asked for besides the live design. */
import { queryOptions } from '@tanstack/react-query'

import { api, done, SESSION, taken } from './api'
import type { FoundWeighing, Notice, Op, Outline, Pack, Scan, ShelfPreview, Study, Wishes } from './types'

export const carsQuery = queryOptions({
  queryKey: ['cars'],
  queryFn: async () => taken(await api.GET('/api/projects')),
})

export const deletedQuery = queryOptions({
  queryKey: ['cars', 'deleted'],
  queryFn: async () => taken(await api.GET('/api/deleted')),
})

export const noticesQuery = queryOptions({
  queryKey: ['notices'],
  queryFn: async () => taken(await api.GET('/api/notices')),
})

/** What the build wrote of the packages in it. */
export const ownNoticesQuery = queryOptions({
  queryKey: ['notices', 'own'],
  queryFn: async (): Promise<Notice[]> => {
    const rows = (await (await fetch('/notices.json')).json()) as BuiltWith[]
    return rows.map(({ identifier, ...row }) => ({
      ...row,
      licence: identifier ?? 'see its text',
      text: row.text ?? '',
    }))
  },
})

interface BuiltWith {
  name: string
  version: string
  identifier?: string
  text?: string
}

export const historyQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['history', project, revision],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/history', { params: { path: { project } } })),
  })

export const variantsQuery = (project: string) =>
  queryOptions({
    queryKey: ['cars', 'variants', project],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/variants', { params: { path: { project } } })),
  })

export const thenAndNowQuery = (project: string, number: number, revision: number) =>
  queryOptions({
    queryKey: ['cars', 'then and now', project, number, revision],
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/revisions/{number}', {
          params: { path: { project, number } },
        }),
      ),
  })

const ofCar = (project: string) => ({ path: { project }, header: SESSION })

export async function renameCar(car: { id: string; revision: number }, name: string) {
  return taken(
    await api.PATCH('/api/projects/{project}', {
      params: { path: { project: car.id }, header: { ...SESSION, 'if-match': String(car.revision) } },
      body: { patch: [{ op: 'replace', path: '/name', value: name }] },
    }),
  )
}

export async function copyCar(project: string, revision?: number) {
  const query = revision ? { revision } : {}
  return taken(await api.POST('/api/projects/{project}/copy', { params: { ...ofCar(project), query } }))
}

/** A new car by the pattern of this one, without what was measured of it. */
export async function sameAgain(project: string) {
  return taken(await api.POST('/api/projects/{project}/again', { params: ofCar(project) }))
}

export async function deleteCar(project: string) {
  done(await api.DELETE('/api/projects/{project}', { params: { path: { project } } }))
}

export async function bringBack(project: string) {
  done(await api.POST('/api/deleted/{project}/back', { params: { path: { project } } }))
}

export async function takeBack(project: string, number: number) {
  return taken(
    await api.POST('/api/projects/{project}/revisions/{number}/take-back', {
      params: { path: { project, number }, header: SESSION },
    }),
  )
}

export async function renewCar(project: string, text: string) {
  return taken(await api.POST('/api/projects/{project}/renewed', { params: ofCar(project), ...asText(text) }))
}

/** A file's text as it is: whether it is one at all, the server says. */
const asText = (text: string) => ({ body: {}, bodySerializer: () => text })

export const workingQuery = (project: string, revision: number, finding: string, patch: Op[]) =>
  queryOptions({
    queryKey: ['working', project, revision, finding, patch],
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/working', {
          params: { path: { project } },
          body: { finding, patch: patch },
        }),
      ),
  })

/** The newest fabrication pack and the one that is being made; asked again while one is. */
export const packQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['pack', project, revision],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/pack', { params: { path: { project } } })),
    placeholderData: (old: Pack | undefined) => old,
    refetchInterval: (query) => (isUnderWay(query.state.data) ? LOOK_AGAIN_MS : false),
  })

const LOOK_AGAIN_MS = 1500

export const isUnderWay = (pack: Pack | undefined) => !!pack?.asked && pack.asked.state !== 'refused'

export async function askForPack(project: string): Promise<Pack> {
  return taken(await api.POST('/api/projects/{project}/pack', { params: { path: { project } } }))
}

export interface Typed {
  text: string
  path: string
  unit: string
  base?: [number, number, number] | undefined
  /** The figure of a place that stands there: a sign moves it. */
  now?: number | null
}

/** What a typed text means, as the core reads it: in which unit its bare numbers are, and whether it is a move. Throws Refused. */
export async function readFigure({ text, path, unit, base, now }: Typed) {
  const body = { text, path, unit, ...(base ? { base_mm: base } : {}), now_mm: now ?? null }
  return taken(await api.POST('/api/read', { body: body }))
}

/** As above, its value alone. */
export const readText = async (typed: Typed): Promise<number> => (await readFigure(typed)).value

export async function readPlace(text: string, axis: 'aft' | 'across' | 'up', unit: 'mm' | 'in') {
  return taken(await api.POST('/api/read-place', { body: { text, axis, unit } }))
}

export async function newCar(body: {
  name: string
  wheelbase_mm: number
  track_mm: { front: number; rear: number } | null
  weighing: FoundWeighing
}) {
  return taken(await api.POST('/api/projects', { params: { header: SESSION }, body }))
}

/** Another: of a name that is on the bench already. */
export async function importCar(text: string, another = false) {
  return taken(
    await api.POST('/api/projects/import', {
      params: { header: SESSION, query: { another } },
      ...asText(text),
    }),
  )
}

export const startersQuery = (subject: string) =>
  queryOptions({
    queryKey: ['starters', subject],
    staleTime: Infinity,
    queryFn: async () => taken(await api.GET('/api/starters/{subject}', { params: { path: { subject } } })),
  })

export const ownRowsQuery = queryOptions({
  queryKey: ['own-rows'],
  queryFn: async () => taken(await api.GET('/api/own-rows')),
})

export const starterKindsQuery = queryOptions({
  queryKey: ['starter-kinds'],
  staleTime: Infinity,
  queryFn: async () => taken(await api.GET('/api/starter-kinds')),
})

export const carriersQuery = (project: string, revision: number, bay: string) =>
  queryOptions({
    queryKey: ['carriers', project, revision, bay],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/carriers/{bay}', { params: { path: { project, bay } } })),
  })

export type Goal = 'clearances' | 'loads' | 'level'

export const toMeasureQuery = (project: string, revision: number, goal: Goal) =>
  queryOptions({
    queryKey: ['to-measure', project, revision, goal],
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/to-measure', {
          params: { path: { project }, query: { goal } },
        }),
      ),
  })

export const twiceQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['twice', project, revision],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/twice', { params: { path: { project } } })),
  })

export const blanksQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['blanks', project, revision],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/blanks', { params: { path: { project } } })),
  })

export const studyQuery = (key: string | null) =>
  queryOptions({
    queryKey: ['study', key],
    enabled: key !== null,
    // news tells of progress; this is for a screen whose news broke off
    refetchInterval: ({ state }) => (isRunning(state.data?.state) ? 2000 : false),
    queryFn: async () => taken(await api.GET('/api/studies/{key}', { params: { path: { key: key ?? '' } } })),
  })

export const studiesQuery = (project: string) =>
  queryOptions({
    queryKey: ['studies', project],
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/studies', { params: { path: { project } } })),
  })

export const isRunning = (state: string | undefined) => state === 'waiting' || state === 'running'

export async function askStudy(project: string, wishes: Wishes): Promise<Study> {
  const answer = await api.POST('/api/projects/{project}/studies', {
    params: { path: { project } },
    body: wishes,
  })
  return taken(answer)
}

export async function stopStudy(key: string): Promise<Study> {
  return taken(await api.POST('/api/studies/{key}/stop', { params: { path: { key } } }))
}

/** ``on``: asked of the design after this patch, a proposal's; ``together``: also what clears only together, which takes longer. */
export const answerQuery = (
  project: string,
  revision: number,
  box: string,
  more: Axis | null,
  on: Op[],
  together: boolean,
) =>
  queryOptions({
    queryKey: ['would-take', project, revision, box, more, on, together],
    retry: false,
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/would-take', {
          params: { path: { project } },
          body: { patch: on, box, more, together },
        }),
      ),
  })

export const hangingQuery = (project: string, revision: number, box: string, where_it_hangs: boolean) =>
  queryOptions({
    queryKey: ['hanging', project, revision, box, where_it_hangs],
    retry: false,
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/boxes/{box}/hanging', {
          params: { path: { project, box }, query: { where_it_hangs } },
        }),
      ),
  })

export const loadSetsQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['load-sets', project, revision],
    retry: false,
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/load-sets', { params: { path: { project } } })),
  })

export const letGoQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['let-go', project, revision],
    retry: false,
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/let-go', { params: { path: { project } } })),
  })

/** `patch`: the preview's, while one is shown. */
export const drawnMountQuery = (project: string, revision: number, mount: string, patch: Op[]) =>
  queryOptions({
    queryKey: ['drawn mount', project, revision, mount, patch],
    retry: false,
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/mounts/{mount}/drawn', {
          params: { path: { project, mount } },
          body: { patch },
        }),
      ),
  })

export const sizesQuery = (project: string, revision: number, mount: string) =>
  queryOptions({
    queryKey: ['sizes', project, revision, mount],
    retry: false,
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/mounts/{mount}/sizes', {
          params: { path: { project, mount } },
        }),
      ),
  })

export const weldsQuery = (project: string, revision: number, mount: string) =>
  queryOptions({
    queryKey: ['welds', project, revision, mount],
    retry: false,
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/mounts/{mount}/welds', {
          params: { path: { project, mount } },
        }),
      ),
  })

export const tapeQuery = (project: string, revision: number, one?: string, other?: string) =>
  queryOptions({
    queryKey: ['tape', project, revision, one, other],
    enabled: Boolean(one && other),
    retry: false,
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/tape', {
          params: { path: { project } },
          body: { patch: [], one: one ?? '', other: other ?? '', want_mm: null },
        }),
      ),
  })

export const chainQuery = (
  project: string,
  revision: number,
  box: string,
  way: Axis,
  module: number | null = null,
) =>
  queryOptions({
    queryKey: ['stack-up', project, revision, box, way, module],
    retry: false,
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/stack-up', {
          params: { path: { project } },
          body: { patch: [], box, way, at_mm: null, module },
        }),
      ),
  })

export const openedQuery = (project: string, revision: number, box: string) =>
  queryOptions({
    queryKey: ['opened', project, revision, box],
    retry: false,
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/boxes/{box}/opened', { params: { path: { project, box } } }),
      ),
  })

export const boxSectionQuery = (project: string, revision: number, box: string, through: number | null) =>
  queryOptions({
    queryKey: ['box section', project, revision, box, through],
    retry: false,
    queryFn: async () =>
      taken(
        await api.GET('/api/projects/{project}/boxes/{box}/section', {
          params: { path: { project, box }, query: through === null ? {} : { through } },
        }),
      ),
  })

export const sectionQuery = (project: string, revision: number, aft: number) =>
  queryOptions({
    queryKey: ['section', project, revision, aft],
    queryFn: async () =>
      taken(
        await api.POST('/api/projects/{project}/section', {
          params: { path: { project } },
          body: { patch: [], aft_mm: aft },
        }),
      ),
  })

export const bodiesQuery = (project: string, revision: number) =>
  queryOptions({
    queryKey: ['bodies', project, revision],
    staleTime: Infinity,
    queryFn: async () =>
      taken(await api.GET('/api/projects/{project}/bodies', { params: { path: { project } } })).bodies,
  })

export type Axis = 'aft' | 'across' | 'up'
type Spot = [number, number, number]

export async function behind(project: string, at_mm: Spot, direction: Spot) {
  const body = { at_mm, direction }
  return taken(await api.POST('/api/projects/{project}/behind', { params: { path: { project } }, body }))
}

export async function swingTapes(
  project: string,
  tapes: Record<string, { hooked: string; length_mm: number }>,
  guess_mm: Spot,
) {
  const body = { tapes, guess_mm }
  return taken(await api.POST('/api/projects/{project}/swing', { params: { path: { project } }, body }))
}

/** Sends a file's bytes as they are. Throws Refused with the server's own words. */
async function sent<T>(address: string, file: Blob): Promise<T> {
  const answer = await fetch(address, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream', ...SESSION },
  })
  const body = (await answer.json().catch(() => undefined)) as unknown
  return taken<T>({ ...(answer.ok ? { data: body as T } : { error: body }), response: answer })
}

/** A car from an archive, with its log, scans and pictures. */
export const importArchive = (file: Blob) => sent<{ id: string }>('/api/projects/import-archive', file)

const query = (values: Record<string, string | null | undefined>) =>
  new URLSearchParams(Object.entries(values).filter((e): e is [string, string] => Boolean(e[1]))).toString()

export const keepPicture = (project: string, file: File) =>
  sent<{ file: string }>(`/api/projects/${project}/pictures?${query({ name: file.name })}`, file)

export const startScan = (project: string, file: File, unit: string, tolerance: number) =>
  sent<Scan>(
    `/api/projects/${project}/scans?${query({ name: file.name, unit, tolerance_mm: String(tolerance) })}`,
    file,
  )

export async function scanProgress(key: string): Promise<Scan> {
  return taken(await api.GET('/api/scans/{key}', { params: { path: { key } } })) as Scan
}

export const readOutlines = (file: File, unit: string) =>
  sent<{ unit: string; outlines: Outline[]; notes: string[] }>(`/api/outlines?${query({ unit })}`, file)

export const previewShelf = (
  project: string,
  file: File,
  kind: string,
  mapping: Record<string, string> | null,
) =>
  sent<ShelfPreview>(
    `/api/projects/${project}/shelf-preview?${query({ kind, mapping: mapping && JSON.stringify(mapping) })}`,
    file,
  )
