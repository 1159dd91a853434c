// What the menus of layers, bars and scenes offer.
import { addMove } from './adding'
import { copy, copyLook, copyMoves, lookHeld, movesHeld, paste, pasteLook, pasteMoves, whatIsHeld } from './clipboard'
import { engine } from '../engine/engine'
import { apply, run } from '../project/commands'
import { desk, goToScene, say, select, selectMoves, selectNew, set } from '../project/desk'
import { deleteSelection, duplicateSelection, groupSelection, ungroupSelection } from './layers'
import { mergeSelection, takeApart } from './combining'
import { isAside, putAside } from '../project/setaside'
import { copyScenes } from './clipboard'
import { foldScenes, keepTemplate, makeScenes, moveAsOne, splitScene, unfoldScene } from './series'
import { closing } from '../project/closing'
import { openMenu, type Entry } from '../ui/ContextMenu'
import { cutWindow, maskSelection } from './layers'
import { askForOrder } from './ordering'
import { notice } from '../words'

/** Pastes what is held: layers, which are then selected, or moves on the selected layers. */
export function pasteHere(still: boolean, more: { place?: boolean; new?: boolean } = {}) {
  const before = new Set(
    desk()
      .rows.filter((r) => r.here)
      .map((r) => r.thread),
  )
  if (paste({ still, ...more }) === 'layers') selectNew(before)
}

/** Deletes threads from all scenes they are in. */
export function deleteEverywhere(threads: string[]) {
  const rows = desk().rows.filter((r) => threads.includes(r.thread))
  const n = new Set(rows.flatMap((r) => r.spans.filter((s) => !s.strand).map((s) => s.scene))).size
  if (closing(() => run('delete', { threads, everywhere: true })))
    say(
      rows.length === 1
        ? notice('deleted.everywhere', rows[0].name, n)
        : notice('deleted.many-everywhere', rows.length, n),
    )
}

/** What a menu says of masks: of several layers, or of one in a group. */
function maskEntries() {
  const { selected } = desk()
  const one = selected.length === 1 ? selected[0] : null
  const window = { word: 'Cut as a window', run: () => cutWindow() }
  if (selected.length > 1)
    return [
      window,
      { word: 'Show within the front one', run: () => maskSelection('inside') },
      { word: 'Punch the front one out', run: () => maskSelection('outside') },
    ]
  if (one?.layer.mask) return [{ word: 'No longer a mask', run: () => maskSelection('') }]
  return one?.in ? [window, { word: 'Mask of its group', run: () => maskSelection('inside') }] : one ? [window] : []
}

