// What of a drawing could not be kept, so that nothing is lost in silence.
import { set, useDesk } from '../project/desk'
import { Sheet } from '../ui/Sheet'

export function LossesSheet() {
  const { name, list } = useDesk((d) => d.losses)
  return (
    <Sheet title={`What “${name}” could not keep`} onClose={() => set({ sheet: 'none' })}>
      <ul className="px-5 py-2" data-losses>
        {list.map((l) => (
          <li key={l.what} className="flex justify-between gap-4 border-b border-sailcloth-300 py-1.5">
            {l.what}
            {l.count > 1 && `, ${l.count} times`}
            <span className="shrink-0 text-ink-600">{l.where}</span>
          </li>
        ))}
      </ul>
      <p className="px-5 pb-4 text-ink-600">Everything else is in the group that was added.</p>
    </Sheet>
  )
}
