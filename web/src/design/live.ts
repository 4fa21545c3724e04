/**
 * The live design: the document as the server has it, its analysis, and at most one preview on the way.
 *
 * While something is dragged, one preview is in flight and the newest one waits; none is aborted to send another.
 */
import { useEffect } from 'react'
import { create } from 'zustand'

import { api, isAway, Refused, SESSION, taken } from './api'
import { Gone, useAway } from './away'
import { asText, type Figure, type Meant, meantBy, unitsOf, wayOf } from './figure'
import { newKey, put, type Row, strike, useOutbox, waitingOf, withWaiting } from './outbox'
import { named, patched } from './pointer'
import type { Analysis, SnapPoint, Document, Op, Opened, Problem } from './types'

/** One car that was opened, and what is stored of it: its next edit is made on that. An edit is bound to it when it is asked for:
 * whatever is open by the time its turn comes, it reaches the car it was made in and no other. */
interface Car {
  readonly project: string
  revision: number
  document: Document
}

export interface Loaded {
  car: Car
  project: string
  revision: number
  /** As stored, with what waits for the server. */
  document: Document
  analysis: Analysis
  undo: string | null
  redo: string | null
}

interface Live {
  loaded: Loaded | null
  /** The analysis of the preview that was answered last, while one is shown. */
  preview: Analysis | null
  previewPatch: Op[]
  /** Where the box that is moved is caught, as the last preview told. */
  snap_points: readonly SnapPoint[]
  saving: number
  problem: Problem | null
  /** What was just done, for the screen reader and the frame. */
  said: string
  open: (project: string) => Promise<void>
  /** True once it is stored, or kept until the server answers; false where it was refused. */
  edit: (patch: Op[]) => Promise<boolean>
  /** A typed figure, made since a revision that stood before one's eyes; as above, but it throws the refusal. */
  enter: (figure: Figure, seen: number) => Promise<void>
  /** Sends a row that was refused once more, now that one has seen why. */
  again: (row: Row) => Promise<void>
  /** Sends what waits, in the order in which it was made. */
  sendKept: () => Promise<void>
  /** Takes back or redoes; answers with the path that changed. */
  step: (kind: 'undo' | 'redo') => Promise<string | null>
  /** ``drawn``: the drawing is wanted with it. */
  show: (patch: Op[], drawn?: boolean) => void
  drop: () => void
  dismiss: () => void
  /** Takes over what others did since, where nothing of one's own is under way. */
  catchUp: (revision: number) => Promise<void>
  /** After news may have been missed: asks what revision there is. */
  lookAgain: () => Promise<void>
}

let waiting: { patch: Op[]; drawn: boolean } | null = null
let inFlight = false
let shown = 0 // rises whenever the preview is dropped, so that a late answer is not shown
let queue: Promise<unknown> = Promise.resolve()

/** What waits to be sent because more of it may come: a burst of nudges. */
const waits = new Set<() => Promise<unknown>>()

const sendWaiting = () => Promise.all([...waits].map((send) => send()))

/** It is sent before anything else is done, before a step back, and when its view goes: what was done first is stored first. */
export function useSentBefore(send: () => Promise<unknown>) {
  useEffect(() => {
    waits.add(send)
    return () => {
      waits.delete(send)
      void send()
    }
  }, [send])
}

/** Edits go one after the other, so that each is made on the revision before it. */
function inTurn<T>(job: () => Promise<T>): Promise<T> {
  const next = queue.then(job, job)
  queue = next.catch(() => undefined)
  return next
}

function opened({ id, ...stored }: Opened): Loaded {
  const car = { project: id, revision: stored.revision, document: stored.document }
  return { ...stored, project: id, car, document: withWaiting(id, car.document) }
}

// a nudge whose burst has not ended is written down before the page goes
window.addEventListener('pagehide', () => void sendWaiting())

