// Parts pictures by OpenCV's grabCut: node grabcut.cjs MODULE FOLDER. The folder has list.json (width, height and a
// rectangle each) and N.rgba; N.mask is written: a byte a pixel, 1 where it is kept.
const fs = require('fs')
const [, , module_, dir] = process.argv
const loaded = require(module_)
const run = (cv) => {
  const list = JSON.parse(fs.readFileSync(`${dir}/list.json`))
  list.forEach(({ w, h, rect }, n) => {
    const rgba = cv.matFromArray(h, w, cv.CV_8UC4, fs.readFileSync(`${dir}/${n}.rgba`))
    const img = new cv.Mat()
    cv.cvtColor(rgba, img, cv.COLOR_RGBA2RGB)
    const [mask, back, fore] = [new cv.Mat(), new cv.Mat(), new cv.Mat()]
    cv.grabCut(img, mask, new cv.Rect(...rect), back, fore, 5, cv.GC_INIT_WITH_RECT)
    fs.writeFileSync(`${dir}/${n}.mask`, Uint8Array.from(mask.data, (v) => v & 1))
    for (const m of [rgba, img, mask, back, fore]) m.delete()
  })
  process.exit(0)
}
if (loaded.Mat) run(loaded)
else if (loaded.then) loaded.then(run)
else loaded.onRuntimeInitialized = () => run(loaded)
