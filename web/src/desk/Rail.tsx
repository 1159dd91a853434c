// The rail between page and timeline: what can be added, and the zoom of the page.
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { Ghost, Image, Minus, Plus, Route, Type } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'
import { engine } from '../engine/engine'
import { set, toRest, useDesk, type Tool } from '../project/desk'
import { Sign } from '../ui/controls'
import { choosePictures, takePictures } from './pictures'

const signs: Record<string, ReactNode> = {
  text: <Type size={18} strokeWidth={1.5} />,
  path: <Route size={18} strokeWidth={1.5} />,
}

/** The outline of a shape as a sign. */
const ShapeSign = ({ d }: { d: string }) => (
  <svg width="20" height="20" viewBox="-10 -10 20 20" fill="none" stroke="currentColor" strokeWidth="1.4" strokeLinejoin="round" aria-hidden><path d={d} /></svg>
)

export function pickTool(tool: Tool) {
  toRest()
  set({ tool })
}

export function Rail() {
  const tool = useDesk((d) => d.tool)
  const some = useDesk((d) => d.selection.length > 0)
  const picking = useDesk((d) => !!d.picking)
  const ghosts = useDesk((d) => d.ghosts)
  const entry = (t: Tool, word: string, key: string, disabled = false) => (
    <button
      type="button" key={t} disabled={disabled} aria-pressed={tool === t} title={`${word} (${key})`}
      onClick={() => (tool === t ? set({ tool: 'select' }) : pickTool(t))}
      className={`flex h-7 items-center gap-1.5 rounded-md px-2 disabled:opacity-40 ${tool === t ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}`}
    >
      {signs[t] ?? <ShapeSign d={engine.shapes().find((k) => k.kind === t)!.d} />}{word}
    </button>
  )
  return (
    <div className="flex h-[36px] shrink-0 items-center gap-1 border-t border-sailcloth-300 bg-paper px-3" role="toolbar" aria-label="Add">
      <span className="pr-2 font-semibold">Add</span>
      {entry('rectangle', 'Rectangle', '1')}
      {entry('ellipse', 'Ellipse', '2')}
      <Shapes tool={tool} />
      {entry('text', 'Text', '3')}
      <button type="button" title="Picture from disk (4)" onClick={() => { toRest(); choosePictures() }} className="flex h-7 items-center gap-1.5 rounded-md px-2 hover:bg-sailcloth-200">
        <Image size={18} strokeWidth={1.5} />Picture
      </button>
      <input
        type="file" accept="image/png,image/jpeg" multiple hidden data-picture-input aria-label="Picture files"
        onChange={(e) => { void takePictures([...(e.target.files ?? [])]); e.target.value = '' }}
      />
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      {entry('path', 'Motion path', '5', !some)}
      {picking && <span className="ml-2 truncate text-[12px] text-ink-600" role="status">Press the page where the colour is. Escape lets go.</span>}
      {tool !== 'select' && (
        <span className="ml-2 truncate text-[12px] text-ink-600" role="status">
          {tool === 'path' ? 'Drag from the layer to where it goes, or from the wings to let it arrive.' : tool === 'text' ? 'Press where the words go.' : 'Drag it, or press for the usual size. Shift: equal sides; Alt: from the middle.'} Escape lets go.
        </span>
      )}
      <span className="flex-1" />
      <Sign name="Ghosts: where the selected layers were and will be (G)" pressed={ghosts} className={ghosts ? 'bg-brass-200' : 'hover:bg-sailcloth-200'} onClick={() => set({ ghosts: !ghosts })}><Ghost size={16} strokeWidth={1.5} /></Sign>
      <span className="mx-1 h-5 w-px bg-sailcloth-300" />
      <Zoom />
    </div>
  )
}

/** All shapes, by their outlines. */
function Shapes({ tool }: { tool: Tool }) {
  const shapes = useMemo(() => engine.shapes(), [])
  const picked = shapes.find((s) => s.kind === tool && tool !== 'rectangle' && tool !== 'ellipse')
  return (
    <Menu>
      <MenuButton title="All shapes" className={`flex h-7 items-center gap-1.5 rounded-md px-2 ${picked ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}`}>
        <ShapeSign d={(picked ?? shapes.find((s) => s.kind === 'star')!).d} />{picked?.name ?? 'Shapes'}
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden><path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" /></svg>
      </MenuButton>
      <MenuItems anchor={{ to: 'top start', gap: 6, padding: 8 }} className="z-50 grid grid-cols-4 gap-1 rounded-md border border-sailcloth-300 bg-paper p-2 shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none">
        {shapes.map((s) => (
          <MenuItem key={s.kind}>
            <button type="button" aria-label={s.name} onClick={() => pickTool(s.kind)} className="flex h-[58px] w-[76px] flex-col items-center justify-center gap-1 rounded-md text-[11px] data-focus:bg-brass-200">
              <svg width="30" height="30" viewBox="-10 -10 20 20" fill="none" stroke="currentColor" strokeWidth="1" strokeLinejoin="round" aria-hidden><path d={s.d} /></svg>{s.name}
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
    const to = Math.min(16, Math.max(0.02, scale * k))
    set({ zoom: to, pan: { x: (pan.x * to) / scale, y: (pan.y * to) / scale } })
  }
  return (
    <div className="flex items-center gap-1">
      <button type="button" aria-pressed={zoom === 'fit'} title="Fit the page (0)" onClick={() => set({ zoom: 'fit', pan: { x: 0, y: 0 } })} className={`h-7 rounded-md px-2 ${zoom === 'fit' ? 'font-semibold' : 'hover:bg-sailcloth-200'}`}>Fit</button>
      <Sign name="Zoom out" className="hover:bg-sailcloth-200" onClick={() => by(1 / 1.25)}><Minus size={16} strokeWidth={1.5} /></Sign>
      <button type="button" title="Full size" className="h-7 w-[52px] rounded-md text-center font-mono text-[12px] hover:bg-sailcloth-200" onClick={() => set({ zoom: 1, pan: { x: 0, y: 0 } })}>
        {Math.round(scale * 100)} %
      </button>
      <Sign name="Zoom in" className="hover:bg-sailcloth-200" onClick={() => by(1.25)}><Plus size={16} strokeWidth={1.5} /></Sign>
    </div>
  )
}
