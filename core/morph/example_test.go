package morph_test

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/morph"
)

// From a quarter turn to three quarters: as the numbers say, or the short way.
func ExampleTurned() {
	fmt.Println(morph.Turned(10, 280, doc.Strand{}), morph.Turned(10, 280, doc.Strand{Turn: doc.TurnShort}))
	// Output: 280 -80
}
