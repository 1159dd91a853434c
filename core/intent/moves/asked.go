// Package moves is what is asked about moves: new ones, their numbers and paths, when they are, and what they hang on.
package moves

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(alongAsked, barsAsked, changingAsked, closingAsked, hangingAsked, effectAsked, lastAsked, movesAsked, pathPointsAsked, presetsAsked, scrollingAsked, severalAsked, tappingAsked, timingAsked, transferAsked, tyingAsked)
