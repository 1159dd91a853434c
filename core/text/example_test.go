package text_test

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/library"
)

// Words are set in a family that ships, and come out as outlines about the place of their first line.
func Example() {
	book, err := library.Book()
	if err != nil {
		fmt.Println(err)
		return
	}
	words := &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kite Day\non the pier", Family: "Shrikhand", Weight: 400, Size: 96}}}
	lay := text.SetIn(book, words, text.RoomOf(&doc.Place{}), "")
	fmt.Println(len(lay.Lines), "lines,", len(lay.Outlines), "outline of one colour")
	// Output: 2 lines, 1 outline of one colour
}
