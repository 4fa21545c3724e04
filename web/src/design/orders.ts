/** Orders to the core that answer with a patch: nothing is changed until it is applied. */
import { api, taken } from './api'
import type { components } from './schema'
import type { NewMount } from './types'

type Body<Name extends keyof components['schemas']> = components['schemas'][Name]
export type SpaceAsked = Body<'SpaceBody'>
export type Restated = Body<'RestateBody'>['do']
export type Order = Body<'BlocksBody'>['order']

/** A box turned to lie along what it stands nearest to, with the needed gap just kept. */
export async function aligned(project: string, box: string, other: string) {
  return taken(
    await api.POST('/api/projects/{project}/lay-against', {
      params: { path: { project } },
      body: { box, other, turn: true },
    }),
  )
}

/** How far the first of two things moves for the tape between them to read what is wanted. */
export async function tapedTo(project: string, one: string, other: string, want_mm: number) {
  const body = { one, other, want_mm }
  return taken(await api.POST('/api/projects/{project}/tape', { params: { path: { project } }, body }))
}

export async function rearranged(project: string, box: string, order: Order) {
  const body = { box, order }
  return taken(await api.POST('/api/projects/{project}/blocks', { params: { path: { project } }, body }))
}

/** A box taken away with all that names it. */
export async function withoutBox(project: string, box: string) {
  const body = { box }
  return taken(await api.POST('/api/projects/{project}/removed-box', { params: { path: { project } }, body }))
}

/** What goes into a bay as a first box. */
export async function firstBox(project: string, body: Body<'FirstBoxBody'>) {
  return taken(await api.POST('/api/projects/{project}/first-box', { params: { path: { project } }, body }))
}

/** A thing put in or on a box, or back on the vehicle. */
export async function seated(project: string, item: string, box: string | null) {
  const body = { item, box }
  return taken(
    await api.POST('/api/projects/{project}/placed-thing', { params: { path: { project } }, body }),
  )
}

export async function restate(project: string, bay: string, station: string, what: Restated) {
  const body = { bay, station, do: what }
  return taken(await api.POST('/api/projects/{project}/restate', { params: { path: { project } }, body }))
}

export async function weighedBy(project: string, way: 'corners' | 'axles' | 'total') {
  return taken(
    await api.POST('/api/projects/{project}/weighed-by/{way}', { params: { path: { project, way } } }),
  )
}

export async function reshaped(project: string, path: string, shape: Body<'ReshapeBody'>['shape']) {
  return taken(
    await api.POST('/api/projects/{project}/reshaped', {
      params: { path: { project } },
      body: { path: path.slice(1), shape },
    }),
  )
}

export async function squareSpace(project: string, body: SpaceAsked) {
  return taken(await api.POST('/api/projects/{project}/spaces', { params: { path: { project } }, body }))
}

/** Another row from one: its copy, or its mirror twin. ``id`` is its path. */
export async function another(project: string, path: string, mirrored: boolean) {
  const answer = taken(
    await api.POST('/api/projects/{project}/rows', {
      params: { path: { project } },
      body: { path, mirrored },
    }),
  )
  return { path: answer.id, patch: answer.patch }
}

export async function freed(project: string, item: string) {
  return taken(
    await api.POST('/api/projects/{project}/freed/{item}', { params: { path: { project, item } } }),
  )
}

/** A box built another way, as large as it was. */
export const builtAs = async (project: string, box: string, kind: string) =>
  taken(
    await api.POST('/api/projects/{project}/boxes/{box}/built-as/{kind}', {
      params: { path: { project, box, kind } },
    }),
  ).patch

/** An opening with what sits in it, put where it goes. */
export const fittedIn = async (project: string, box: string, size: string) =>
  taken(
    await api.POST('/api/projects/{project}/boxes/{box}/fitted/{size}', {
      params: { path: { project, box, size } },
    }),
  )

/** A pressure relief in each compartment of a divided block that has none on its side. */
export const relieved = async (project: string, box: string, block: string) =>
  taken(
    await api.POST('/api/projects/{project}/boxes/{box}/blocks/{block}/relieved', {
      params: { path: { project, box, block } },
    }),
  )

/** What holds the modules of a box, sized by itself. */
export const heldBy = async (project: string, box: string, kind: string) =>
  taken(
    await api.POST('/api/projects/{project}/boxes/{box}/held-by/{kind}', {
      params: { path: { project, box, kind } },
    }),
  )

/** A new mount between a box and a spot of the vehicle. */
export async function hung(project: string, body: NewMount) {
  return taken(await api.POST('/api/projects/{project}/hung', { params: { path: { project } }, body }))
}

/** A crossmember between two hard points. */
export async function crossed(project: string, body: Body<'CrossedBody'>) {
  return taken(await api.POST('/api/projects/{project}/crossed', { params: { path: { project } }, body }))
}

/** A crossmember taken away, with the mounts that land on it. */
export const uncrossed = async (project: string, crossmember: string) =>
  taken(
    await api.POST('/api/projects/{project}/crossmembers/{crossmember}/taken-away', {
      params: { path: { project, crossmember } },
    }),
  ).patch

/** A doubler under a bracket. */
export const doublerUnder = async (project: string, mount: string) =>
  taken(
    await api.POST('/api/projects/{project}/mounts/{mount}/doubler', {
      params: { path: { project, mount } },
    }),
  ).patch

/** A bracket welded to its box, or bolted through its wall. */
export const joinedBy = async (project: string, mount: string, how: 'welded' | 'bolted') =>
  taken(
    await api.POST('/api/projects/{project}/mounts/{mount}/joined/{how}', {
      params: { path: { project, mount, how } },
    }),
  ).patch

/** All others of its kind under the same box made like a mount. */
export const madeAlike = async (project: string, mount: string) =>
  taken(
    await api.POST('/api/projects/{project}/mounts/{mount}/alike', { params: { path: { project, mount } } }),
  ).patch

/** All parts of a mark said to be sent, cut, or only drawn. */
export async function cutAs(project: string, mark: string, state: Body<'CutPartsBody'>['state']) {
  const body = { mark, state }
  return taken(await api.POST('/api/projects/{project}/cut-parts', { params: { path: { project } }, body }))
}
