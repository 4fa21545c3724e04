/** Instruments that are listened to, and the blank that takes what is held. */
import { queryOptions } from '@tanstack/react-query'
import { create } from 'zustand'

import { api, taken } from './api'
import type { components } from './schema'

export type Source = components['schemas']['SourceOut']
export type Channel = components['schemas']['ChannelOut']
const EVERY_MS = 300

/** Puts a text into the blank that has the focus; says from which instrument. */
export type Put = (text: string, source: string) => void

interface Held {
  open: boolean
  /** The blank that has, or had last, the focus. */
  put: Put | null
  /** A channel that is held as soon as it stands still: address and name. */
  armed: string | null
  /** What was held last: Alt and Enter hold it again. */
  last: string | null
}

export const useHeld = create<Held>(() => ({ open: false, put: null, armed: null, last: null }))

export const channelKey = (source: Source, channel: Channel) => `${source.address}|${channel.name}`
export const sourceWords = (key: string) => key.split('|').reverse().join(' at ')

/** Alt and Enter in a blank: the channel held last is held again. */
export function holdAgain() {
  const { open, last } = useHeld.getState()
  if (open && last) useHeld.setState({ armed: last })
}

export const instrumentsQuery = queryOptions({
  queryKey: ['instruments'],
  refetchInterval: EVERY_MS,
  queryFn: async () => taken(await api.GET('/api/instruments')),
})

export async function listenTo(address: string) {
  return taken(await api.POST('/api/instruments', { body: { address } }))
}

export async function leave(address: string) {
  await api.DELETE('/api/instruments', { params: { query: { address } } })
}
