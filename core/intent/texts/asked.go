// Package texts is what is asked about texts: their words, setting and boxes, and what they are split into.
package texts

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(boxesAsked, styleAsked, splittingAsked)