/** The menu of the selected layers; thread is the one under the pointer, if any. */
export function layerMenu(e: React.MouseEvent, thread: string | null) {
  const d = desk()
  if (thread && !d.selection.includes(thread)) select([thread], d.rows.find((r) => r.thread === thread)?.parent ?? '')
  const { selection, selected } = desk()
  const none = selection.length === 0
  const held = whatIsHeld()
  const groundable = selected.length > 0 && selected.every((s) => s.grounds)
  const list: (Entry | null)[] = [
    {
      word: 'Copy',
      key: 'Ctrl C',
      run: () => {
        set({ moves: [] })
        copy()
      },
      disabled: none,
    },
    { word: 'Paste', key: 'Ctrl V', run: () => pasteHere(false), disabled: !held },
    { word: 'Paste still', key: 'Ctrl Shift V', run: () => pasteHere(true), disabled: held !== 'layers' },
    { word: 'Paste in place', run: () => pasteHere(false, { place: true }), disabled: held !== 'layers' },
    { word: 'Paste as new', run: () => pasteHere(false, { new: true }), disabled: held !== 'layers' },
    { word: 'Duplicate', key: 'Ctrl D', run: duplicateSelection, disabled: none },
    null,
    {
      word: 'Select all of this kind',
      run: () => select(engine.alike(desk().moment, selection, 'kind')),
      disabled: none,
    },
    {
      word: 'Select every second',
      run: () => select(selection.filter((_, i) => i % 2 === 0)),
      disabled: selection.length < 3,
    },
    {
      word: 'Select all of this look',
      run: () => select(engine.alike(desk().moment, selection, 'look')),
      disabled: none,
    },
    null,
    { word: 'Copy look', key: 'K', run: copyLook, disabled: none },
    { word: 'Paste look', key: 'Shift K', run: pasteLook, disabled: none || !lookHeld() },
    { word: 'Make ground', run: () => run('ground.make', { threads: selection }), disabled: !groundable },
    { word: 'Cover the page', run: () => run('ground.cover', { threads: selection }), disabled: !groundable },
    {
      word: 'Make it its own thread',
      run: () => run('thread.cut', { threads: selection }),
      disabled: none || d.scene === 0 || isAside(),
    },
    {
      word: 'Join with a layer of the scene before …',
      run: () => set({ sheet: 'pairs' }),
      disabled: none || d.scene === 0 || isAside(),
    },
    {
      word: 'Carry to all scenes',
      run: () => run('carry.all', { threads: selection }),
      disabled: none || d.film!.shown < 2,
    },
    null,
    { word: 'Copy moves', run: copyMoves, disabled: !selected.some((s) => s.moves.length) },
    { word: 'Paste moves', run: () => pasteMoves(0), disabled: none || !movesHeld() },
    {
      word: 'Change from here',
      run: () => addMove({ kind: 'change', effect: 'becomes', variant: '' }),
      disabled: none,
    },
    {
      word: 'Emphasise',
      run: () => addMove({ kind: 'change', effect: 'becomes', variant: 'emphasise' }),
      disabled: none,
    },
    {
      word: 'View stops over it',
      run: () => run('view.stops', { threads: selection, count: 0 }),
      disabled: selection.length !== 1,
    },
    { word: 'Take turns', run: () => run('moves.inTurn', { threads: selection }), disabled: selected.length < 2 },
    {
      word: 'Clear moves',
      run: () => closing(() => run('moves.clear', { threads: selection })),
      disabled: !selected.some((s) => s.moves.length),
    },
    null,
    { word: 'In front of …', key: 'O', run: () => askForOrder('above'), disabled: none },
    { word: 'Behind …', key: 'Shift O', run: () => askForOrder('below'), disabled: none },
    null,
    { word: 'Group', key: 'Ctrl G', run: groupSelection, disabled: none },
    {
      word: 'Ungroup',
      key: 'Ctrl Shift G',
      run: () => ungroupSelection(),
      disabled: !selected.some((s) => s.layer.kind === 'group'),
    },
    {
      word: 'Ungroup without its moves',
      run: () => ungroupSelection(true),
      disabled: !selected.some((s) => s.layer.kind === 'group' && s.moves.length > 0),
    },
    ...maskEntries(),
    {
      word: 'Lock all layers',
      run: () => {
        if (run('lock.all', { on: true })) select([], '')
      },
    },
    { word: 'Unlock all layers', run: () => run('lock.all', { on: false }) },
    {
      word: 'Merge into a picture',
      run: () => void mergeSelection(),
      disabled: none || (selected.length < 2 && selected[0]?.layer.kind !== 'group'),
    },
    { word: 'As SVG …', key: 'Shift C', run: () => set({ sheet: 'drawing' }), disabled: none },
    { word: 'Take apart', run: takeApart, disabled: !selected.some((s) => s.kept.length) },
    null,
    { word: isAside() ? 'Bring back into the film' : 'Set aside', key: 'X', run: putAside, disabled: none },
    { word: 'Delete from this scene', key: 'Delete', run: deleteSelection, disabled: none },
    {
      word: 'Delete from all scenes',
      run: () => deleteEverywhere(selection),
      disabled: none || (selected.every((s) => s.later === 0) && d.scene === 0),
    },
  ]
  // So many could be done to layers: what cannot now has no place in it.
  openMenu(
    e,
    'Layers',
    list.filter((item) => !item?.disabled),
  )
}

