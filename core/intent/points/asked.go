// Package points is what is asked about drawn lines: new ones, and the points of those that are there.
package points

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(actingAsked, freehandAsked, pointsAsked, pointsPlaceAsked)
