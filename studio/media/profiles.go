package media

import (
	"image"
	"image/draw"
	"math"
	"runtime"
	"sync"

	"github.com/kovidgoyal/imaging/prism/meta"
	"github.com/kovidgoyal/imaging/prism/meta/icc"
)

// toSRGB is a picture in sRGB by what its file says of its colours: an ICC profile (ICC.1:2022), or the code points of ITU-T H.273. Colours that sRGB
// has not are cut off channel by channel, as programs do that show pictures; the intent is relative colorimetric with black points matched.
func toSRGB(img image.Image, md *meta.Data) (image.Image, error) {
	tr, err := pipeline(img, md)
	if err != nil || tr == nil {
		return img, err
	}
	b := img.Bounds()
	out := image.NewNRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	var row func(y int)
	switch in := img.(type) {
	case *image.CMYK:
		row = func(y int) {
			var last [4]uint8
			rgb, ink := make([]float64, 3), make([]float64, 4)
			known := false
			for x := range b.Dx() {
				q := [4]uint8(in.Pix[in.PixOffset(b.Min.X+x, b.Min.Y+y):])
				if q != last || !known {
					for k := range 4 {
						ink[k] = float64(q[k]) / 255
					}
					tr.TransformGeneral(rgb, ink)
					last, known = q, true
				}
				set(out.Pix[out.PixOffset(x, y):], rgb[0], rgb[1], rgb[2], 255)
			}
		}
	case image.RGBA64Image:
		row = func(y int) {
			for x := range b.Dx() {
				c := in.RGBA64At(b.Min.X+x, b.Min.Y+y)
				if c.A == 0 {
					continue
				}
				a := float64(c.A)
				r, g, bl := tr.Transform(float64(c.R)/a, float64(c.G)/a, float64(c.B)/a)
				set(out.Pix[out.PixOffset(x, y):], r, g, bl, uint8((uint32(c.A)+128)/257))
			}
		}
	default: // of a kind of its reader’s own
		plain := image.NewNRGBA(b)
		draw.Draw(plain, b, img, b.Min, draw.Src)
		return toSRGB(plain, md)
	}
	var all sync.WaitGroup
	workers := runtime.GOMAXPROCS(0)
	for k := range workers {
		all.Go(func() {
			for y := k; y < b.Dy(); y += workers {
				row(y)
			}
		})
	}
	all.Wait()
	return out, nil
}

// set writes a pixel.
func set(at []uint8, r, g, b float64, a uint8) {
	byteOf := func(v float64) uint8 { return uint8(math.Round(255 * min(1, max(0, v)))) }
	at[0], at[1], at[2], at[3] = byteOf(r), byteOf(g), byteOf(b), a
}

// pipeline is the way from the colours of a picture to sRGB; nil where they are in that.
func pipeline(img image.Image, md *meta.Data) (*icc.Pipeline, error) {
	if md.CICP.IsSet {
		if md.CICP.IsSRGB() {
			return nil, nil
		}
		if tr := md.CICP.PipelineToSRGB(); tr != nil {
			return tr, nil
		}
	}
	p, err := md.ICCProfile()
	if err != nil || p == nil || p.IsSRGB() {
		return nil, err
	}
	channels := 3
	if _, ok := img.(*image.CMYK); ok {
		channels = 4
	}
	if p.Header.DataColorSpace == icc.ColorSpaceGray { // all of its channels are one
		return nil, nil
	}
	return p.CreateTransformerToSRGB(icc.RelativeColorimetricRenderingIntent, true, channels, true, false, true)
}
