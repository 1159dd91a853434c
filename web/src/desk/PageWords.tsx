// For who does not see the page: what it shows, in words.
import { useEffect, useState } from 'react'
import { engine } from '../engine/engine'
import { useDesk } from '../project/desk'

/** What the page shows: the scene in words, and its layers by name. The page is described by it. */
export function PageWords({ id }: { id: string }) {
  const version = useDesk((d) => d.version)
  const scene = useDesk((d) => d.scene)
  const selection = useDesk((d) => d.selection)
  const rows = useDesk((d) => d.rows)
  const dragging = useDesk((d) => d.dragging || d.playing)
  const [words, setWords] = useState<string[]>([])
  useEffect(() => {
    if (dragging) return
    const t = setTimeout(() => setWords(engine.summary(scene)), 600)
    return () => clearTimeout(t)
  }, [version, scene, dragging])
  return (
    <div className="sr-only">
      <p id={id}>{words.join(' ')}</p>
      <ul aria-label="Layers of the page">
        {rows
          .filter((r) => r.here)
          .slice(0, 200)
          .map((r) => (
            <li key={r.thread}>
              {r.name}
              {selection.includes(r.thread) ? ', selected' : ''}
            </li>
          ))}
      </ul>
    </div>
  )
}
