// The rail between page and timeline: what can be added, and the zoom of the page.
import { pictureFiles, soundFiles } from '../server/server'
import { clsx } from 'clsx'
import { AudioLines, Ghost, Image, Minus, Plus, Route, Type } from 'lucide-react'
import { type ReactNode } from 'react'
import { engine } from '../engine/engine'
import { look, set, showAlone, toRest, useDesk, type Tool, openGallery } from '../project/desk'
import { Sign } from '../ui/controls'
import { Helps } from './Helps'
import { within } from './view'
import { pickTool } from '../actions/tools'
import { choosePictures, takePictures } from '../actions/pictures'
import { readCaptions } from '../actions/captions'
import { soundChoices, takeSounds } from '../actions/sounds'
import { openMenu, openMenuAt } from '../ui/ContextMenu'
import { keyed, useKeymap } from '../ui/keymap'
import { pin, usePins } from '../ui/pins'
import { shortcuts } from './shortcuts'
import { Says } from './Says'
import { ShapeSign } from '../ui/ShapeSign'
import { Shapes } from './Shapes'

const signs: Record<string, ReactNode> = {
  text: <Type size={18} strokeWidth={1.5} />,
  path: <Route size={18} strokeWidth={1.5} />,
  pen: (
    <svg width="18" height="18" viewBox="0 0 18 18" fill="none" stroke="currentColor" strokeWidth="1.5" aria-hidden>
      <path d="M3 14C5 6 10 4 15 4" />
      <rect x="1.500" y="12.500" width="3" height="3" />
      <rect x="13.500" y="2.500" width="3" height="3" />
      <path d="M7 2.500L11.500 8" />
    </svg>
  ),
  hand: (
    <svg
      width="18"
      height="18"
      viewBox="0 0 18 18"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.5"
      strokeLinecap="round"
      aria-hidden
    >
      <path d="M2 12c2-6 5-8 6-6s-4 7-1 7 4-6 6-6-1 5 3 4" />
    </svg>
  ),
}

/** Words for which there is no room where the desk is narrow; the signs stay, with their names. */
const narrow = '@max-[58.75rem]:hidden'
const tight = '@max-[43rem]:hidden'

export function Rail() {
  const tool = useDesk((d) => d.tool)
  const some = useDesk((d) => d.selection.length > 0)
  const offer = useDesk((d) => (d.offer && d.selection.includes(d.offer) ? d.offer : null))
  const ghosts = useDesk((d) => d.ghosts)
  const room = useDesk((d) => d.room)
  const entry = (t: Tool, word: string, key: string, disabled = false, spare = narrow) => (
    <button
      type="button"
      key={t}
      aria-label={word}
      disabled={disabled}
      aria-pressed={tool === t}
      title={keyed(`${word} (${key})`)}
      onClick={() => (tool === t ? set({ tool: 'select' }) : pickTool(t))}
      className={clsx(
        'flex h-7 items-center gap-1.5 whitespace-nowrap rounded-md px-1.5 disabled:opacity-40',
        tool === t ? 'bg-brass-200' : 'hover:bg-sailcloth-200',
      )}
    >
      {signs[t] ?? <ShapeSign d={engine.shapes().find((k) => k.kind === t)!.d} />}
      <span className={spare}>{word}</span>
    </button>
  )
  return (
    <div
      className={clsx(
        '@container relative flex min-h-9 shrink-0 flex-wrap items-center gap-0.5 border-t border-sailcloth-300',
        'bg-paper px-3',
      )}
      role="toolbar"
      aria-label="Add"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        if (e.dataTransfer.files.length) void takePictures([...e.dataTransfer.files])
      }}
    >
      <span className="pr-1 font-semibold @max-[67.5rem]:hidden">Add</span>
      {entry('rectangle', 'Rectangle', '1')}
      {entry('ellipse', 'Ellipse', '2')}
      <Shapes tool={tool} />
      {entry('pen', 'Pen', '6')}
      {entry('hand', 'Freehand', '7')}
      {entry('text', 'Text', '3')}
      <button
        type="button"
        aria-label="Picture"
        title={keyed('Picture from disk (4)')}
        onClick={() => {
          toRest()
          choosePictures()
        }}
        className="flex h-7 items-center gap-1.5 rounded-md px-1.5 hover:bg-sailcloth-200"
      >
        <Image size={18} strokeWidth={1.5} />
        <span className={narrow}>Picture</span>
      </button>
      <input
        type="file"
        accept={pictureFiles}
        multiple
        hidden
        data-picture-input
        aria-label="Picture files"
        onChange={(e) => {
          void takePictures([...(e.target.files ?? [])])
          e.target.value = ''
        }}
      />
      <button
        type="button"
        aria-label="Sound"
        aria-haspopup="true"
        title={keyed('Sound: music, an effect, a voice; from disk (Shift+S)')}
        onClick={(e) => {
          const r = e.currentTarget.getBoundingClientRect()
          openMenuAt(r.left, r.top - 4, 'Sound', soundChoices(), true)
        }}
        className="flex h-7 items-center gap-1.5 rounded-md px-1.5 hover:bg-sailcloth-200"
      >
        <AudioLines size={18} strokeWidth={1.5} />
        <span className="@max-[67.5rem]:hidden">Sound</span>
      </button>
      <input
        type="file"
        accept={soundFiles}
        multiple
        hidden
        data-sound-input
        aria-label="Sound files"
        onChange={(e) => {
          void takeSounds([...(e.target.files ?? [])])
          e.target.value = ''
        }}
      />
      <input
        type="file"
        accept=".srt,.vtt,text/vtt,application/x-subrip"
        hidden
        data-caption-input
        aria-label="File of captions"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) void readCaptions(file)
          e.target.value = ''
        }}
      />
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      <button
        type="button"
        aria-haspopup="true"
        disabled={!some}
        aria-label="Move"
        title={keyed('A move for what is selected (E)')}
        onClick={() => openGallery()}
        className="flex h-7 items-center gap-1.5 rounded-md px-1.5 hover:bg-sailcloth-200 disabled:opacity-40"
      >
        <svg
          width="18"
          height="18"
          viewBox="0 0 18 18"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
          strokeLinejoin="round"
          aria-hidden
        >
          <path d="M1.5 14.500C6 14.500 7 4 11 4h5.500v10.500z" />
        </svg>
        <span className={tight}>Move</span>
      </button>
      <span className="@max-[61rem]:hidden">{entry('path', 'Motion path', '5', !some, '@max-[75rem]:hidden')}</span>
      <Pinned />
      <Says offer={some ? offer : null} />
      <span className="flex-1" />
      <Sign
        name="Ghosts: where the selected layers were and will be (G)"
        pressed={ghosts}
        className={ghosts ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}
        onClick={() => look({ ghosts: !ghosts })}
      >
        <Ghost size={16} strokeWidth={1.5} />
      </Sign>
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      <Helps />
      <Zoom />
      <Sign
        name="The desk alone, or with the timeline (D)"
        pressed={room === 'desk'}
        className={room === 'desk' ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}
        onClick={() => showAlone('desk')}
      >
        <svg width="16" height="16" viewBox="0 0 16 16" fill="none" stroke="currentColor" strokeWidth="1.5" aria-hidden>
          <path d="M2.500 2.500h11v8h-11zM2.500 13.500h11" />
        </svg>
      </Sign>
      <Sign name="The timeline alone (T)" className="hover:bg-sailcloth-200" onClick={() => showAlone('timeline')}>
        <svg width="16" height="16" viewBox="0 0 16 16" fill="none" stroke="currentColor" strokeWidth="1.5" aria-hidden>
          <path d="M2.500 2.500h11M2.500 5.500h11v8h-11zM2.500 9.500h11" />
        </svg>
      </Sign>
    </div>
  )
}

