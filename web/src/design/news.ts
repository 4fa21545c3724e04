/**
 * News of cars from the server: edits made on other screens, and how far studies have come.
 *
 * A browser keeps six connections to one server, so all its tabs share one stream: the tab that holds the lock listens and hands on
 * what it hears; when it is closed, the next one does. Where there are no locks each tab listens for itself.
 */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'

import { useLive } from './live'

interface News {
  project?: string
  resync?: boolean
  revision?: number
  study?: string
  pack?: string
}
type Hear = (news: News) => void

const NAME = 'level-cradle-news'
const hearers = new Set<Hear>()
let channel: BroadcastChannel | null = null

const tell = (news: News) => hearers.forEach((hear) => hear(news))

/** The one stream, until the tab goes. */
function listen(): Promise<never> {
  const source = new EventSource('/api/events')
  source.onmessage = (event: MessageEvent<string>) => {
    const news = JSON.parse(event.data) as News
    tell(news)
    channel?.postMessage(news)
  }
  window.addEventListener('pagehide', () => source.close())
  return new Promise<never>(() => undefined)
}

function start() {
  if (channel) return
  channel = new BroadcastChannel(NAME)
  channel.onmessage = (event: MessageEvent<News>) => tell(event.data)
  if ('locks' in navigator) void navigator.locks.request(NAME, listen)
  else void listen()
}

export function useNews(project: string) {
  const queries = useQueryClient()
  useEffect(() => {
    start()
    const hear: Hear = (news) => {
      if (news.project && news.project !== project) return
      if (news.study) void queries.invalidateQueries({ queryKey: ['study', news.study] })
      if (news.pack) void queries.invalidateQueries({ queryKey: ['pack', project] })
      // one's own edits are known already: their revision is the one that is loaded, or on its way
      if (news.revision) void useLive.getState().catchUp(news.revision)
      if (news.resync) {
        void queries.invalidateQueries({ queryKey: ['study'] })
        void queries.invalidateQueries({ queryKey: ['pack'] })
        void useLive.getState().lookAgain()
      }
    }
    hearers.add(hear)
    return () => void hearers.delete(hear)
  }, [project, queries])
}
