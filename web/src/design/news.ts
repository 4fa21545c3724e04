/** News of a car from the server: edits made on other screens, and how far studies have come. */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'

import { SESSION } from './api'
import { useLive } from './live'

interface News {
  resync?: boolean
  revision?: number
  session?: string
  study?: string
}

export function useNews(project: string) {
  const queries = useQueryClient()
  useEffect(() => {
    const source = new EventSource(`/api/projects/${project}/events`)
    source.onmessage = (event: MessageEvent<string>) => {
      const news = JSON.parse(event.data) as News
      if (news.study) void queries.invalidateQueries({ queryKey: ['study', news.study] })
      if (news.revision && news.session !== SESSION['X-Session'])
        void useLive.getState().catchUp(news.revision)
      if (news.resync) void queries.invalidateQueries({ queryKey: ['study'] })
    }
    return () => source.close()
  }, [project, queries])
}
