// How large a file will be: worked out by the server, from a small part of it, when nothing has changed for a moment.
import { useEffect, useState } from 'react'
import type { Ask } from '../engine/types'
import { useDesk } from '../project/desk'
import { estimateExport } from '../server/server'

const rest = 700 // ms

export type Estimate =
  { bytes: number; packed: number; parts: { words: string; bytes: number }[]; alone: boolean } | 'working' | null

/** null: not known. */
export function useEstimate(ask: Ask, wanted: boolean): Estimate {
  const project = useDesk((d) => d.project)
  const film = useDesk((d) => d.film)
  const [found, setFound] = useState<Estimate>(null)
  const asked = JSON.stringify({ ...ask, name: undefined, title: undefined, description: undefined })
  useEffect(() => {
    setFound(null)
    if (!project || !wanted) return
    const stop = new AbortController()
    const timer = setTimeout(() => {
      setFound('working')
      estimateExport(project, JSON.parse(asked) as Ask, stop.signal).then(setFound, () => {
        if (!stop.signal.aborted) setFound(null) // why it cannot be made is said when it is asked for
      })
    }, rest)
    return () => {
      clearTimeout(timer)
      stop.abort()
    }
  }, [project, film, asked, wanted])
  return found
}
