// Package scenes is what is asked about scenes, and about threads through them.
package scenes

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(acrossAsked, laterAsked, scenesAsked, seriesAsked, strandsAsked)
