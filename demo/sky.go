package demo

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"math"
)

// Sky paints the opener's sky as a JPEG of 1920 x 1080: a soft ramp with thin streaks of high cloud. It is the same
// at every call.
func Sky() []byte {
	img := image.NewRGBA(image.Rect(0, 0, 1920, 1080))
	top, bottom := [3]float64{126, 190, 214}, [3]float64{226, 238, 224}
	for y := 0; y < 1080; y++ {
		t := math.Pow(float64(y)/1080, 0.8)
		for x := 0; x < 1920; x++ {
			// Streaks lie along the wind: noise stretched eight times in x.
			n := noise(float64(x)/420, float64(y)/52)*0.6 + noise(float64(x)/160+9, float64(y)/24)*0.4
			streak := math.Max(0, n-0.52) * 1.5 * (1 - t*0.7)
			var c [3]uint8
			for k := range c {
				v := top[k] + (bottom[k]-top[k])*t
				c[k] = uint8(v + (255-v)*streak + 0.5)
			}
			img.SetRGBA(x, y, color.RGBA{c[0], c[1], c[2], 255})
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 88}); err != nil {
		panic(err) // a picture in memory always encodes
	}
	return b.Bytes()
}

// noise is smooth value noise on the integer lattice, 0..1.
func noise(x, y float64) float64 {
	ix, iy := math.Floor(x), math.Floor(y)
	fx, fy := x-ix, y-iy
	fx, fy = fx*fx*(3-2*fx), fy*fy*(3-2*fy)
	at := func(i, j float64) float64 {
		h := uint32(int32(i))*374761393 + uint32(int32(j))*668265263
		h = (h ^ h>>13) * 1274126177
		return float64(h^h>>16) / math.MaxUint32
	}
	a := at(ix, iy) + (at(ix+1, iy)-at(ix, iy))*fx
	b := at(ix, iy+1) + (at(ix+1, iy+1)-at(ix, iy+1))*fx
	return a + (b-a)*fy
}
