// What is seen as a drawing in SVG: shown as it will be, to copy or to save.
import { useEffect, useState } from 'react'
import { allStored } from '../project/commands'
import { desk, fail, say, set, useDesk } from '../project/desk'
import { drawingOf } from '../server/server'
import { filmTime, bytes } from '../time'
import { Choice } from '../ui/Choice'
import { Button, Label } from '../ui/controls'
import { Sheet } from '../ui/Sheet'
import { notice } from '../words'

export function DrawingSheet() {
  const { moment, film, scene, selection, selected } = useDesk((d) => d)
  const [all, setAll] = useState(!selection.length)
  const [words, setWords] = useState(false)
  const [made, setMade] = useState<{ text: string; at: string; size: number } | null>(null)
  const [trouble, setTrouble] = useState('')
  const name = !all && selected.length === 1 ? selected[0].layer.name : film!.scenes[scene].name
  useEffect(() => {
    const stop = new AbortController()
    let at = ''
    setTrouble('')
    const make = async () => {
      await allStored()
      const of = { film: film!.film ?? '', scene, threads: all ? [] : selection, words }
      const b = await drawingOf(
        desk().project!,
        { ...of, ...(!moment.rest && { at: Math.round(moment.time) }) },
        stop.signal,
      )
      const text = await b.text()
      if (stop.signal.aborted) return
      at = URL.createObjectURL(b)
      setMade({ text, at, size: b.size })
    }
    make().catch((e: Error) => {
      if (stop.signal.aborted) return
      setMade(null)
      setTrouble(e.message)
    })
    return () => {
      stop.abort()
      if (at) URL.revokeObjectURL(at)
    }
  }, [all, words, scene])
  const save = () => {
    const a = document.createElement('a')
    a.href = made!.at
    a.download = `${name}.svg`
    a.click()
  }
  return (
    <Sheet title={`“${name}” as SVG`} onClose={() => set({ sheet: 'none' })}>
      <div className="flex gap-5 px-5 py-4">
        <div className="grid h-56 w-70 shrink-0 place-items-center bg-sailcloth-200 p-2" data-drawing>
          {made && <img src={made.at} alt="As it will be" className="max-h-52 max-w-66 bg-paper" />}
          {trouble && <p role="alert">{trouble}</p>}
        </div>
        <div className="flex min-w-0 grow flex-col gap-3">
          <div>
            <Label>What</Label>
            <Choice
              name="What"
              value={all ? 'page' : 'selection'}
              of={[
                { value: 'selection', label: 'What is selected', disabled: !selection.length },
                { value: 'page', label: 'The whole page' },
              ]}
              onSet={(v) => setAll(v === 'page')}
            />
          </div>
          <div>
            <Label>Texts</Label>
            <Choice
              name="Texts"
              value={words ? 'words' : 'outlines'}
              of={[
                { value: 'outlines', label: 'As outlines' },
                { value: 'words', label: 'As words' },
              ]}
              onSet={(v) => setWords(v === 'words')}
            />
          </div>
          <p className="text-ink-600">
            {words
              ? 'Words can be changed later; they need their families where the drawing is shown.'
              : 'Outlines look the same everywhere; their words cannot be changed.'}
          </p>
          <p className="mt-auto text-ink-600">
            {moment.rest ? 'As the scene rests' : `As it is at ${filmTime(moment.time)}`}
            {made && ` · ${bytes(made.size)}`}
          </p>
          <div className="flex justify-end gap-2">
            <Button
              disabled={!made}
              onClick={() => navigator.clipboard.writeText(made!.text).then(() => say(notice('drawing.copied')), fail)}
            >
              Copy
            </Button>
            <Button look="main" disabled={!made} onClick={save} data-autofocus>
              Save
            </Button>
          </div>
        </div>
      </div>
    </Sheet>
  )
}
