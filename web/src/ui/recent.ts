// The colours that were used last, in this browser.
import { isTexts, recall, remember } from '../remember'

const key = 'capstan-colours'
const most = 9

export const recent = () =>
  recall(key, isTexts, [])
    .filter((c) => /^#[0-9a-f]{6,8}$/.test(c))
    .slice(0, most)

export function used(colour: string) {
  remember(key, [colour, ...recent().filter((c) => c !== colour)].slice(0, most))
}
