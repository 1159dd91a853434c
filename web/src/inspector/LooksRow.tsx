// Looks that were put aside in the project: given to what is selected, kept, forgotten.
import { clsx } from 'clsx'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { run } from '../project/commands'
import { copyLook, lookHeld, pasteLook } from '../actions/clipboard'
import { useDesk } from '../project/desk'
import { Label } from '../ui/controls'
import { Swatch } from '../ui/ColourField'

export function LooksRow({ threads }: { threads: string[] }) {
  const looks = useDesk((d) => d.film!.looks)
  const item =
    'flex h-7 w-full items-center gap-2 rounded-md px-2 text-left data-focus:bg-brass-200 disabled:opacity-45'
  return (
    <div className="mt-1.5 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
      <Label>Looks</Label>
      <Menu>
        <MenuButton
          aria-label={looks.length ? `${looks.length} kept: looks` : 'no looks kept yet: looks'}
          className={clsx(
            'flex h-6.5 w-full items-center justify-between rounded-md border border-sailcloth-500',
            'bg-sailcloth-100 px-2 hover:border-ink-500',
          )}
        >
          <span>
            {looks.length ? (looks.length === 1 ? 'one look kept' : `${looks.length} looks kept`) : 'no looks kept yet'}
          </span>
          <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden>
            <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
        </MenuButton>
        <MenuItems
          anchor={{ to: 'bottom end', gap: 4, padding: 8 }}
          className={clsx(
            'z-50 w-55 rounded-md border border-sailcloth-300 bg-paper p-1',
            'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
          )}
        >
          <MenuItem>
            <button type="button" className={item} onClick={() => copyLook()}>
              Copy look<span className="ml-auto font-mono text-[0.6875rem] text-ink-600">K</span>
            </button>
          </MenuItem>
          <MenuItem disabled={!lookHeld()}>
            <button type="button" disabled={!lookHeld()} className={item} onClick={() => pasteLook()}>
              Paste look<span className="ml-auto font-mono text-[0.6875rem] text-ink-600">Shift K</span>
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className={item} onClick={() => run('look.save', { thread: threads[0], name: '' })}>
              Put this look aside
            </button>
          </MenuItem>
          {looks.length > 0 && <div className="my-1 border-t border-sailcloth-300" role="separator" />}
          {looks.map((k) => (
            <MenuItem key={k.id}>
              <button
                type="button"
                className={item}
                title="Press to give it to what is selected; Delete forgets it"
                data-look={k.name}
                onClick={() => run('look.paste', { threads, saved: k.id })}
                onKeyDown={(e) => {
                  if (e.key === 'Delete') {
                    e.preventDefault()
                    run('look.forget', { id: k.id })
                  }
                }}
              >
                <Swatch
                  colour={
                    k.look.fill?.kind === 'colour'
                      ? (k.look.fill.colour ?? null)
                      : (k.look.fill?.gradient?.stops[0].colour ?? null)
                  }
                  size={16}
                />
                <span className="min-w-0 flex-1 truncate">{k.name}</span>
                <span
                  role="presentation"
                  className="px-1 text-ink-600 hover:text-coral-700"
                  title={`Forget the look ${k.name}`}
                  onClick={(e) => {
                    e.stopPropagation()
                    e.preventDefault()
                    run('look.forget', { id: k.id })
                  }}
                >
                  ×
                </span>
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
    </div>
  )
}
