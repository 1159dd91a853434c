package text

import "github.com/go-text/typesetting/font"

// Mend is mend for tests that read fonts themselves.
func Mend(f *font.Face) { mend(f) }
