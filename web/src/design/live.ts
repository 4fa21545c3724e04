/**
 * The live design: the document as the server has it, its analysis, and at most one preview on the way.
 *
 * While something is dragged, one preview is in flight and the newest one waits; none is aborted to send another.
 */
import { useEffect } from 'react'
import { create } from 'zustand'

import { api, Refused, SESSION, taken } from './api'
import { patched } from './pointer'
import type { Analysis, Catch, Document, Op, Problem } from './types'

/** One car that was opened, and the revision its next edit is made on. An edit is bound to it when it is asked for: whatever is
 * open by the time its turn comes, it reaches the car it was made in and no other. */
interface Car {
  readonly project: string
  revision: number
}

export interface Loaded {
  car: Car
  project: string
  revision: number
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
  catches: readonly Catch[]
  saving: number
  problem: Problem | null
  /** What was just done, for the screen reader and the frame. */
  said: string
  open: (project: string) => Promise<void>
  edit: (patch: Op[]) => Promise<boolean>
  /** When every edit that was asked for so far has been answered. */
  settled: () => Promise<unknown>
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

function opened(answer: { id: string; revision: number }): Loaded {
  const car = { project: answer.id, revision: answer.revision }
  return { ...answer, project: answer.id, car } as unknown as Loaded
}

export const useLive = create<Live>((set, get) => {
  function accept(car: Car, answer: Awaited<ReturnType<typeof send>>) {
    const { loaded } = get()
    const { revision, undo, redo } = answer
    car.revision = revision
    if (loaded?.car !== car) return // another car is open by now, or this one was opened anew
    const document = patched(loaded.document, [...answer.patches_since, ...answer.document_patch] as Op[])
    const analysis = answer.analysis as unknown as Analysis
    set({
      loaded: { ...loaded, revision, document, analysis, undo, redo },
      said: answer.sentence,
      problem: null,
    })
  }

  async function send(car: Car, patch: Op[]) {
    const { project, revision } = car
    return taken(
      await api.PATCH('/api/projects/{project}', {
        params: { path: { project }, header: { ...SESSION, 'if-match': String(revision) } },
        body: { patch: patch as never },
      }),
    )
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
          body: { patch: patch as never, shapes: drawn },
        }),
      )
      if (asked === shown)
        set({
          preview: answer.analysis as unknown as Analysis,
          previewPatch: patch,
          catches: answer.catches,
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
    catches: [],
    saving: 0,
    problem: null,
    said: '',
    open: async (project) => {
      try {
        const answer = taken(
          await api.GET('/api/projects/{project}', { params: { path: { project }, header: SESSION } }),
        )
        set({ loaded: opened(answer), preview: null, problem: null, said: '' })
      } catch (error) {
        set({ loaded: null })
        refuse(error)
      }
    },
    edit: async (patch) => {
      const car = get().loaded?.car
      if (!car) return false
      set((s) => ({ saving: s.saving + 1 }))
      await sendWaiting()
      try {
        await inTurn(async () => accept(car, await send(car, patch)))
        return true
      } catch (error) {
        if (error instanceof Refused && error.problem.status === 412 && get().loaded?.car === car)
          await get().open(car.project)
        return refuse(error)
      } finally {
        get().drop()
        set((s) => ({ saving: s.saving - 1 }))
      }
    },
    settled: () => queue,
    step: async (kind) => {
      const car = get().loaded?.car
      if (!car) return null
      await sendWaiting()
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
      set({ preview: null, previewPatch: [], catches: [] })
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

/** The words of the refusal that just came, for the blank it belongs to; nowhere else is it shown then. */
export function refusal(): string {
  const { problem, dismiss } = useLive.getState()
  dismiss()
  return problem?.errors?.[0]?.says ?? problem?.detail ?? 'Refused.'
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
