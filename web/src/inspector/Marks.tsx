// Marks of a sound: where its words begin, on its beats, or where a person set them. Bars of moves snap to them, and
// moves of the scene can begin at them.
import { X } from 'lucide-react'
import type { SoundRow } from '../engine/types'
import { run } from '../project/commands'
import { goToTime, useDesk } from '../project/desk'
import { Fold, Section } from '../ui/Section'
import { Button, Sign } from '../ui/controls'

export function Marks({ of: r }: { of: SoundRow }) {
  const now = useDesk((d) => (d.moment.rest ? -1 : Math.floor(d.moment.time)))
  const within = now >= r.begin && now <= r.end
  const words = r.spoken?.words?.length ?? 0
  const small = '!h-7 !px-2 text-[0.75rem]'
  return (
    <Section title="Marks">
      <p className="text-[0.75rem] leading-snug text-ink-600">
        {r.scene < 0
          ? 'Bars snap to them. Let the sound go with a scene, and moves of that can begin at them.'
          : 'Bars snap to them, and a move can begin when one is heard: see “Starts” of the move.'}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1">
        <Button
          className={small}
          disabled={!within}
          title={within ? 'A mark where the playhead is' : 'Bring the playhead to where it is heard'}
          onClick={() => run('mark.add', { id: r.id })}
        >
          At playhead
        </Button>
        {words > 0 && (
          <Button className={small} onClick={() => run('mark.all', { id: r.id, of: 'words' })}>
            At words
          </Button>
        )}
        {r.beats.length > 0 && (
          <Button className={small} onClick={() => run('mark.all', { id: r.id, of: 'beats' })}>
            On beats
          </Button>
        )}
        {r.marks.length > 0 && (
          <Button
            className={small}
            title="Moves that begin at one keep their times"
            onClick={() => run('mark.all', { id: r.id, of: '' })}
          >
            No marks
          </Button>
        )}
      </div>
      {r.marks.length > 0 && (
        <Fold title={`${r.marks.length} marks`} folded>
          <ul className="thin-scroll mt-1 max-h-44 overflow-y-auto" data-marks>
            {r.marks.map((m) => (
              <li key={m.id} className="group flex items-center gap-1 text-[0.75rem]" data-mark={m.name}>
                <button
                  type="button"
                  title="Bring the playhead here"
                  className="min-w-0 flex-1 truncate rounded px-1 py-0.5 text-left hover:bg-sailcloth-200"
                  onClick={() => goToTime(m.at)}
                >
                  {m.name}
                </button>
                <span className="font-mono text-ink-600">{((m.at - r.begin) / 1000).toFixed(2)}</span>
                <Sign
                  name={`Take the mark ${m.name} away`}
                  className="!h-6 !w-6 text-ink-600"
                  onClick={() => run('mark.delete', { id: r.id, mark: m.id })}
                >
                  <X size={12} />
                </Sign>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </Section>
  )
}
