// Adding a scene, at the end of the film.
import { clsx } from 'clsx'
import { Copy, Plus, Redo, Scissors, Search, SquarePlus, Stamp } from 'lucide-react'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import type { Intents } from '../engine/types'
import { makeScenes, splitScene } from '../actions/series'
import { set, useDesk } from '../project/desk'

export function AddScene({ left, height }: { left: number; height: number }) {
  const templates = useDesk((d) =>
    d
      .film!.scenes.filter((s) => s.template)
      .map((s) => `${s.id}\n${s.name}`)
      .join('\n\n'),
  )
  const item = 'flex w-full items-center gap-2 rounded-md px-2 py-1 text-left data-focus:bg-brass-200'
  const entry = (
    icon: React.ReactNode,
    word: string,
    says: string,
    intent: keyof Intents,
    args?: Intents[keyof Intents],
  ) => (
    <MenuItem>
      <button type="button" className={item} onClick={() => makeScenes(intent, args)}>
        {icon}
        {word}
        <span className="ml-auto text-[0.6875rem] text-ink-500">{says}</span>
      </button>
    </MenuItem>
  )
  return (
    <Menu>
      <MenuButton
        aria-label="Add a scene"
        title="Add a scene after the current one"
        className={clsx(
          'absolute top-0 flex w-8.5 items-center justify-center rounded-md border border-dashed',
          'border-foam-500/60 text-foam-300 hover:bg-spruce-800',
        )}
        style={{ left, height }}
      >
        <Plus size={18} strokeWidth={1.5} />
      </MenuButton>
      <MenuItems
        anchor={{ to: 'top end', gap: 6, padding: 8 }}
        className={clsx(
          'z-50 w-72.5 rounded-md border border-sailcloth-300 bg-paper p-1 text-ink-900',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        {entry(<Redo size={16} strokeWidth={1.5} />, 'Continue scene', 'from how this one ends', 'scene.continue')}
        {entry(<Copy size={16} strokeWidth={1.5} />, 'Duplicate scene', 'with all its moves', 'scene.duplicate')}
        {entry(<SquarePlus size={16} strokeWidth={1.5} />, 'Blank scene', 'after this one', 'scene.add')}
        {entry(<SquarePlus size={16} strokeWidth={1.5} />, 'Blank scene before', 'in front of this one', 'scene.add', {
          before: true,
        })}
        <MenuItem>
          <button type="button" className={item} onClick={splitScene}>
            <Scissors size={16} strokeWidth={1.5} />
            Split here
            <span className="ml-auto text-[0.6875rem] text-ink-500">what is seen begins one</span>
          </button>
        </MenuItem>
        {templates.split('\n\n').map((t) => {
          const [id, name] = t.split('\n')
          return (
            id && (
              <MenuItem key={id}>
                <button
                  type="button"
                  className={item}
                  aria-label={`${name}, from the template`}
                  onClick={() => makeScenes('template.use', { id })}
                >
                  <Stamp size={16} strokeWidth={1.5} />
                  <span className="min-w-0 truncate">{name}</span>
                  <span className="ml-auto whitespace-nowrap text-[0.6875rem] text-ink-500">from the template</span>
                </button>
              </MenuItem>
            )
          )
        })}
        <MenuItem>
          <button type="button" className={item} onClick={() => set({ sheet: 'scenes' })}>
            <Search size={16} strokeWidth={1.5} />
            To a scene …<span className="ml-auto text-[0.6875rem] text-ink-500">by its name</span>
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  )
}
