// Export: a sheet over the editor with the frame at the playhead, what to make, and what is being made.
import { X } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { engine } from '../engine/engine'
import type { Ask, Export } from '../engine/types'
import { fail, mended, set, useDesk } from '../project/desk'
import { onExport } from '../project/events'
import { createExport, hello, listExports } from '../server/server'
import { filmTime } from '../time'
import { Button, Sign } from '../ui/controls'
import { Sheet } from '../ui/Sheet'
import { counted } from '../words'
import { Also } from './Also'
import { FileForm } from './FileForm'
import { FrameStrip } from './FrameStrip'
import { alike, kindOf } from './kinds'
import { Made } from './Made'
import { Preview } from './Preview'

export function ExportSheet() {
  const film = useDesk((d) => d.film)!
  const project = useDesk((d) => d.project)!
  const [ask, setAsk] = useState<Ask>(() => ({ format: 'mp4', height: engine.offered('mp4').first }))
  const rows = useDesk((d) => d.variants) // of the table, in place of the film itself
  const [also, setAlso] = useState<string[]>([]) // more kinds, made in the same press
  const [list, setList] = useState<Export[]>([])
  const [lacks, setLacks] = useState<Record<string, string>>({}) // why this machine does not make some kinds
  const [byHand, setByHand] = useState(false) // frames are timed one by one
  const [seen, setSeen] = useState(0) // ms of the film, of the frame that is selected there
  const time = useDesk((d) => d.moment.time)

  useEffect(() => {
    hello()
      .then((h) => {
        setLacks(h.lacks)
        if (h.lacks.mp4)
          setAsk((a) => (a.format === 'mp4' ? { format: 'gif', height: engine.offered('gif').first } : a))
      })
      .catch(fail)
    listExports(project).then(setList).catch(fail)
    return onExport((e) => {
      if (e.project === project)
        setList((l) => (l.some((o) => o.id === e.id) ? l.map((o) => (o.id === e.id ? e : o)) : [e, ...l]))
    })
  }, [project])

  const now = (a: Ask) =>
    kindOf(a.format).still && !kindOf(a.format).sheet && !a.scene && !a.scenes && !a.cues
      ? { ...a, from: Math.round(time) }
      : a
  const make = (a: Ask) =>
    createExport(project, rows.length > 0 ? { ...a, rows } : a).then(
      () => mended('export'),
      (err: unknown) => fail(err, 'export'),
    )
  const again = (a: Ask) =>
    createExport(project, a).then(
      () => mended('export'),
      (err: unknown) => fail(err, 'export'),
    )
  const start = async () => {
    await make(now(ask))
    for (const format of also.filter((f) => f !== ask.format)) await make(now(alike(ask, format)))
  }
  const { still, clear, piece } = kindOf(ask.format)
  const strip = byHand && !still && !piece
  const cue =
    still && (ask.cues ? engine.offered(ask.format).cues[0] : ask.cue ? { scene: ask.scene, cue: ask.cue } : undefined)
  const at = cue ? engine.delivery({ ...ask, scene: cue.scene, cue: cue.cue }).from : undefined
  const scene = still && !cue && (ask.scenes ? 1 : ask.scene)
  const look = useMemo(
    () => (strip ? { time: seen } : at !== undefined ? { time: at } : scene ? { rest: true, scene: scene - 1 } : {}),
    [strip, seen, scene, at],
  )
  const shows = strip
    ? 'the selected frame'
    : at !== undefined
      ? `the frame at ${filmTime(at)}`
      : scene
        ? `scene ${scene} as it rests`
        : 'the frame at the playhead'
  return (
    <Sheet title="Export film" wide onClose={() => set({ sheet: 'none', variants: [] })}>
      <div className="grid grid-cols-[23.75rem_1fr] gap-6 px-5 py-4 max-[54rem]:grid-cols-1">
        <div>
          <Preview clear={clear} look={look} name={shows} />
          <p className="mt-2 text-[0.75rem] text-ink-600">
            {counted(film.shown, 'scene')}, {filmTime(film.length)}, {shows}
          </p>
          {rows.length > 0 ? (
            <p className="mt-2 flex items-center justify-between gap-2 rounded-md bg-brass-200 px-2 py-1" data-rows>
              <span>
                {rows.length === 1 ? `Row ${rows[0]} of the table` : `${rows.length} variants, named by their rows`}
              </span>
              <Sign name="The film itself, no variants" onClick={() => set({ variants: [] })}>
                <X size={14} strokeWidth={1.5} />
              </Sign>
            </p>
          ) : (
            <Button className="mt-2" onClick={() => set({ sheet: 'variants' })}>
              Variants from a table …
            </Button>
          )}
          <Also format={ask.format} also={also} onAlso={setAlso} lacks={lacks} />
        </div>
        <FileForm
          ask={ask}
          onAsk={setAsk}
          also={also}
          rows={rows.length}
          lacks={lacks}
          onStart={start}
          byHand={byHand}
          onByHand={setByHand}
        />
      </div>
      {strip && <FrameStrip ask={ask} onTimes={(times) => setAsk({ ...ask, times })} onLook={setSeen} />}
      <div className="border-t border-sailcloth-300 px-5 pb-4 pt-3">
        <h2 className="mb-2 font-semibold">Made of this project</h2>
        {list.length === 0 && (
          <p className="text-[0.75rem] text-ink-500">
            Nothing yet. Exports are listed here, and stay until you delete them.
          </p>
        )}
        <ul className="grid gap-1.5">
          {list.map((e) => (
            <Made
              key={e.id}
              e={e}
              more={list.filter((o) => o.state === 'waiting').length > 1}
              onAgain={again}
              onUse={setAsk}
              onGone={() => setList((l) => l.filter((o) => o.id !== e.id))}
            />
          ))}
        </ul>
        <p className="mt-3 text-[0.75rem] text-ink-600">
          To carry on elsewhere,{' '}
          <a className="font-semibold text-brass-700 underline" href={`/api/projects/${project}/bundle`} download>
            save the whole project
          </a>{' '}
          as a .capstan bundle; the start screen opens such bundles.
        </p>
      </div>
    </Sheet>
  )
}
