// Package pictures is what is asked about pictures: what part of its file one shows, and what is lifted off its ground.
package pictures

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(croppingAsked, cuttingAsked, maskingAsked)
