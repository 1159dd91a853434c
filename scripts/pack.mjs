// Compresses the engine for sending: by brotli as far as it goes, which takes about a minute and is therefore kept in bin by the engine's
// hash and the level; and by gzip for who does not take brotli. Usage: node scripts/pack.mjs LEVEL [place]; with place it goes into the built
// page, in place of the engine itself, and the page's scripts and styles are compressed in the same way.
import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const level = Number(process.argv[2] ?? 11)
const raw = readFileSync('web/public/engine.wasm')
const kept = `bin/engine-${createHash('sha256').update(raw).digest('hex').slice(0, 16)}-${level}`
mkdirSync('bin', { recursive: true })
const write = (name, data) => {
  writeFileSync(`${name}.part`, data)
  renameSync(`${name}.part`, name)
}
const pack = (name, data) => {
  write(`${name}.gz`, gzipSync(data, { level: 6 }))
  write(`${name}.br`, brotliCompressSync(data, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: level, [constants.BROTLI_PARAM_LGWIN]: 24, [constants.BROTLI_PARAM_SIZE_HINT]: data.length,
    },
  }))
}
if (!existsSync(`${kept}.br`)) {
  for (const old of readdirSync('bin')) {
    if (/^engine-.*\.(br|gz|part)$/.test(old)) rmSync(`bin/${old}`)
  }
  pack(kept, raw)
}
if (process.argv[3] === 'place') {
  for (const kind of ['br', 'gz']) copyFileSync(`${kept}.${kind}`, `web/dist/engine.wasm.${kind}`)
  rmSync('web/dist/engine.wasm')
  for (const name of ['wasm_exec.js', ...readdirSync('web/dist/assets').map((n) => `assets/${n}`)]) {
    if (!/\.(js|css)$/.test(name)) continue
    pack(`web/dist/${name}`, readFileSync(`web/dist/${name}`))
    rmSync(`web/dist/${name}`)
  }
}
