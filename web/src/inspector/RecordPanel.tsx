// A voice recorded from the microphone: counted in, with its level, in takes that are heard before one is used.
import { useEffect, useRef, useState } from 'react'
import type { Media } from '../engine/types'
import { run } from '../project/commands'
import { desk, fail, mended, selectSounds, set } from '../project/desk'
import { pause, play } from '../project/play'
import { uploadSound } from '../server/server'
import { listenIn, type Listening } from '../sound/recording'
import { hearRecording, quiet } from '../sound/trying'
import { setHushed } from '../sound/listening'
import { Check } from '../ui/Check'
import { Button } from '../ui/controls'
import { fault } from '../words'

interface Take {
  name: string
  hash: string
  media: Media
}

export function RecordPanel() {
  const [why, setWhy] = useState('')
  const [count, setCount] = useState(0)
  const [state, setState] = useState<'idle' | 'counting' | 'recording' | 'storing'>('idle')
  const [takes, setTakes] = useState<Take[]>([])
  const [along, setAlong] = useState(false)
  const [since, setSince] = useState(0)
  const mic = useRef<Listening | null>(null)
  const end = useRef<(() => Promise<File>) | null>(null)
  const bar = useRef<HTMLSpanElement>(null)
  const timer = useRef(0)
  const wasHushed = useRef(false)

  useEffect(() => {
    let gone = false
    let frame = 0
    listenIn()
      .then((m) => {
        if (gone) return m.close()
        mic.current = m
        const look = () => {
          if (bar.current) bar.current.style.width = `${Math.min(100, 100 * m.level())}%`
          frame = requestAnimationFrame(look)
        }
        look()
      })
      .catch((e) =>
        setWhy(e instanceof DOMException && e.name === 'NotFoundError' ? fault('mic.none') : fault('mic.refused')),
      )
    return () => {
      gone = true
      cancelAnimationFrame(frame)
      clearInterval(timer.current)
      mic.current?.close()
      quiet()
    }
  }, [])

  const begin = () => {
    quiet()
    setState('counting')
    setCount(3)
    let left = 3
    timer.current = window.setInterval(() => {
      left--
      setCount(left)
      if (left > 0) return
      clearInterval(timer.current)
      end.current = mic.current!.take(`Take ${takes.length + 1}`)
      const from = performance.now()
      setSince(0)
      timer.current = window.setInterval(() => setSince(performance.now() - from), 100)
      setState('recording')
      if (along) {
        wasHushed.current = desk().hushed
        setHushed(true) // what the film lets be heard would be recorded, too
        play()
      }
    }, 1000)
  }
  const stop = async () => {
    clearInterval(timer.current)
    if (state === 'counting') return setState('idle')
    if (along) {
      pause()
      setHushed(wasHushed.current)
    }
    setState('storing')
    try {
      const file = await end.current!()
      const { hash, media } = await uploadSound(file)
      mended('intake')
      setTakes((t) => [...t, { name: `Take ${t.length + 1}`, hash, media }])
    } catch (e) {
      fail(e, 'intake')
    }
    setState('idle')
  }
  const use = (t: Take) => {
    const before = new Set(desk().sounds.rows.map((r) => r.id))
    if (!run('sound.add', { hash: t.hash, media: { ...t.media, name: t.name }, use: 'voice' })) return
    selectSounds(
      desk()
        .sounds.rows.filter((r) => !before.has(r.id))
        .map((r) => r.id),
    )
  }
  return (
    <div data-record-panel>
      <div className="flex h-10.25 items-center border-b border-sailcloth-300 px-4">
        <h2 className="flex-1 text-[0.875rem] font-semibold">Record a voice</h2>
        <Button look="quiet" className="!h-7 !px-2 text-[0.75rem]" onClick={() => set({ speaking: '' })}>
          Close
        </Button>
      </div>
      {why ? (
        <p className="px-4 py-3 text-[0.75rem] leading-snug" data-mic-lacks>
          {why}
        </p>
      ) : (
        <div className="flex flex-col gap-2 px-4 py-3">
          <span
            className="block h-2 overflow-hidden rounded bg-sailcloth-300"
            role="img"
            aria-label="Level of the microphone"
          >
            <span ref={bar} className="block h-full bg-brass-600" style={{ width: 0 }} />
          </span>
          <div className="flex items-center gap-2">
            {state === 'idle' || state === 'storing' ? (
              <Button look="main" className="!h-8" disabled={state === 'storing'} onClick={begin}>
                Record
              </Button>
            ) : (
              <Button look="main" className="!h-8" onClick={() => void stop()}>
                Stop
              </Button>
            )}
            <span className="font-mono text-[0.875rem]" aria-live="polite" data-record-state={state}>
              {state === 'counting' ? count : state === 'recording' ? `${(since / 1000).toFixed(1)} s` : ''}
            </span>
          </div>
          <Check name="The film plays along, in silence" on={along} onSet={setAlong} />
          {takes.length > 0 && (
            <ul aria-label="Takes" className="grid gap-1">
              {takes.map((t) => (
                <li key={t.name} className="flex items-center gap-1 text-[0.75rem]">
                  <span className="flex-1">
                    {t.name}, {((t.media.samples ?? 0) / 48000).toFixed(1)} s
                  </span>
                  <Button className="!h-7 !px-2" onClick={() => void hearRecording(t.hash, t.media).catch(fail)}>
                    Hear it
                  </Button>
                  <Button className="!h-7 !px-2" onClick={() => use(t)}>
                    Use it
                  </Button>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </div>
  )
}
