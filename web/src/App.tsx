// The two screens: the start screen at /, the editor at /p/<project>.
import { clsx } from 'clsx'
import { Component, useEffect, useRef, useState, type ReactNode } from 'react'
import { engineLoaded, loadEngine } from './engine/loading'
import { Desk } from './desk/Desk'
import { Header } from './desk/Header'
import { keepFocus } from './desk/focus'
import { onKey, onKeyUp, onPressed } from './desk/keys'
import { Rail } from './desk/Rail'
import { Shortcuts } from './desk/Shortcuts'
import { WordsSheet } from './desk/WordsSheet'
import { ExportSheet } from './export/ExportSheet'
import { Inspector } from './inspector/Inspector'
import { openProject } from './project/commands'
import { arrived } from './actions/pictures'
import { useDesk } from './project/desk'
import { listen } from './project/events'
import { leaveLarge, toggle } from './project/play'
import { Start } from './start/Start'
import { Notices } from './ui/Notices'
import { Spoken } from './ui/Spoken'
import { PairsSheet } from './pairs/PairsSheet'
import { SceneFinder } from './timeline/SceneFinder'
import { DrawingSheet } from './desk/DrawingSheet'
import { LossesSheet } from './desk/LossesSheet'
import { VariantsSheet } from './variants/VariantsSheet'
import { StagesSheet } from './stages/StagesSheet'
import { Timeline } from './timeline/Timeline'
import { ContextMenu } from './ui/ContextMenu'
import { Button, Progress } from './ui/controls'
import { hold, letGo } from './ui/drags'
import { isNumber, recall, remember } from './remember'
import { rem } from './rem'
import { filmTime } from './time'

const projectInPath = () => /^\/p\/([a-z0-9-]+)$/.exec(location.pathname)?.[1] ?? null

export function App() {
  const [id, setID] = useState(projectInPath)
  useEffect(() => {
    const follow = () => setID(projectInPath())
    window.addEventListener('popstate', follow)
    listen()
    return () => window.removeEventListener('popstate', follow)
  }, [])
  return <Rescue key={id}>{id ? <Editor key={id} id={id} /> : <Start />}</Rescue>
}

/** Catches what breaks while a screen is drawn: words and a way on instead of an empty window. */
class Rescue extends Component<{ children: ReactNode }, { broken: string | null }> {
  state = { broken: null as string | null }

  static getDerivedStateFromError(e: unknown) {
    return { broken: e instanceof Error ? e.message : String(e) }
  }

  render() {
    if (this.state.broken === null) return this.props.children
    return (
      <div className="flex h-full flex-col items-center justify-center gap-3" role="alert">
        <p className="max-w-120 text-center">
          This screen has stumbled. What was stored is kept, up to your last change. ({this.state.broken})
        </p>
        <Button onClick={() => location.reload()}>Load it again</Button>
      </div>
    )
  }
}

/** On slow lines the engine takes a while to come: how much of it is there. */
function Opening() {
  const [share, setShare] = useState<number | null>(null)
  useEffect(() => {
    const begun = performance.now()
    const t = setInterval(() => {
      if (performance.now() - begun > 1000) setShare(engineLoaded())
    }, 200)
    return () => clearInterval(t)
  }, [])
  return (
    <main className="flex h-full flex-col items-center justify-center gap-3 text-ink-600">
      <p role="status">Opening the project …</p>
      {share !== null && <Progress name="Loading the engine" share={share} className="w-60" />}
    </main>
  )
}

function Editor({ id }: { id: string }) {
  const [state, setState] = useState<'loading' | 'ready' | string>('loading')
  useEffect(() => {
    let gone = false
    loadEngine()
      .then(() => (gone ? undefined : openProject(id)))
      .then(
        () => {
          if (gone) return
          setState('ready')
          arrived()
        },
        (e: unknown) => !gone && setState(e instanceof Error ? e.message : String(e)),
      )
    return () => {
      gone = true
    }
  }, [id])
  if (state === 'loading') return <Opening />
  if (state !== 'ready') {
    return (
      <main className="flex h-full flex-col items-center justify-center gap-3">
        <h1 className="text-[0.9375rem] font-semibold">This project did not open</h1>
        <p className="max-w-120 text-center" role="alert">
          {state}
        </p>
        <span className="flex gap-2">
          <Button onClick={() => location.reload()}>Try again</Button>
          <Button
            onClick={() => {
              history.pushState(null, '', '/')
              window.dispatchEvent(new PopStateEvent('popstate'))
            }}
          >
            All projects
          </Button>
        </span>
      </main>
    )
  }
  return <Room />
}

/** The film alone. Space plays and pauses, Escape goes back. */
function Large() {
  const playing = useDesk((d) => d.playing)
  const time = useDesk((d) => `${filmTime(d.moment.time)} / ${filmTime(d.film?.length ?? 0)}`)
  return (
    <main className="on-spruce relative h-full bg-spruce-950 text-foam-100" data-large>
      <h1 className="sr-only">Large view</h1>
      <Desk />
      <div
        className={clsx(
          'absolute inset-x-0 bottom-4 flex items-center justify-center gap-3 opacity-0 touch:opacity-100',
          'focus-within:opacity-100 hover:opacity-100',
        )}
      >
        <button type="button" className="h-8 rounded-md bg-spruce-800 px-3 hover:bg-spruce-700" onClick={toggle}>
          {playing ? 'Pause' : 'Play'}
        </button>
        <span className="font-mono text-[0.8125rem]">{time}</span>
        <button type="button" className="h-8 rounded-md bg-spruce-800 px-3 hover:bg-spruce-700" onClick={leaveLarge}>
          Back to the desk
        </button>
      </div>
    </main>
  )
}

