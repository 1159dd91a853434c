// What the tool in hand asks for.
import { clsx } from 'clsx'
import { X } from 'lucide-react'
import { desk, goBehind, selectNew, set, useDesk } from '../project/desk'
import { carryEdit, run } from '../project/commands'
import { Check } from '../ui/Check'
import { Button, Sign } from '../ui/controls'
import { keepKeys } from '../ui/typing'
import { leaveCrop } from '../actions/cropping'
import { leaveCutout } from '../actions/cutout'
import { penMirror } from '../actions/drawing'
import { counted } from '../words'

/**
 * What the tool in hand asks for, on the desk above the rail: there is room for it there at any width. The page goes
 * on under it.
 */
export function Says({ offer }: { offer: string | null }) {
  const tool = useDesk((d) => d.tool)
  const mirror = useDesk((d) => d.mirror)
  const smoothing = useDesk((d) => d.smoothing)
  const picking = useDesk((d) => !!d.picking)
  const across = useDesk((d) => d.across)
  const ordering = useDesk((d) => d.ordering)
  const slowly = useDesk((d) => d.slowly)
  const afterCount = useDesk((d) => d.counted)
  const playsAlong = useDesk((d) => d.playsAlong)
  const bares = useDesk((d) => (d.selected.length === 1 && !d.playing && !d.dragging ? d.selected[0].bares : ''))
  const taking = useDesk((d) => d.taking)
  const crop = useDesk((d) => d.selection.length === 1 && d.cropping === d.selection[0] && !d.playing)
  const cut = useDesk((d) => d.selection.length === 1 && d.cutting === d.selection[0] && !d.playing)
  const busy = useDesk((d) => d.cutBusy > 0)
  const behind = useDesk((d) => d.behind)
  const stopGround = useDesk((d) => d.cutStop)
  const idle =
    !crop && !cut && !behind && !stopGround && !offer && !picking && tool === 'select' && !across && !ordering
  if (idle && !bares && !taking) return null
  return (
    <div
      role="status"
      className={clsx(
        'pointer-events-none absolute bottom-full left-0 mb-1 ml-2 flex h-8 items-center gap-2',
        'whitespace-nowrap rounded-md border border-sailcloth-300 bg-paper px-2.5 text-[0.75rem]',
        'text-ink-600 *:pointer-events-auto',
      )}
    >
      {taking && (
        <>
          <span className="max-w-80 truncate">
            {taking.of > 1 ? `Taking in ${taking.n} of ${taking.of}: ` : 'Taking in '}“{taking.name}” …
          </span>
          <Button onClick={taking.cancel}>Cancel</Button>
        </>
      )}
      {crop && (
        <>
          <span>Crop: drag the picture, or the frame in ink over it. Wheel zooms.</span>
          <Button look="main" onClick={leaveCrop}>
            Done
          </Button>
        </>
      )}
      {cut && !stopGround && (
        <>
          <span>{busy ? 'Working out what is kept …' : 'Cut out: draw over what stays, and over its ground.'}</span>
          <Button look="main" onClick={leaveCutout}>
            Done
          </Button>
        </>
      )}
      {stopGround && (
        <>
          <span>Continuing the ground behind it …</span>
          <Button onClick={stopGround}>Cancel</Button>
        </>
      )}
      {behind && !cut && (
        <>
          <span className="max-w-100 truncate">What is added next goes behind “{behind.name}”.</span>
          <Button
            title="Five soft strips of light that come one after another"
            onClick={() => {
              const before = new Set(desk().rows.map((r) => r.thread))
              if (run('bands.add')) selectNew(before)
            }}
          >
            Light bands
          </Button>
          <Sign name="In front of all, as ever" className="hover:bg-sailcloth-200" onClick={() => goBehind(null)}>
            <X size={14} strokeWidth={1.5} />
          </Sign>
        </>
      )}
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
          {across.count > 0 && (
            <Button
              className="!gap-[3px]"
              aria-label={`also ${across.what}, in ${counted(across.count, 'later scene')}`}
              title="Does the same to this thread in the scenes that follow"
              onClick={() => carryEdit()}
            >
              also <span className="max-w-60 truncate">{across.what},</span> in {counted(across.count, 'later scene')}
            </Button>
          )}
          {across.own > 0 && (
            <>
              <span>
                {counted(across.own, 'later scene')} {across.own === 1 ? 'keeps its own' : 'keep their own'}:
              </span>
              <Button
                title="Does it there as well, and takes away what these scenes have of their own"
                onClick={() => carryEdit(true)}
              >
                set {across.own === 1 ? 'it' : 'them'} too
              </Button>
            </>
          )}
          <Sign
            name="Leave later scenes as they are"
            className="hover:bg-sailcloth-200"
            onClick={() => set({ across: null })}
          >
            <X size={14} strokeWidth={1.5} />
          </Sign>
        </>
      )}
      {idle && bares && (
        <>
          {bares}
          <Button
            title="Makes it as large as it has to be to cover the page all along its way"
            onClick={() => run('ground.cover', { threads: desk().selection })}
          >
            Room to move
          </Button>
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
          {tool === 'act' && (
            <>
              <Check name="At half the speed" on={slowly} onSet={(on) => set({ slowly: on })} />
              <Check name="Count of three" on={afterCount} onSet={(on) => set({ counted: on })} />
              <Check name="Film plays along" on={playsAlong} onSet={(on) => set({ playsAlong: on })} />
            </>
          )}
          {tool === 'act'
            ? afterCount
              ? 'Press the layer, hold it for the count, and drag it as it is to go.'
              : 'Press the layer and drag it as it is to go: time runs from its first move.'
            : tool === 'path'
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
