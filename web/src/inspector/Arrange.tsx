// Edges, gaps, sizes and sides of the selected layers.
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalDistributeCenter,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalDistributeCenter,
  AlignVerticalSpaceBetween,
  ArrowDownUp,
  FlipHorizontal2,
  FlipVertical2,
  RotateCcwSquare,
  RotateCwSquare,
} from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { run } from '../project/commands'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label, Sign } from '../ui/controls'

const towards = [
  { value: 'selection', label: 'each other' },
  { value: 'first', label: 'the first selected' },
  { value: 'page', label: 'the page' },
  { value: 'safe', label: 'the safe area' },
] as const
type Towards = (typeof towards)[number]['value']

export function Arrange({ threads }: { threads: string[] }) {
  const several = threads.length > 1
  const [chosen, setTo] = useState<Towards>('selection')
  const to = several ? chosen : chosen === 'safe' ? 'safe' : 'page'
  const [gap, setGap] = useState(20)
  const [apart, setApart] = useState(10)
  const icon = { size: 17, strokeWidth: 1.5 }
  const act = (name: string, sign: ReactNode, f: () => void) => (
    <Sign key={name} name={name} className="hover:bg-sailcloth-200" onClick={f}>
      {sign}
    </Sign>
  )
  const align = (edge: string) => () => run('align', { threads, edge, to })
  const distribute = (args: object) => () => run('distribute', { threads, ...args })
  return (
    <div className="mt-2 border-t border-sailcloth-300 pt-2">
      <div className="grid grid-cols-[3.5rem_1fr] items-center gap-x-2">
        <Label>Align to</Label>
        <Choice
          name="Align to"
          value={to}
          of={towards.filter((t) => several || t.value === 'page' || t.value === 'safe')}
          onSet={setTo}
        />
      </div>
      <div className="-mx-1 mt-1 grid grid-cols-6 justify-items-center" role="toolbar" aria-label="Align">
        {act('Left edges', <AlignStartVertical {...icon} />, align('left'))}
        {act('Middles, across', <AlignCenterVertical {...icon} />, align('centre'))}
        {act('Right edges', <AlignEndVertical {...icon} />, align('right'))}
        {act('Upper edges', <AlignStartHorizontal {...icon} />, align('top'))}
        {act('Middles, down', <AlignCenterHorizontal {...icon} />, align('middle'))}
        {act('Lower edges', <AlignEndHorizontal {...icon} />, align('bottom'))}
      </div>
      {several && (
        <>
          <div className="-mx-1 grid grid-cols-6 justify-items-center" role="toolbar" aria-label="Distribute">
            {act('Equal gaps, across', <AlignHorizontalSpaceBetween {...icon} />, distribute({}))}
            {act('Equal gaps, down', <AlignVerticalSpaceBetween {...icon} />, distribute({ down: true }))}
            {act(
              'Equal steps of middles, across',
              <AlignHorizontalDistributeCenter {...icon} />,
              distribute({ centres: true }),
            )}
            {act(
              'Equal steps of middles, down',
              <AlignVerticalDistributeCenter {...icon} />,
              distribute({ down: true, centres: true }),
            )}
          </div>
          <div className="mt-1 grid grid-cols-[3.5rem_repeat(3,minmax(0,1fr))] items-center gap-x-2 gap-y-1.5">
            <Label>Gap</Label>
            <NumberField quiet name="Gap" unit="px" value={gap} onSet={setGap} />
            <Button className="!px-1" title="Gaps of so many px, from the left on" onClick={distribute({ gap })}>
              across
            </Button>
            <Button
              className="!px-1"
              title="Gaps of so many px, from the top on"
              onClick={distribute({ gap, down: true })}
            >
              down
            </Button>
            <Label>Same</Label>
            <Button
              className="!px-1"
              title="As wide as the first selected"
              onClick={() => run('same', { threads, what: 'width' })}
            >
              Width
            </Button>
            <Button
              className="!px-1"
              title="As high as the first selected"
              onClick={() => run('same', { threads, what: 'height' })}
            >
              Height
            </Button>
            <Button
              className="!px-1"
              title="As wide and as high as the first selected"
              onClick={() => run('same', { threads, what: 'both' })}
            >
              Both
            </Button>
            <Label>Places</Label>
            <NumberField
              quiet
              name="By how much places are spread or gathered"
              unit="%"
              min={1}
              max={900}
              value={apart}
              onSet={setApart}
            />
            <Button
              className="!px-1"
              title={`Places go ${apart} % further from the middle; sizes stay`}
              onClick={() => run('spread.apart', { threads, percent: apart })}
            >
              Spread
            </Button>
            <Button
              className="!px-1"
              title={`Places come as much nearer to the middle as ${apart} % had spread them; sizes stay`}
              onClick={() => run('spread.apart', { threads, percent: apart, gather: true })}
            >
              Gather
            </Button>
          </div>
        </>
      )}
      {/* The signs are called after the line they are turned over at. */}
      <div className="-mx-1 mt-1 flex items-center" role="toolbar" aria-label="Turn and turn over">
        {act('Turn over, left to right', <FlipVertical2 {...icon} />, () => run('flip', { threads }))}
        {act('Turn over, top to bottom', <FlipHorizontal2 {...icon} />, () => run('flip', { threads, down: true }))}
        {act('A quarter turn anticlockwise', <RotateCcwSquare {...icon} />, () =>
          run('turn.by', { threads, degrees: -90 }),
        )}
        {act('A quarter turn clockwise', <RotateCwSquare {...icon} />, () => run('turn.by', { threads, degrees: 90 }))}
        {several &&
          act('Reverse their order: what lies behind comes to the front', <ArrowDownUp {...icon} />, () =>
            run('order.reverse', { threads }),
          )}
      </div>
    </div>
  )
}
