/** What stands for a picture whose file is not there: a plate with a frame and a cross, as the server draws it too. */
export function missingSign(
  x: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  outline: Path2D,
  left: number,
  top: number,
  wide: number,
  high: number,
) {
  x.fillStyle = '#EFE9DC'
  x.fill(outline)
  x.save()
  x.clip(outline)
  x.strokeStyle = '#AE3B21'
  x.lineWidth = Math.max(wide, high) / 32
  x.beginPath()
  x.rect(left, top, wide, high)
  x.moveTo(left, top)
  x.lineTo(left + wide, top + high)
  x.moveTo(left + wide, top)
  x.lineTo(left, top + high)
  x.stroke()
  x.restore()
}
