// One quad in perspective: each pixel is looked up through the inverse of the matrix, as core/raster/project.go does,
// on WebGL2 where there is one, else here.
import type { Rect } from './sheets'

const vertex = `#version 300 es
in vec2 at;
void main() { gl_Position = vec4(at, 0, 1); }`

// inv maps px of the canvas to shares of the flat picture, up to a factor; the border fades over one px.
const fragment = `#version 300 es
precision highp float;
uniform mat3 inv;
uniform vec2 corner;
uniform float height;
uniform vec2 size;
uniform vec2 part;
uniform sampler2D flatly;
out vec4 colour;
void main() {
  vec2 px = vec2(gl_FragCoord.x, height - gl_FragCoord.y) + corner;
  vec3 q = inv * vec3(px, 1);
  vec2 uv = q.xy / q.z;
  vec2 g = fwidth(uv);
  vec2 near = min(uv, 1.0 - uv) / max(g, vec2(1e-9)) + 0.5;
  vec2 c = clamp(near, 0.0, 1.0);
  vec2 half_ = 0.5 / size;
  colour = texture(flatly, clamp(uv, half_, 1.0 - half_) * part) * c.x * c.y;
}`

interface Glass {
  gl: WebGL2RenderingContext
  canvas: HTMLCanvasElement
  at: Record<string, WebGLUniformLocation | null>
}

let glass: Glass | null | undefined

function make(): Glass | null {
  const canvas = document.createElement('canvas')
  const gl = canvas.getContext('webgl2', { premultipliedAlpha: true, antialias: false, preserveDrawingBuffer: true })
  if (!gl) return null
  const program = gl.createProgram()!
  for (const [kind, source] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, fragment],
  ] as const) {
    const s = gl.createShader(kind)!
    gl.shaderSource(s, source)
    gl.compileShader(s)
    if (!gl.getShaderParameter(s, gl.COMPILE_STATUS)) return null
    gl.attachShader(program, s)
  }
  gl.linkProgram(program)
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return null
  gl.useProgram(program)
  gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer())
  gl.bufferData(gl.ARRAY_BUFFER, new Float32Array([-1, -1, 3, -1, -1, 3]), gl.STATIC_DRAW)
  const at = gl.getAttribLocation(program, 'at')
  gl.enableVertexAttribArray(at)
  gl.vertexAttribPointer(at, 2, gl.FLOAT, false, 0, 0)
  gl.bindTexture(gl.TEXTURE_2D, gl.createTexture())
  for (const [k, v] of [
    [gl.TEXTURE_MIN_FILTER, gl.LINEAR],
    [gl.TEXTURE_MAG_FILTER, gl.LINEAR],
    [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE],
    [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE],
  ]) {
    gl.texParameteri(gl.TEXTURE_2D, k, v)
  }
  const names = ['inv', 'corner', 'height', 'size', 'part']
  return { gl, canvas, at: Object.fromEntries(names.map((n) => [n, gl.getUniformLocation(program, n)])) }
}

/**
 * Paints the flat picture, w x h px in the corner of a canvas, into a part of the device. inv (by rows) maps px of the
 * device to
 * shares of the picture. The canvas returned is good until the next call.
 */
export function inPerspective(
  flat: HTMLCanvasElement,
  w: number,
  h: number,
  inv: number[],
  part: Rect,
): HTMLCanvasElement {
  if (glass === undefined) glass = make()
  if (!glass || glass.gl.isContextLost()) return byHand(flat, w, h, inv, part)
  const { gl, canvas, at } = glass
  if (canvas.width !== part.w || canvas.height !== part.h) {
    canvas.width = part.w
    canvas.height = part.h
  }
  gl.viewport(0, 0, part.w, part.h)
  gl.clearColor(0, 0, 0, 0)
  gl.clear(gl.COLOR_BUFFER_BIT)
  gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, true)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, flat)
  gl.uniformMatrix3fv(at.inv, true, inv)
  gl.uniform2f(at.corner, part.x, part.y)
  gl.uniform1f(at.height, part.h)
  gl.uniform2f(at.size, w, h)
  gl.uniform2f(at.part, w / flat.width, h / flat.height)
  gl.drawArrays(gl.TRIANGLES, 0, 3)
  return canvas
}

function byHand(flat: HTMLCanvasElement, w: number, h: number, inv: number[], part: Rect): HTMLCanvasElement {
  const from = flat.getContext('2d')!.getImageData(0, 0, w, h).data
  const canvas = document.createElement('canvas')
  canvas.width = part.w
  canvas.height = part.h
  const ctx = canvas.getContext('2d')!
  const out = ctx.createImageData(part.w, part.h)
  const share = (x: number, y: number): [number, number] => {
    const k = inv[6] * x + inv[7] * y + inv[8]
    return [(inv[0] * x + inv[1] * y + inv[2]) / k, (inv[3] * x + inv[4] * y + inv[5]) / k]
  }
  const cover = (v: number, g: number) => Math.min(1, Math.max(0, Math.min(v, 1 - v) / Math.max(g, 1e-9) + 0.5))
  for (let y = 0; y < part.h; y++) {
    for (let x = 0; x < part.w; x++) {
      const [px, py] = [part.x + x + 0.5, part.y + y + 0.5]
      const [u, v] = share(px, py)
      const [ux, vx] = share(px + 1, py)
      const [uy, vy] = share(px, py + 1)
      const c = cover(u, Math.abs(ux - u) + Math.abs(uy - u)) * cover(v, Math.abs(vx - v) + Math.abs(vy - v))
      if (!(c > 0)) continue
      const sx = Math.min(w - 1, Math.max(0, u * w - 0.5))
      const sy = Math.min(h - 1, Math.max(0, v * h - 0.5))
      const [ix, iy] = [Math.floor(sx), Math.floor(sy)]
      const [jx, jy] = [Math.min(w - 1, ix + 1), Math.min(h - 1, iy + 1)]
      const [fx, fy] = [sx - ix, sy - iy]
      const sum = [0, 0, 0, 0]
      for (const [qx, qy, k] of [
        [ix, iy, (1 - fx) * (1 - fy)],
        [jx, iy, fx * (1 - fy)],
        [ix, jy, (1 - fx) * fy],
        [jx, jy, fx * fy],
      ]) {
        const i = 4 * (qy * w + qx)
        const a = from[i + 3] * k
        for (let j = 0; j < 3; j++) sum[j] += from[i + j] * a
        sum[3] += a
      }
      const i = 4 * (y * part.w + x)
      for (let j = 0; j < 3; j++) out.data[i + j] = sum[3] > 0 ? sum[j] / sum[3] : 0
      out.data[i + 3] = sum[3] * c
    }
  }
  ctx.putImageData(out, 0, 0)
  return canvas
}