export const useLive = create<Live>((set, get) => {
  function accept(car: Car, answer: Awaited<ReturnType<typeof send>>) {
    const { loaded } = get()
    const { revision, undo, redo } = answer
    car.revision = revision
    car.document = patched(car.document, [...answer.patches_since, ...answer.document_patch] as Op[])
    if (loaded?.car !== car) return // another car is open by now, or this one was opened anew
    const document = withWaiting(car.project, car.document)
    const analysis = answer.analysis
    set({
      loaded: { ...loaded, revision, document, analysis, undo, redo },
      said: answer.sentence,
      problem: null,
    })
  }

  async function send({ project, revision }: Car, { key, seen }: Row, patch: Op[]) {
    return taken(
      await api.PATCH('/api/projects/{project}', {
        params: { path: { project }, header: { ...SESSION, 'if-match': String(revision) } },
        body: { patch, once: key, seen: Math.min(seen, revision) },
      }),
    )
  }

  /** Sends a row when its turn comes. Throws the refusal; what nobody answers to is kept. */
  async function deliver(car: Car, row: Row) {
    // read at once, so that it waits for nobody's turn
    const meant: Promise<Meant> = row.figure ? meantBy(row.figure) : Promise.resolve(() => row.patch)
    meant.catch(() => undefined) // told in its turn
    try {
      await inTurn(async () => {
        const patch = (await meant)(car.document)
        if (useAway.getState().away) throw new Gone()
        const answer = await send(car, row, patch)
        strike(row.key)
        accept(car, answer)
      })
    } catch (error) {
      if (!isAway(error)) throw error
      put({ ...row, waits: true })
      seeWaiting(car)
    }
  }

  /** As above, of what waited: refused, it stays with what was said of it. */
  async function deliverKept(car: Car, row: Row) {
    try {
      await deliver(car, row)
    } catch (error) {
      put({ ...row, waits: true, refused: toldBy(error, row.figure) })
      seeWaiting(car)
    }
  }

  /** What waits is seen in the document before it is stored. */
  function seeWaiting(car: Car) {
    const { loaded } = get()
    if (loaded?.car === car) set({ loaded: { ...loaded, document: withWaiting(car.project, car.document) } })
  }

  /** Writes a row down and sends it after all that was done before. */
  async function give(car: Car, row: Row) {
    set((s) => ({ saving: s.saving + 1 }))
    const before = sendWaiting() // what was nudged is written down before this
    put(row)
    try {
      await before
      await deliver(car, row)
    } catch (error) {
      strike(row.key)
      if (error instanceof Refused && error.problem.status === 412 && get().loaded?.car === car)
        await get().open(car.project)
      throw error
    } finally {
      get().drop()
      set((s) => ({ saving: s.saving - 1 }))
    }
  }

  function refuse(error: unknown) {
    const problem =
      error instanceof Refused
        ? error.problem
        : {
            title: 'No answer',
            status: 0,
            detail: 'The server does not answer. Nothing was lost; try again.',
          }
    set({ problem })
    return false
  }

  async function ask() {
    if (inFlight || !waiting) return
    const { patch, drawn } = waiting
    const asked = shown
    waiting = null
    inFlight = true
    try {
      const { project } = get().loaded as Loaded
      const answer = taken(
        await api.POST('/api/projects/{project}/preview', {
          params: { path: { project } },
          body: { patch, shapes: drawn },
        }),
      )
      if (asked === shown)
        set({
          preview: answer.analysis,
          previewPatch: patch,
          snap_points: answer.snap_points,
        })
    } catch (error) {
      if (asked === shown) refuse(error)
    } finally {
      inFlight = false
      void ask()
    }
  }

  return {
    loaded: null,
    preview: null,
    previewPatch: [],
    snap_points: [],
    saving: 0,
    problem: null,
    said: '',
    open: async (project) => {
      try {
        const answer = taken(
          await api.GET('/api/projects/{project}', { params: { path: { project }, header: SESSION } }),
        )
        set({ loaded: opened(answer), preview: null, problem: null, said: '' })
        void get().sendKept()
      } catch (error) {
        if (!isAway(error) || get().loaded?.project !== project) set({ loaded: null })
        refuse(error)
      }
    },
    edit: async (patch) => {
      const car = get().loaded?.car
      if (!car) return false
      const message = named(car.document, patch[0]?.path ?? '')
      try {
        await give(car, { key: newKey(), project: car.project, seen: car.revision, message, patch })
        return true
      } catch (error) {
        return refuse(error)
      }
    },
    enter: async (figure, seen) => {
      const car = get().loaded?.car
      if (!car) return
      const { project } = car
      const before = waitingOf(project).find((row) => row.figure?.path === figure.path)
      if (before) strike(before.key) // typed anew
      const message = `${named(car.document, figure.path)}: ${figure.text}`
      await give(car, { key: newKey(), project, seen: before?.seen ?? seen, message, patch: [], figure })
    },
    sendKept: async () => {
      const car = get().loaded?.car
      if (!car) return
      const rows = waitingOf(car.project).filter((row) => !row.refused)
      await Promise.all(rows.map((row) => deliverKept(car, row)))
    },
    again: async (row) => {
      const car = get().loaded?.car
      if (!car) return
      await get().catchUp(Infinity)
      const seen = get().loaded?.revision ?? row.seen
      const { refused, ...fresh } = row
      if (fresh.figure?.reads === 'figure') fresh.figure = { ...fresh.figure, most: 0 }
      if (refused) await deliverKept(get().loaded?.car ?? car, { ...fresh, seen })
    },
    step: async (kind) => {
      const car = get().loaded?.car
      if (!car) return null
      await sendWaiting()
      const last = waitingOf(car.project).at(-1)
      if (last && kind === 'undo') {
        forget(last.key)
        set({ said: `undone before it was saved: ${last.message}` })
        return last.figure?.path ?? last.patch[0]?.path ?? null
      }
      const params = { path: { project: car.project }, header: SESSION }
      try {
        const answer = await inTurn(async () => {
          const stepped = taken(
            kind === 'undo'
              ? await api.POST('/api/projects/{project}/undo', { params })
              : await api.POST('/api/projects/{project}/redo', { params }),
          )
          accept(car, stepped)
          return stepped
        })
        return answer.document_patch.find((op) => !op.path.startsWith('/readings'))?.path ?? null
      } catch (error) {
        refuse(error)
        return null
      }
    },
    show: (patch, drawn = false) => {
      waiting = { patch, drawn }
      void ask()
    },
    drop: () => {
      shown += 1
      waiting = null
      set({ preview: null, previewPatch: [], snap_points: [] })
    },
    dismiss: () => set({ problem: null }),
    lookAgain: async () => {
      const { loaded } = get()
      if (!loaded) return
      const answer = await api
        .GET('/api/projects', {})
        .then(taken)
        .catch(() => [])
      const here = answer.find((p) => p.id === loaded.project)
      if (here) await get().catchUp(here.revision)
    },
    catchUp: (revision) =>
      inTurn(async () => {
        const { loaded, preview } = get()
        if (!loaded || loaded.revision >= revision || preview) return
        const answer = taken(
          await api.GET('/api/projects/{project}', {
            params: { path: { project: loaded.project }, header: SESSION },
          }),
        )
        if (get().loaded?.car === loaded.car)
          set({ loaded: opened(answer), said: 'Somebody else changed the design.' })
      }),
  }
})

