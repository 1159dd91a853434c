// Scenes as a series: folded, unfolded, split, made from templates, moved as one, copied.
import type { Intents } from '../engine/types'
import { run } from '../project/commands'
import { desk, goToScene, say, select, set } from '../project/desk'
import { notice } from '../words'

/** Carries out what makes scenes, and goes to the first of them. */
export function makeScenes<K extends keyof Intents>(intent: K, args: Intents[K] = {}): boolean {
  const before = new Set(desk().film!.scenes.map((s) => s.id))
  if (!run(intent, args)) return false
  const made = desk().film!.scenes.findIndex((s) => !before.has(s.id) && !s.aside)
  if (made >= 0) goToScene(made)
  select([], '')
  return true
}

/** The scenes that are selected, or the one that is shown. */
export function chosenScenes(): string[] {
  const { film, scene, scenes } = desk()
  return scenes.length ? scenes : [film!.scenes[scene].id]
}

export function foldScenes(ids = chosenScenes()) {
  const first = desk().film!.scenes.findIndex((s) => ids.includes(s.id))
  if (!run('scene.fold', { ids })) return
  set({ scenes: [] })
  goToScene(first)
  select([], '')
  say(notice('series.folded', ids.length))
}

export function unfoldScene() {
  const { film, scene } = desk()
  if (!run('scene.unfold')) return
  const n = desk().film!.shown - film!.shown + 1
  goToScene(scene)
  select([], '')
  say(notice('series.unfolded', n))
}

export function splitScene() {
  if (makeScenes('scene.split')) say(notice('series.split'))
}

export function moveAsOne(ids = chosenScenes()) {
  if (run('scenes.asOne', { ids, curve: true })) say(notice('series.as-one', ids.length - 1))
}

export function keepTemplate() {
  const { film, scene } = desk()
  if (run('template.keep')) say(notice('series.kept', film!.scenes[scene].name))
}
