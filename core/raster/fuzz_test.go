package raster_test

import (
	"encoding/binary"
	"image"
	"math"
	"testing"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/text"
)

// Whatever stands in a list, painting it whole or by damage ends, with a picture or an error.
func FuzzPaint(f *testing.F) {
	codes := func(v ...uint32) (b []byte) {
		for _, c := range v {
			b = binary.LittleEndian.AppendUint32(b, c)
		}
		return
	}
	numbers := func(v ...float64) (b []byte) {
		for _, n := range v {
			b = binary.LittleEndian.AppendUint64(b, math.Float64bits(n))
		}
		return
	}
	f.Add(codes(display.OpFill, 1, 0), numbers(1, 0, 0, 1, 0, 0, 1, 0, 0, 1))
	f.Add(codes(display.OpGroup, 3, display.OpFill, 1, 1, 2, display.OpEnd), numbers(0, 0, 40, 30, 0, 0, 40, 30, 0.5, 3, 2, 1, 1, 2, 0, 0, 0, 1, 1, 0, 0, 1, 0, 0, 9, 0, 0, 9, 0, 0, 1, 0, 1, 0, 0, 1, 1, 0, 1, 0, 1))
	f.Add(codes(display.OpMask, 0, display.OpNext, display.OpEnd), numbers(0, 0, 9, 9, 4))
	f.Add(codes(display.OpProject, display.OpEnd), numbers(0, 0, 9, 9, 0, 0, 9, 9, 1, 0, 0, 0, 1, 0, 0.1, 0, 1, 1))
	f.Add(codes(display.OpTile, 2, 1, 1, 0xFFFF), numbers(1, 0, 0, 1, 0, 0, 0, 0, 9, 9, 1, 0, 0, 1))
	f.Add(codes(display.OpVeil, 3, display.VeilHalf, display.VeilDoors, display.VeilOver, display.OpMix, display.OpNext, display.OpEnd, display.OpEnd),
		numbers(0, 0, 9, 9, 1, 0, 0, 1, 0, 0, 1, 1, 0, 5, 2, 0, 1, 0, 0, 1, 0, 0, 1, 0, 1, 5, 2, 1, 0, 0, 0, 9, 9, 0.5))
	f.Add(codes(display.OpWipe, 1, display.VeilOutline, 1, display.OpNext, display.OpEnd), numbers(0, 0, 9, 9, 1, 0, 0, 1, 0, 0, 0.5, 1))
	f.Add(codes(display.OpVeil, 3, display.VeilSector, display.VeilNoise, display.VeilTimes, display.OpEnd),
		numbers(0, 0, 40, 30, 1, 0, 0, 1, 0, 0, 1, 20, 15, 30, 200, 0, 1, 0, 0, 1, 0, 0, 1, 7, 3, 1, 0.5, 0.2, 0))
	film, err := frame.Compile(doc.NewProject("p", "p", 40, 30, "s"), frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		f.Fatal(err)
	}
	f.Fuzz(func(t *testing.T, c, n []byte) {
		l := &frame.List{Width: 40, Height: 30}
		for ; len(c) >= 4; c = c[4:] {
			l.Codes = append(l.Codes, binary.LittleEndian.Uint32(c))
		}
		for ; len(n) >= 8; n = n[8:] {
			l.Numbers = append(l.Numbers, math.Float64frombits(binary.LittleEndian.Uint64(n)))
		}
		if len(l.Codes) > 200 || len(l.Numbers) > 400 {
			t.Skip()
		}
		whole := image.NewRGBA(image.Rect(0, 0, 40, 30))
		painted := raster.NewPainter(film, nil).Paint(whole, l)
		canvas := raster.NewCanvas(raster.NewPainter(film, nil), 40, 30)
		shown := canvas.Show(l)
		if painted == nil && shown == nil && string(whole.Pix) != string(canvas.Image().Pix) {
			t.Fatal("whole and by damage differ")
		}
	})
}