/** A row is given up: it was undone, or what the server said of it was seen. */
export function forget(key: string) {
  strike(key)
  const { loaded } = useLive.getState()
  if (!loaded) return
  useLive.setState({
    loaded: { ...loaded, document: withWaiting(loaded.project, loaded.car.document) },
  })
}

/** What waits for the server of the car that is open, and what it refused. */
export function useWaiting(): Row[] {
  const project = useLive((s) => s.loaded?.project ?? '')
  const rows = useOutbox((s) => s.rows)
  return waitingOf(project, [...rows])
}

/** Why something was not taken, as one sentence: who was first and both values where two meant the same figure. */
export function toldBy(error: unknown, figure?: Figure): string {
  if (!(error instanceof Refused)) return 'It could not be made an edit.'
  const { clashes, errors, detail } = error.problem
  const clash = clashes?.find((c) => c.path === figure?.path) ?? clashes?.[0]
  if (!clash) return errors?.[0]?.message ?? detail
  const time = new Date(clash.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
  const [theirs, yours] = [clash.theirs, clash.yours].map((value) => figureText(value, figure))
  return `${clash.who || 'Somebody else'} was first, at ${time}: ${theirs} stands here, yours is ${yours}.`
}

function figureText(value: unknown, figure: Figure | undefined): string {
  if (value === null || value === undefined) return 'nothing'
  if (typeof value !== 'number') return typeof value === 'object' ? 'something else' : `“${String(value)}”`
  if (figure?.reads !== 'figure') return String(Math.round(value * 10) / 10)
  return asText(value, figure.kind, unitsOf(figure), wayOf(figure.path), figure.hook?.at)
}

/** What is nudged is let go as soon as it is refused: once the reason is gone it must not go through after all. A line that is
 * away for a moment refuses nothing. */
export function useLetGo(cancel: () => void) {
  useEffect(
    () =>
      useLive.subscribe((now, before) => {
        if (now.problem !== before.problem && now.problem?.status === 422) cancel()
      }),
    [cancel],
  )
}

export function useLoaded(): Loaded {
  return useLive((s) => s.loaded) as Loaded
}

export function useDocument(): Document {
  return useLive((s) => (s.loaded as Loaded).document)
}

/** The analysis to show: the preview's while there is one. */
export function useAnalysis(): Analysis {
  return useLive((s) => s.preview ?? (s.loaded as Loaded).analysis)
}
