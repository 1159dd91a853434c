// Package looks is what is asked about how layers are painted: fills, strokes, effects, colours and their roles.
package looks

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(fillsAsked, platesAsked, rolesAsked, savedAsked, wearingAsked, adjustingAsked, recolouringAsked)
