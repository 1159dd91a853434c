// Compresses the built engine for sending: by brotli as far as it goes, which takes about a minute and is therefore kept in bin by
// the engine's hash and the level; and by gzip for who does not take brotli. Usage: node scripts/pack.mjs LEVEL
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const level = Number(process.argv[2] ?? 11)
const from = 'web/dist/engine.wasm'
const raw = readFileSync(from)
const kept = `bin/engine-${createHash('sha256').update(raw).digest('hex').slice(0, 16)}-${level}.br`
mkdirSync('bin', { recursive: true })
if (!existsSync(kept)) {
  for (const old of readdirSync('bin')) {
    if (/^engine-.*\.br$/.test(old)) rmSync(`bin/${old}`)
  }
  const packed = brotliCompressSync(raw, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: level, [constants.BROTLI_PARAM_LGWIN]: 24, [constants.BROTLI_PARAM_SIZE_HINT]: raw.length,
    },
  })
  writeFileSync(`${kept}.part`, packed)
  renameSync(`${kept}.part`, kept)
}
writeFileSync(`${from}.br`, readFileSync(kept))
writeFileSync(`${from}.gz`, gzipSync(raw, { level: 6 }))
rmSync(from)
