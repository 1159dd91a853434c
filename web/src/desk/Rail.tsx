// The rail between page and timeline: what can be added, and the zoom of the page.
import { clsx } from 'clsx'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { Ghost, Image, Minus, Plus, Route, Type, X } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'
import { engine } from '../engine/engine'
import { offerMoves } from '../actions/adding'
import { desk, look, selectNew, set, showAlone, toRest, useDesk, type Tool } from '../project/desk'
import { carryEdit, run } from '../project/commands'
import { Button, Sign } from '../ui/controls'
import { keepKeys } from '../ui/typing'
import { Helps } from './Helps'
import { within } from './view'
import { penMirror } from '../actions/drawing'
import { pickTool } from '../actions/tools'
import { choosePictures, takePictures } from '../actions/pictures'
import { openMenu } from '../ui/ContextMenu'
import { keyed, useKeymap } from '../ui/keymap'
import { pin, usePins } from '../ui/pins'
import { shortcuts } from './shortcuts'
import { counted } from '../words'

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

/** The outline of a shape as a sign. */
const ShapeSign = ({ d }: { d: string }) => (
  <svg
    width="20"
    height="20"
    viewBox="-10 -10 20 20"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.4"
    strokeLinejoin="round"
    aria-hidden
  >
    <path d={d} />
  </svg>
)

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
        accept="image/png,image/jpeg"
        multiple
        hidden
        data-picture-input
        aria-label="Picture files"
        onChange={(e) => {
          void takePictures([...(e.target.files ?? [])])
          e.target.value = ''
        }}
      />
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      <button
        type="button"
        aria-haspopup="menu"
        disabled={!some}
        aria-label="Move"
        title={keyed('A move for what is selected (E)')}
        onClick={(e) => {
          const r = e.currentTarget.getBoundingClientRect()
          offerMoves(r.left, r.top - 4, null, true)
        }}
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

/**
 * What the tool in hand asks for, on the desk above the rail: there is room for it there at any width. The page goes
 * on under it.
 */
function Says({ offer }: { offer: string | null }) {
  const tool = useDesk((d) => d.tool)
  const mirror = useDesk((d) => d.mirror)
  const smoothing = useDesk((d) => d.smoothing)
  const picking = useDesk((d) => !!d.picking)
  const across = useDesk((d) => d.across)
  const ordering = useDesk((d) => d.ordering)
  if (!offer && !picking && tool === 'select' && !across && !ordering) return null
  return (
    <div
      role="status"
      className={clsx(
        'pointer-events-none absolute bottom-full left-0 mb-1 ml-2 flex h-8 items-center gap-2',
        'whitespace-nowrap rounded-md border border-sailcloth-300 bg-paper px-2.5 text-[0.75rem]',
        'text-ink-600 *:pointer-events-auto',
      )}
    >
      {offer && (
        <>
          <Button
            look="main"
            onClick={() => {
              run('ground.make', { threads: [offer] })
              set({ offer: null })
            }}
          >
            Make it the ground
          </Button>
          <Sign name="Leave it as it is" className="hover:bg-sailcloth-200" onClick={() => set({ offer: null })}>
            <X size={14} strokeWidth={1.5} />
          </Sign>
        </>
      )}
      {ordering && !picking && (
        <>
          Press the layer that it goes {ordering === 'above' ? 'in front of' : 'behind'}, here or in its row. Escape
          lets go.
        </>
      )}
      {!offer && !picking && !ordering && tool === 'select' && across && (
        <>
          <Button
            className="!gap-[3px]"
            aria-label={`also ${across.what}, in ${counted(across.count, 'later scene')}`}
            title="Does the same to this thread in the scenes that follow"
            onClick={carryEdit}
          >
            also <span className="max-w-60 truncate">{across.what},</span> in {counted(across.count, 'later scene')}
          </Button>
          <Sign
            name="Leave later scenes as they are"
            className="hover:bg-sailcloth-200"
            onClick={() => set({ across: null })}
          >
            <X size={14} strokeWidth={1.5} />
          </Sign>
        </>
      )}
      {picking && <>Press the page where the colour is. Escape lets go.</>}
      {tool === 'pen' && (
        <>
          <Button
            aria-pressed={mirror}
            className={mirror ? '!bg-brass-200' : ''}
            title="Draws the other side too, about the upright line through the first point"
            onClick={penMirror}
          >
            Both sides
          </Button>
          Press for corners, drag for curves. Enter ends, Backspace takes back.
        </>
      )}
      {tool === 'hand' && (
        <>
          Smoothing
          <input
            type="range"
            aria-label="Smoothing"
            min={1}
            max={24}
            value={smoothing}
            onChange={(e) => set({ smoothing: Number(e.target.value) })}
            onKeyDown={keepKeys}
            className="w-22.5 accent-brass-600"
          />
          Draw a line. Escape lets go.
        </>
      )}
      {tool !== 'select' && tool !== 'pen' && tool !== 'hand' && (
        <>
          {tool === 'path'
            ? 'Drag from the layer to where it goes, or from the wings to let it arrive.'
            : tool === 'text'
              ? 'Press where the words go.'
              : 'Drag it, or press for the usual size. Shift: equal sides; Alt: from the middle.'}{' '}
          Escape lets go.
        </>
      )}
    </div>
  )
}

