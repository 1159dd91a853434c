// Compresses the engine for sending: by brotli as far as it goes, which takes about a minute and is therefore kept in bin by the engine's
// hash and the level; and by gzip for who does not take brotli. Usage: node scripts/pack.mjs LEVEL [place]; with place it goes into the built
// page, in place of the engine itself.
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
if (!existsSync(`${kept}.br`)) {
  for (const old of readdirSync('bin')) {
    if (/^engine-.*\.(br|gz|part)$/.test(old)) rmSync(`bin/${old}`)
  }
  write(`${kept}.gz`, gzipSync(raw, { level: 6 }))
  write(`${kept}.br`, brotliCompressSync(raw, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: level, [constants.BROTLI_PARAM_LGWIN]: 24, [constants.BROTLI_PARAM_SIZE_HINT]: raw.length,
    },
  }))
}
if (process.argv[3] === 'place') {
  for (const kind of ['br', 'gz']) copyFileSync(`${kept}.${kind}`, `web/dist/engine.wasm.${kind}`)
  rmSync('web/dist/engine.wasm')
}