// The timeline is at least as high as its heading; above it the header, a page of 160 px and the rail have their room.
const least = 84 * rem
const aboveAll = 260 * rem

/** The size of the window, and whether it is so narrow that the inspector is a drawer. */
function useWindow() {
  const now = () => ({ height: window.innerHeight, narrow: window.innerWidth < 900 * rem })
  const [size, setSize] = useState(now)
  useEffect(() => {
    const changed = () => setSize(now())
    window.addEventListener('resize', changed)
    return () => window.removeEventListener('resize', changed)
  }, [])
  return size
}

/** The editor: light desk above, dark timeline below, a divider between them. */
function Room() {
  const sheet = useDesk((d) => d.sheet)
  const large = useDesk((d) => d.large)
  const film = useDesk((d) => d.film)
  const name = film?.name
  useEffect(() => {
    document.title = name ? `${name} · Capstan` : 'Capstan'
    return () => {
      document.title = 'Capstan'
    }
  }, [name])
  const key = film ? `capstan.desk.${film.width >= film.height ? 'wide' : 'upright'}` : ''
  const usual = (film && film.height > film.width ? 250 : 332) * rem
  const [asked, setAsked] = useState(() => recall(key, isNumber, usual))
  const { height, narrow } = useWindow()
  const room = useDesk((d) => d.room)
  const drawer = useDesk((d) => d.drawer)
  const most = Math.max(least, height - aboveAll)
  const below = Math.min(most, Math.max(least, asked)) // what was kept may be of a larger window
  const from = useRef<{ y: number; below: number } | null>(null)
  useEffect(() => {
    window.addEventListener('keydown', onKey)
    window.addEventListener('keyup', onKeyUp)
    window.addEventListener('click', onPressed)
    const letFocusGo = keepFocus()
    return () => {
      letFocusGo()
      window.removeEventListener('keyup', onKeyUp)
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('click', onPressed)
    }
  }, [])
  const resize = (h: number) => {
    const to = Math.round(Math.min(most, Math.max(least, h)))
    setAsked(to)
    remember(key, to)
  }
  // As high as all rows need; from there, as it was at first.
  const fitRows = () => {
    const view = document.querySelector<HTMLElement>('[data-timeline]')!
    const rows = view.querySelector<HTMLElement>('[data-rows]')!
    const fits = Math.min(
      most,
      Math.round(below - view.getBoundingClientRect().bottom + rows.getBoundingClientRect().bottom + view.scrollTop),
    )
    resize(Math.abs(fits - below) < 3 ? usual : fits)
  }
  if (large) return <Large />
  return (
    <div className={clsx('flex h-full flex-col', height < aboveAll + least && 'overflow-y-auto')}>
      <Header narrow={narrow} />
      {room !== 'timeline' && (
        <div className="relative flex min-h-50 flex-1">
          <main className="flex min-w-0 flex-1 flex-col">
            <h1 className="sr-only">{name}</h1>
            <div className="min-h-40 flex-1">
              <Desk />
            </div>
            <Rail />
            <ContextMenu />
          </main>
          {(!narrow || drawer) && <Inspector narrow={narrow} />}
        </div>
      )}
      <div
        className={clsx('flex', room === 'timeline' ? 'min-h-0 flex-1' : 'shrink-0', room === 'desk' && 'hidden')}
        style={{ height: room === 'timeline' ? undefined : below }}
      >
        <Timeline>
          {room === 'timeline' && <ContextMenu />}
          <div
            role="separator"
            tabIndex={0}
            aria-label="Divider between page and timeline"
            aria-orientation="horizontal"
            aria-valuenow={below}
            aria-valuemin={least}
            aria-valuemax={most}
            title="Drag; a double press shows all rows"
            className={clsx(
              'absolute inset-x-0 -top-[3px] z-30 h-1.5 cursor-ns-resize hover:bg-brass-400',
              'focus-visible:bg-brass-400',
            )}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId)
              from.current = { y: e.clientY, below }
              hold(() => {
                from.current = null
                resize(below)
              })
            }}
            onPointerMove={(e) => from.current && resize(from.current.below + from.current.y - e.clientY)}
            onPointerUp={() => {
              from.current = null
              letGo()
            }}
            onDoubleClick={fitRows}
            onKeyDown={(e) => {
              const by = { ArrowUp: 20, ArrowDown: -20 }[e.key]
              if (by) {
                e.preventDefault()
                e.stopPropagation()
                resize(below + by)
              }
            }}
          />
        </Timeline>
      </div>
      {sheet === 'export' && <ExportSheet />}
      {sheet === 'variants' && <VariantsSheet />}
      {sheet === 'losses' && <LossesSheet />}
      {sheet === 'drawing' && <DrawingSheet />}
      {sheet === 'stages' && <StagesSheet />}
      {sheet === 'pairs' && <PairsSheet />}
      {sheet === 'scenes' && <SceneFinder />}
      {sheet === 'keys' && <Shortcuts />}
      {sheet === 'words' && <WordsSheet />}
      {sheet === 'none' && (
        <>
          <Notices />
          <Spoken />
        </>
      )}
      <svg width="0" height="0" className="absolute" aria-hidden>
        <defs>
          <pattern id="hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="1.5" height="5" fill="#8FA8A1" opacity="0.6" />
          </pattern>
        </defs>
      </svg>
    </div>
  )
}
