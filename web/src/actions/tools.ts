// Taking a tool in hand.
import { desk, set, toRest, type Tool } from '../project/desk'
import { dropPen } from './drawing'

export function pickTool(tool: Tool) {
  toRest()
  if (desk().pen) dropPen()
  set({ tool })
}
