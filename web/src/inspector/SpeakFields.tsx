// Words that are spoken by a voice: heard before they are taken, and spoken again when they have changed.
import { useEffect, useRef, useState } from 'react'
import type { Spoken } from '../engine/types'
import { run } from '../project/commands'
import { desk, fail, mended, selectSounds, set } from '../project/desk'
import { listVoices, speak, type Voice } from '../server/server'
import { hearRecording, quiet } from '../sound/trying'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { isTexts, recall, remember } from '../remember'

type Made = Awaited<ReturnType<typeof speak>>

/** The panel in which a new voice is made. */
export function SpeakPanel() {
  const [voice, variant, rate] = recall('voice', isTexts, ['en-gb', 'f2', '1'])
  return (
    <div data-speak-panel>
      <div className="flex h-10.25 items-center border-b border-sailcloth-300 px-4">
        <h2 className="flex-1 text-[0.875rem] font-semibold">Speak some words</h2>
        <Button look="quiet" className="!h-7 !px-2 text-[0.75rem]" onClick={() => set({ speaking: '' })}>
          Close
        </Button>
      </div>
      <div className="px-4 py-2">
        <SpeakFields spoken={{ text: '', voice, variant, rate: Number(rate), pause: 350 }} id="" />
      </div>
    </div>
  )
}

export function SpeakFields({ spoken, id }: { spoken: Spoken; id: string }) {
  const [how, setHow] = useState(spoken)
  const [voices, setVoices] = useState<{ why: string; voices: Voice[]; variants: Voice[] } | null>(null)
  const [busy, setBusy] = useState(false)
  const made = useRef<{ of: string; made: Made } | null>(null)
  const stop = useRef<AbortController | null>(null)
  useEffect(() => {
    listVoices().then(setVoices).catch(fail)
    return () => {
      stop.current?.abort()
      quiet()
    }
  }, [])
  const change = (by: Partial<Spoken>) => setHow({ ...how, ...by })
  const asked = JSON.stringify({ ...how, lines: undefined })
  // What is spoken already is not spoken again.
  const make = async (): Promise<Made | null> => {
    if (made.current?.of === asked) return made.current.made
    stop.current = new AbortController()
    setBusy(true)
    try {
      const m = await speak({ ...how, lines: undefined }, stop.current.signal)
      mended('intake')
      made.current = { of: asked, made: m }
      return m
    } catch (e) {
      if (!stop.current.signal.aborted) fail(e, 'intake')
      return null
    } finally {
      setBusy(false)
    }
  }
  const hear = async () => {
    const m = await make()
    if (m) await hearRecording(m.hash, m.media).catch(fail)
  }
  const take = async () => {
    const m = await make()
    if (!m) return
    quiet()
    remember('voice', [how.voice, how.variant ?? '', String(how.rate ?? 1)])
    const before = new Set(desk().sounds.rows.map((r) => r.id))
    if (!run('sound.speak', { hash: m.hash, media: m.media, spoken: m.spoken, id }) || id) return
    selectSounds(
      desk()
        .sounds.rows.filter((r) => !before.has(r.id))
        .map((r) => r.id),
    )
  }
  if (voices?.why)
    return (
      <p className="text-[0.75rem] leading-snug" data-speech-lacks>
        {voices.why}
      </p>
    )
  const known = voices?.voices.some((v) => v.id === how.voice)
  return (
    <div className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
      <textarea
        aria-label="Words to be spoken"
        value={how.text}
        rows={4}
        maxLength={5000}
        placeholder="Kites up at ten. Bring a long tail!"
        autoFocus={!id}
        className="col-span-2 rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2 py-1.5 leading-snug"
        onChange={(e) => change({ text: e.target.value })}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Escape') set({ speaking: '' })
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void take()
        }}
      />
      <Label>Language</Label>
      <Choice
        name="Language of the voice"
        value={how.voice}
        of={[
          ...(known || !voices ? [] : [{ value: how.voice, label: how.voice }]),
          ...(voices?.voices ?? [{ id: how.voice, name: '…' }]).map((v) => ({ value: v.id, label: v.name })),
        ]}
        onSet={(voice) => change({ voice })}
      />
      <Label>Voice</Label>
      <Choice
        name="Kind of voice"
        value={how.variant || 'plain'}
        of={(voices?.variants ?? []).map((v) => ({ value: v.id || 'plain', label: v.name }))}
        onSet={(v) => change({ variant: v === 'plain' ? undefined : v })}
      />
      <Label>Speaks</Label>
      <Choice
        name="How fast it speaks"
        value={String(how.rate ?? 1)}
        of={[
          ...([0.7, 0.85, 1, 1.15, 1.35].includes(how.rate ?? 1)
            ? []
            : [{ value: String(how.rate), label: `${how.rate} times as fast` }]),
          { value: '0.7', label: 'slowly' },
          { value: '0.85', label: 'a little slower' },
          { value: '1', label: 'as it does' },
          { value: '1.15', label: 'a little faster' },
          { value: '1.35', label: 'fast' },
        ]}
        onSet={(v) => change({ rate: Number(v) })}
      />
      <NumberField
        quiet
        label="Pitch"
        name="Pitch of the voice: -100 is low, 100 is high"
        min={-100}
        max={100}
        value={Math.round((how.pitch ?? 0) * 100)}
        onSet={(v) => change({ pitch: v / 100 })}
      />
      <NumberField
        quiet
        label="Pauses"
        name="Pause between sentences"
        unit="s"
        digits={2}
        step={0.1}
        min={0}
        max={10}
        value={(how.pause ?? 0) / 1000}
        onSet={(v) => change({ pause: Math.round(v * 1000) })}
      />
      <div className="col-span-2 flex gap-1">
        <Button className="!h-7 text-[0.75rem]" disabled={busy || !how.text.trim()} onClick={() => void hear()}>
          Hear it
        </Button>
        <Button
          look="main"
          className="!h-7 text-[0.75rem]"
          disabled={busy || !how.text.trim() || (!!id && asked === JSON.stringify({ ...spoken, lines: undefined }))}
          onClick={() => void take()}
        >
          {id ? 'Speak it again' : 'Add the voice'}
        </Button>
        {busy && (
          <Button look="quiet" className="!h-7 text-[0.75rem]" onClick={() => stop.current?.abort()}>
            Cancel
          </Button>
        )}
      </div>
    </div>
  )
}
