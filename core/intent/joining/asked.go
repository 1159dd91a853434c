// Package joining is what is asked about outlines together: layers united, cut, broken up, made outlines, and merged into a picture.
package joining

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(combiningAsked, outliningAsked, mergingAsked)
