// Package arrange is what is asked about where layers lie: where they stand, which lies over which, in what groups, and copies of them.
package arrange

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(addingAsked, aligningAsked, arrangingAsked, asideAsked, copiesAsked, groundAsked, guidesAsked, maskingAsked, orderAsked, pastingAsked, pivotAsked, turningAsked, viewsAsked)
