// Layers that are set aside: they leave the film for a scene of their own behind it, and come back from there.
import { run } from './commands'
import { desk, say, select } from './desk'
import { notice } from '../words'

/** Whether the scene that is shown is the one where layers are set aside. */
export const isAside = () => {
  const { film, scene } = desk()
  return !!film?.scenes[scene]?.aside
}

/** Sets the selected layers aside, or brings them back into the scene of the film that was shown last. */
export function putAside() {
  const { selection, selected, lastScene } = desk()
  if (!selected.length) return
  const [name, n, back] = [selected[0].layer.name, selection.length, isAside()]
  if (!run(back ? 'bring.back' : 'set.aside', back ? { threads: selection, scene: lastScene } : { threads: selection }))
    return
  select([], '')
  if (back) say(n === 1 ? notice('aside.back', name) : notice('aside.back-many', n))
  else say(n === 1 ? notice('aside.set', name) : notice('aside.set-many', n))
}