/** The menu of the selected bars; move is the one under the pointer. */
export function barMenu(e: React.MouseEvent, move: string) {
  if (!desk().moves.includes(move)) selectMoves([move])
  const { moves, selected } = desk()
  const list = selected.flatMap((s) => s.moves).filter((m) => moves.includes(m.id))
  openMenu(e, 'Moves', [
    { word: moves.length === 1 ? 'Copy move' : `Copy ${moves.length} moves`, key: 'Ctrl C', run: copyMoves },
    { word: 'Mirror', run: () => run('moves.mirror', { moves }) },
    {
      word: 'Swap in and out',
      run: () => run('moves.turn', { moves }),
      disabled: !list.some((m) => m.kind === 'entrance' || m.kind === 'exit'),
    },
    null,
    ...(moves.length === 2 ? engine.meets(moves) : []).map((w) => ({
      word: w.words,
      run: () => run('move.end', { move: w.move, when: 'ends', of: w.of, stretches: w.stretches }),
    })),
    {
      word: 'Let go of the begin',
      run: () => run('move.start', { move, when: 'at', of: '' }),
      disabled: moves.length > 1 || list[0]?.start.when === 'at',
    },
    {
      word: 'Let go of the end',
      run: () => run('move.end', { move, when: '', of: '', stretches: false }),
      disabled: moves.length > 1 || !list[0]?.end,
    },
    null,
    { word: 'Delete', key: 'Delete', run: () => closing(() => run('moves.delete', { moves })) },
  ])
}

/** The menu of a scene. */
export function sceneMenu(e: React.MouseEvent, index: number) {
  const d = desk()
  const id = d.film!.scenes[index].id
  if (!d.scenes.includes(id)) {
    goToScene(index)
    select([], '')
  }
  const ids = desk().scenes.includes(id) ? desk().scenes : [id]
  if (d.film!.scenes[index].aside) {
    if (d.film!.scenes[index].template) {
      openMenu(e, 'Template', [
        { word: 'Make a scene of it', run: () => makeScenes('template.use', { id }) },
        { word: 'Delete the template', key: 'Delete', run: () => apply({ op: 'scene.delete', ids: [id] }) },
      ])
      return
    }
    openMenu(e, 'Aside', [
      { word: 'Delete what is set aside', key: 'Delete', run: () => apply({ op: 'scene.delete', ids: [id] }) },
    ])
    return
  }
  openMenu(e, 'Scene', [
    { word: 'Continue scene', run: () => makeScenes('scene.continue') },
    { word: 'Duplicate scene', run: () => makeScenes('scene.duplicate') },
    { word: 'Duplicate scene as new', run: () => makeScenes('scene.duplicate', { new: true }) },
    { word: 'Blank scene before', run: () => makeScenes('scene.add', { before: true }) },
    { word: 'Blank scene after', run: () => makeScenes('scene.add') },
    { word: 'Keep as a template', run: keepTemplate },
    null,
    { word: 'Split here', key: '/', run: splitScene },
    ids.length > 1
      ? { word: `Fold ${ids.length} scenes into one`, run: () => foldScenes(ids) }
      : { word: 'Unfold into a scene for each step', run: unfoldScene },
    { word: 'Move as one', run: () => moveAsOne(ids), disabled: ids.length < 3 },
    { word: ids.length === 1 ? 'Copy scene' : `Copy ${ids.length} scenes`, key: 'Ctrl C', run: () => copyScenes(ids) },
    { word: 'To a scene …', key: 'Shift Z', run: () => set({ sheet: 'scenes' }) },
    null,
    { word: 'Bring all in', run: () => run('moves.bringIn') },
    {
      word: 'Draw the scene',
      run: () => run('moves.draw', { threads: [], total: 0, equal: false, ground: false, pointer: '' }),
    },
    {
      word: 'Pairs …',
      run: () => {
        goToScene(index)
        set({ sheet: 'pairs' })
      },
      disabled: index === 0,
    },
    { word: 'In words', key: 'W', run: () => set({ sheet: 'words' }) },
    {
      word: 'As SVG …',
      run: () => {
        goToScene(index)
        select([], '')
        set({ sheet: 'drawing' })
      },
    },
    { word: 'A cue at the playhead', key: 'C', run: () => run('cue.add') },
    null,
    {
      word: ids.length === 1 ? 'Delete scene' : `Delete ${ids.length} scenes`,
      key: 'Delete',
      run: () => apply({ op: 'scene.delete', ids }),
      disabled: ids.length >= d.film!.shown,
    },
  ])
}
