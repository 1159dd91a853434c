package combine_test

import (
	"fmt"

	"capstan/core/combine"
	"capstan/core/geom"
)

// A square without the part that another covers.
func ExampleAreas() {
	square, err := geom.ParseData("M0 0L10 0L10 10L0 10Z")
	if err != nil {
		fmt.Println(err)
		return
	}
	corner, _ := geom.ParseData("M5 5L15 5L15 15L5 15Z")
	left, err := combine.Areas(combine.CutAway, combine.Area{Path: square}, combine.Area{Path: corner})
	fmt.Println(left.Data(), err)
	// Output: M 0 0L 10 0L 10 5L 5 5L 5 10L 0 10Z <nil>
}
