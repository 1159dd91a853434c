package anim_test

import (
	"bytes"
	"fmt"
	"image"
	"image/color"

	"capstan/core/anim"
	"capstan/core/paint"
)

// Two frames of one second become a GIF, which says so of itself.
func Example() {
	a, b := image.NewRGBA(image.Rect(0, 0, 8, 8)), image.NewRGBA(image.Rect(0, 0, 8, 8))
	for i := range 64 {
		a.SetRGBA(i%8, i/8, color.RGBA{0xd8, 0x57, 0x3a, 255})
		b.SetRGBA(i%8, i/8, color.RGBA{0x17, 0x40, 0x3c, 255})
	}
	var census anim.Census
	census.Add(a, paint.White, 1)
	census.Add(b, paint.White, 1)
	palette := census.Palette(255)
	var out bytes.Buffer
	g := anim.NewGIF(&out, 8, 8, palette, anim.Timing{RateNum: 2, RateDen: 1, Length: 1000}, 2, 0)
	pixels := make([]byte, anim.Drawn*64)
	for _, img := range []*image.RGBA{a, b} {
		palette.Pen(anim.Flat, paint.White).Draw(pixels, img, img.Rect)
		if err := g.Add(pixels, img.Rect); err != nil {
			fmt.Println(err)
		}
	}
	if err := g.Close(); err != nil {
		fmt.Println(err)
	}
	fmt.Println(anim.Scan(&out))
	// Output: {8 8 2 100} <nil>
}
