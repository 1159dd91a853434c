// Package budget says how much work the studio does at a time, and how much one piece of it may take. docs/security.md gives the reasons; what a
// document may hold stands in core/doc, and what a file may be in core/delivery.
package budget

import "time"

// Of commands.
const (
	Command = 15 * time.Second // how long one may take
)

// Of exports.
const (
	Exports        = 2         // made at a time
	RenderCanvases = 300 << 20 // bytes of the canvases and plates of one render, beside what single frames need; one that needs more is made alone
	RenderGroups   = 192 << 20 // bytes that all painters of one render take for what lies in groups
)

// Of small views.
const (
	Views     = 2 // painted at a time
	ViewTime  = 10 * time.Second
	ViewBytes = 128 << 20
)

// Of bundles that are read and pictures that are merged.
const (
	Heavy     = 2 // at a time
	HeavyTime = 5 * time.Minute
)

// Of what is taken in.
const (
	LargePicture = 4_000_000       // pixels from which on pictures are taken in one at a time
	Derivatives  = 192 << 20       // bytes of decoded pictures that are kept
	SoundTime    = 5 * time.Minute // that decoding a recording may take
	Books        = 24              // sets of fonts of projects that are kept
)

// Of what is told and kept of changes.
const (
	Told      = 500     // changes told at once
	ToldBytes = 4 << 20 // of them
	KeptWhole = 1000    // changes of a project; of older ones only the ids are kept
	Open      = 24      // projects held in memory
)

// Memory is from how many bytes on the collector works harder.
const Memory = 1000 << 20
