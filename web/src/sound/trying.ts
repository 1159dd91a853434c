// Lets a recording be heard by itself, before it is in the film.
import type { Media } from '../engine/types'
import { rate } from './recordings'

let context: AudioContext | null = null
let node: AudioBufferSourceNode | null = null

/** Plays a recording from its begin. */
export async function hearRecording(hash: string, media: Media) {
  quiet()
  const answer = await fetch(`/api/media/${hash}/frames`)
  if (!answer.ok) throw new Error(String(answer.status))
  const samples = new Float32Array(await answer.arrayBuffer())
  const channels = media.channels ?? 1
  context ??= new AudioContext({ sampleRate: rate })
  await context.resume()
  const buffer = context.createBuffer(channels, Math.max(1, samples.length / channels), rate)
  for (let c = 0; c < channels; c++) {
    const to = buffer.getChannelData(c)
    for (let i = 0; i < to.length; i++) to[i] = samples[i * channels + c]
  }
  node = context.createBufferSource()
  node.buffer = buffer
  node.connect(context.destination)
  node.start()
}

/** Ends it. */
export function quiet() {
  node?.stop()
  node = null
}
