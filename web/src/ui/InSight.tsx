import { type ReactNode, useEffect, useRef } from 'react'

/** What opens below its question is brought into sight. */
export function InSight({ children }: { children: ReactNode }) {
  const here = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!here.current) return
    const watch = new ResizeObserver(() => here.current?.scrollIntoView({ block: 'nearest' }))
    watch.observe(here.current)
    return () => watch.disconnect()
  }, [])
  return <div ref={here}>{children}</div>
}
