package demo

import (
	"bytes"
	"image"
	"image/png"

	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/text"
)

// Sides of the harbour picture, px.
const (
	harbourWide = 1900
	harbourHigh = 1200
)

// Harbour paints the picture of the upright piece as a PNG: shapes that Capstan itself paints, on rough paper. It is the same at every call.
func Harbour() []byte {
	f, err := frame.Compile(harbourFilm(), frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		panic(err) // it is made of shapes alone, and tested
	}
	img := image.NewRGBA(image.Rect(0, 0, harbourWide, harbourHigh))
	if err := raster.NewPainter(f, nil).Paint(img, f.Player().AtRest(0, frame.View{Scale: 1})); err != nil {
		panic(err)
	}
	for y := range harbourHigh {
		row := img.Pix[y*img.Stride : (y+1)*img.Stride]
		for x := range harbourWide {
			grain := int(14 * (noise(float64(x)/3, float64(y)/3)*0.6 + noise(float64(x)/40, float64(y)/23)*0.8 - 0.7))
			for k := range 3 {
				row[4*x+k] = uint8(min(255, max(0, int(row[4*x+k])+grain)))
			}
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		panic(err) // a picture in memory always encodes
	}
	return b.Bytes()
}