/** All shapes, by their outlines. */
function Shapes({ tool }: { tool: Tool }) {
  const shapes = useMemo(() => engine.shapes(), [])
  const picked = shapes.find((s) => s.kind === tool && tool !== 'rectangle' && tool !== 'ellipse')
  return (
    <Menu>
      <MenuButton
        aria-label={picked?.name ?? 'Shapes'}
        title="All shapes"
        className={clsx(
          'flex h-7 items-center gap-1.5 rounded-md px-1.5',
          picked ? 'bg-brass-200' : 'hover:bg-sailcloth-200',
        )}
      >
        <ShapeSign d={(picked ?? shapes.find((s) => s.kind === 'star')!).d} />
        <span className={tight}>{picked?.name ?? 'Shapes'}</span>
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden>
          <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </svg>
      </MenuButton>
      <MenuItems
        anchor={{ to: 'top start', gap: 6, padding: 8 }}
        // It is a grid: to the sides, too.
        onKeyDown={(e: React.KeyboardEvent) => {
          const key = { ArrowRight: 'ArrowDown', ArrowLeft: 'ArrowUp' }[e.key]
          if (key) e.currentTarget.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
        }}
        className={clsx(
          'z-50 grid grid-cols-4 gap-1 rounded-md border border-sailcloth-300 bg-paper p-2',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        {shapes.map((s) => (
          <MenuItem key={s.kind}>
            <button
              type="button"
              aria-label={s.name}
              onClick={() => pickTool(s.kind)}
              className={clsx(
                'flex h-14.5 w-19 flex-col items-center justify-center gap-1 rounded-md text-[0.6875rem]',
                'data-focus:bg-brass-200',
              )}
            >
              <svg
                width="30"
                height="30"
                viewBox="-10 -10 20 20"
                fill="none"
                stroke="currentColor"
                strokeWidth="1"
                strokeLinejoin="round"
                aria-hidden
              >
                <path d={s.d} />
              </svg>
              {s.name}
            </button>
          </MenuItem>
        ))}
        <div className="col-span-4 mt-1 border-t border-sailcloth-300 pt-1 text-[0.6875rem] text-ink-600">
          Which scene this is
        </div>
        {(
          [
            ['dots', 'Dots', 'M-7 0a1.5 1.500 0 1 0 .01 0M0 0a1.500 1.500 0 1 0 .01 0M7 0a1.500 1.500 0 1 0 .01 0'],
            ['bars', 'Bars', 'M-9 0h4M-2 0h4M5 0h4'],
            ['count', '2 of 4', 'M-7 -3h3v3h-3v3h3M4 -3v3h4M7 -3v6'],
          ] as const
        ).map(([style, name, d]) => (
          <MenuItem key={style}>
            <button
              type="button"
              aria-label={`Marker: ${name}`}
              onClick={() => {
                const before = new Set(desk().rows.map((r) => r.thread))
                if (run('add.marker', { style })) selectNew(before)
              }}
              className={clsx(
                'flex h-12.5 w-19 flex-col items-center justify-center gap-1 rounded-md text-[0.6875rem]',
                'data-focus:bg-brass-200',
              )}
            >
              <svg
                width="30"
                height="20"
                viewBox="-10 -7 20 14"
                fill="none"
                stroke="currentColor"
                strokeWidth="1.500"
                aria-hidden
              >
                <path d={d} />
              </svg>
              {name}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
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
