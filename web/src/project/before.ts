// What is selected without its adjustments, while a key or a button is held.
import { desk } from './desk'
import { endRehearsal, rehearse, run } from './commands'

let shown = false

export function showBefore(on: boolean) {
  if (on === shown) return
  shown = on
  if (!on) return endRehearsal()
  const threads = desk().selected.flatMap((s) => (s.layer.adjust ? [s.layer.thread] : []))
  if (!threads.length) return
  rehearse(() => run('set', { threads, patch: { adjust: null } }), true)
}
