// Loads the engine, which is the core as WebAssembly, and tells how much of it has come.
import { hello } from '../server/server'
import { isText, recall, remember } from '../remember'
import { fault } from '../words'
import type { FontFile } from './types'

interface Calls {
  [name: string]: (...args: unknown[]) => unknown
}

declare global {
  interface Window {
    capstanEngine?: Calls
    capstanForm?: string // of an answer, where it has not come before
    capstanEngineReady?: () => void
    Go?: new () => { importObject: WebAssembly.Imports; run(i: WebAssembly.Instance): Promise<void> }
  }
}

let engineCalls: Calls
let memory: WebAssembly.Memory
let files: FontFile[] = []
let loading: Promise<void> | undefined

/** Loads the engine and the fonts that ship; later calls wait for the first. */
export function loadEngine(): Promise<void> {
  loading ??= load().catch((e) => {
    loading = undefined
    throw e
  })
  return loading
}

// How much of the engine has come, and how much there is: bytes as they are unpacked.
let come = 0
let size = 0

/** The share of the engine that has come, 0..1; null where its size is not known. */
export const engineLoaded = () => (size > 0 ? Math.min(1, come / size) : null)

// On slow lines, Mbit/s, where a browser tells: what comes is counted on its way. Elsewhere it is not, since browsers
// keep compiled code only of what they fetched themselves.
const slow = () => ((navigator as Navigator & { connection?: { downlink?: number } }).connection?.downlink ?? 10) < 4

// The page that last loaded the engine: its address has its content, so the same one finds the engine still kept.
const loadedBy = 'capstan.engine'

async function fetchEngine(): Promise<Response> {
  const r = await fetch('/engine.wasm')
  if (recall(loadedBy, isText, '') === import.meta.url || !slow()) return r
  come = 0
  size = Number(r.headers.get('Capstan-Size') ?? 0)
  if (!r.ok || !r.body) return r
  const counted = r.body.pipeThrough(
    new TransformStream<Uint8Array, Uint8Array>({
      transform(part, to) {
        come += part.length
        to.enqueue(part)
      },
    }),
  )
  return new Response(counted, { headers: { 'Content-Type': 'application/wasm' } })
}

async function load() {
  if (typeof WebAssembly === 'undefined') throw new Error(fault('browser.engineless'))
  await script('/wasm_exec.js')
  const go = new window.Go!()
  const ready = new Promise<void>((done) => {
    window.capstanEngineReady = done
  })
  const [{ instance }, info] = await Promise.all([
    WebAssembly.instantiateStreaming(fetchEngine(), go.importObject),
    hello(),
  ])
  files = info.fonts
  memory = instance.exports.mem as WebAssembly.Memory
  void go.run(instance)
  await ready
  engineCalls = window.capstanEngine!
  remember(loadedBy, import.meta.url)
}

/** The calls of the loaded engine. */
export const calls = () => engineCalls

/** The engine's memory: answers are read where they lie in it. */
export const engineMemory = () => memory.buffer

/** The font files that ship. */
export const fontFiles = () => files

function script(src: string): Promise<void> {
  return new Promise((done, fail) => {
    const e = document.createElement('script')
    e.src = src
    e.onload = () => done()
    e.onerror = () => fail(new Error(fault('engine.unloaded')))
    document.head.append(e)
  })
}