/** Commands that were pinned in the sheet of keys. */
function Pinned() {
  const { pins } = usePins()
  useKeymap() // the keys they have now
  if (pins.length === 0) return null
  return (
    <>
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      {pins.map((keys) => {
        const s = shortcuts.find((s) => s.keys === keys)
        return (
          s && (
            <button
              key={keys}
              type="button"
              data-pin={keys}
              aria-label={s.does}
              title={keyed(`${s.does} (${keys})`)}
              onClick={() => s.run()}
              onContextMenu={(e) =>
                openMenu(e, s.does, [
                  { word: 'Take it off the rail', run: () => pin(keys) },
                  { word: 'All commands …', key: '?', run: () => set({ sheet: 'keys' }) },
                ])
              }
              className="h-7 max-w-30 truncate rounded-md px-2 text-[0.75rem] hover:bg-sailcloth-200"
            >
              {s.does.split(/[:;,]/)[0]}
            </button>
          )
        )
      })}
    </>
  )
}

function Zoom() {
  const zoom = useDesk((d) => d.zoom)
  const scale = useDesk((d) => d.scale)
  const by = (k: number) => {
    const pan = zoom === 'fit' ? { x: 0, y: 0 } : useDesk.getState().pan
    const to = within(scale * k)
    set({ zoom: to, pan: { x: (pan.x * to) / scale, y: (pan.y * to) / scale } })
  }
  return (
    <div className="flex items-center">
      <button
        type="button"
        aria-pressed={zoom === 'fit'}
        title={keyed('Fit the page (0)')}
        onClick={() => set({ zoom: 'fit', pan: { x: 0, y: 0 } })}
        className={`h-7 rounded-md px-2 ${zoom === 'fit' ? 'font-semibold' : 'hover:bg-sailcloth-200'}`}
      >
        Fit
      </button>
      <Sign name="Zoom out" className="hover:bg-sailcloth-200" onClick={() => by(1 / 1.25)}>
        <Minus size={16} strokeWidth={1.5} />
      </Sign>
      <button
        type="button"
        title="Full size"
        className="h-7 w-11.5 rounded-md text-center font-mono text-[0.75rem] hover:bg-sailcloth-200"
        onClick={() => set({ zoom: 1, pan: { x: 0, y: 0 } })}
      >
        {Math.round(scale * 100)} %
      </button>
      <Sign name="Zoom in" className="hover:bg-sailcloth-200" onClick={() => by(1.25)}>
        <Plus size={16} strokeWidth={1.5} />
      </Sign>
    </div>
  )
}
