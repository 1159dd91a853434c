package raster_test

import (
	"fmt"
	"image"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// A list is painted in whatever size the picture has.
func Example() {
	p := doc.NewProject("sky", "Sky", 1920, 1080, "first")
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#8ec6da"}
	film, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		fmt.Println(err)
		return
	}
	img := image.NewRGBA(image.Rect(0, 0, 192, 108))
	err = raster.NewPainter(film, nil).Paint(img, film.Player().At(motion.Millis(0), frame.View{Scale: 0.1}))
	fmt.Println(img.RGBAAt(96, 54), err)
	// Output: {142 198 218 255} <nil>
}
