// What helps to place things, in a menu that stays open while it is pressed: rulers, guides by number, a grid, safe
// areas.
import { clsx } from 'clsx'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { Ruler as RulerIcon, X } from 'lucide-react'
import { run } from '../project/commands'
import { desk, look, useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { NumberField } from '../ui/NumberField'
import { Button, Sign } from '../ui/controls'
import { setAids } from './Aids'

export function Helps() {
  const aids = useDesk((d) => d.aids)
  const ends = useDesk((d) => d.ends)
  const some = ends || aids.safe || aids.rulers || aids.grid > 0 || !aids.wings
  return (
    <Popover className="relative">
      <PopoverButton
        aria-label="Rulers, guides, grid, safe areas, ends of moves"
        title="Rulers, guides, grid, safe areas, ends of moves"
        className={clsx(
          'flex h-6.5 w-6.5 items-center justify-center rounded-md',
          some ? 'bg-brass-200' : 'hover:bg-sailcloth-200',
        )}
      >
        <RulerIcon size={16} strokeWidth={1.5} />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top end', gap: 6, padding: 8 }}
        className={clsx(
          'z-50 w-57 rounded-md border border-sailcloth-300 bg-paper p-3 text-[0.75rem]',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        <Check name="Rulers and guides (U)" on={aids.rulers} onSet={(rulers) => setAids({ rulers })} />
        <Check
          name="Guides stay where they are"
          on={aids.locked}
          disabled={!aids.rulers}
          onSet={(locked) => setAids({ locked })}
        />
        <Check name="Safe areas (J)" on={aids.safe} onSet={(safe) => setAids({ safe })} />
        <Check name="First and last frame (H)" on={ends} onSet={(on) => look({ ends: on })} />
        <Check name="What lies in the wings" on={aids.wings} onSet={(wings) => setAids({ wings })} />
        <div className="mt-1.5 grid grid-cols-[3.5rem_1fr] items-center gap-x-2">
          <NumberField
            quiet
            label="Grid"
            name="Steps of the grid; 0: none"
            unit="px"
            min={0}
            max={2000}
            value={aids.grid}
            onSet={(grid) => setAids({ grid })}
          />
        </div>
        <Guides />
      </PopoverPanel>
    </Popover>
  )
}

/** The guides of the scene by number. A new one stands in the middle of the page. */
function Guides() {
  const film = useDesk((d) => d.film)!
  const guides = useDesk((d) => d.film?.scenes[d.scene]?.guides)
  const locked = useDesk((d) => d.aids.locked)
  const whole = { upright: film.width, level: film.height }
  const add = (axis: 'upright' | 'level') => {
    setAids({ rulers: true })
    run('guide', { axis, at: whole[axis] / 2 })
  }
  return (
    <div className="mt-2 border-t border-sailcloth-300 pt-2" role="group" aria-label="Guides">
      {!!guides?.length && (
        <div
          className={clsx(
            'thin-scroll mb-1.5 grid max-h-29 grid-cols-[3.5rem_1fr_1.625rem] items-center gap-x-2 gap-y-1',
            'overflow-y-auto',
          )}
        >
          {guides.map((g, index) => {
            const word = g.axis === 'upright' ? 'Across' : 'Down'
            return (
              <div key={`${index} ${g.axis}`} className="contents">
                <NumberField
                  quiet
                  label={word}
                  name={`Guide ${index + 1}, ${word.toLowerCase()}`}
                  unit="px"
                  disabled={locked}
                  whole={whole[g.axis]}
                  value={g.at}
                  onSet={(at) => run('guide', { index, at })}
                />
                <Sign
                  name={`Take guide ${index + 1} away`}
                  disabled={locked}
                  className="hover:bg-sailcloth-200"
                  onClick={() => run('guide', { index })}
                >
                  <X size={14} strokeWidth={1.5} />
                </Sign>
              </div>
            )
          })}
        </div>
      )}
      <div className="grid grid-cols-2 gap-1.5">
        <Button className="!px-1" title="An upright guide in the middle of the page" onClick={() => add('upright')}>
          Upright guide
        </Button>
        <Button className="!px-1" title="A level guide in the middle of the page" onClick={() => add('level')}>
          Level guide
        </Button>
        <Button
          className="!px-1"
          disabled={!desk().selection.length}
          title="Guides along the edges and through the middle of what is selected"
          onClick={() => {
            setAids({ rulers: true })
            run('guides.of', { threads: desk().selection })
          }}
        >
          From layer
        </Button>
        <Button
          className="!px-1"
          disabled={!guides?.length}
          title="Takes the guides of this scene away"
          onClick={() => run('guides.of', { threads: [] })}
        >
          Clear all
        </Button>
      </div>
    </div>
  )
}
