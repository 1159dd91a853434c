// Transport at the timeline's head, where the playhead is.
import { CornerUpLeft, Expand, MoveHorizontal, Pause, Play, Redo2, SkipBack, Undo2 } from 'lucide-react'
import { redo, undo } from '../project/commands'
import { goToTime, useDesk } from '../project/desk'
import { playLarge, stop, toggle } from '../project/play'
import { Sign } from '../ui/controls'
import { filmTime } from '../ui/time'

export function Transport({ all, onAll, onFit, fitted }: { all: boolean; onAll: (v: boolean) => void; onFit: () => void; fitted: boolean }) {
  const playing = useDesk((d) => d.playing)
  const played = useDesk((d) => d.playedFrom !== null)
  const canUndo = useDesk((d) => d.canUndo)
  const canRedo = useDesk((d) => d.canRedo)
  const length = useDesk((d) => d.film?.length ?? 0)
  const sign = '!w-[24px] hover:bg-spruce-700 text-foam-100'
  return (
    <div className="flex h-full flex-col justify-center gap-1 pl-3 pr-1">
      <div className="flex items-center">
        <button
          type="button" aria-label={playing ? 'Pause' : 'Play'} title={playing ? 'Pause (space)' : 'Play (space)'} onClick={toggle}
          className="mr-1 flex h-[34px] w-[34px] items-center justify-center rounded-full bg-brass-400 text-spruce-950 hover:bg-brass-200"
        >
          {playing ? <Pause size={17} fill="currentColor" strokeWidth={0} /> : <Play size={17} fill="currentColor" strokeWidth={0} className="ml-0.5" />}
        </button>
        <Sign name="To the start (Home)" className={sign} onClick={() => goToTime(0)}><SkipBack size={16} strokeWidth={1.5} /></Sign>
        <Sign name="Stop: back to where play began (Shift+space)" className={sign} disabled={!played} onClick={stop}><CornerUpLeft size={16} strokeWidth={1.5} /></Sign>
        <Sign name="Large view (L)" className={sign} onClick={playLarge}><Expand size={15} strokeWidth={1.5} /></Sign>
        <Sign name="Fit the film into the timeline" className={sign} pressed={fitted} onClick={onFit}><MoveHorizontal size={16} strokeWidth={1.5} /></Sign>
        <span className="flex-1" />
        <Sign name="Undo (Ctrl+Z)" className={sign} disabled={!canUndo} onClick={undo}><Undo2 size={16} strokeWidth={1.5} /></Sign>
        <Sign name="Redo (Ctrl+Shift+Z)" className={sign} disabled={!canRedo} onClick={redo}><Redo2 size={16} strokeWidth={1.5} /></Sign>
      </div>
      <div className="flex items-center justify-between pr-1">
        <span className="font-mono text-[13px]"><Now /><span className="text-foam-500"> / {filmTime(length)}</span></span>
        <button
          type="button" onClick={() => onAll(!all)} title={all ? 'Rows of the whole film; press for this scene only' : 'Rows of this scene; press for the whole film'}
          className="h-[24px] rounded-md px-1.5 text-[12px] text-foam-300 hover:bg-spruce-700"
        >
          {all ? 'all' : 'here'}
        </button>
      </div>
    </div>
  )
}

function Now() {
  const time = useDesk((d) => filmTime(d.moment.time))
  return <span data-time className="font-semibold">{time}</span>
}
