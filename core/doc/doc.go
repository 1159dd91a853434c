// Package doc is the document: one project with its film, scenes, layers and moves, as it is stored,
// sent and edited. docs/format.md describes the same format in words.
//
// Times are whole milliseconds; film rates are fractions; places are page pixels with y down; angles
// are degrees, clockwise, never reduced modulo 360; opacities are 0..1. Documents are values that
// are shared: code that changes one clones what it touches (see Clone) and leaves the rest alone.
package doc

import (
	"strings"

	"github.com/go-json-experiment/json/jsontext"
)

// Version is the format version this package writes.
const Version = 2

// Extra holds fields this version does not know, kept as they came and written back.
type Extra map[string]jsontext.Value

// Project is one document: a film, its insets, and what they use.
type Project struct {
	Version  int               `json:"version"`
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Film     Film              `json:"film"`
	Films    []*NamedFilm      `json:"films,omitzero"`  // beside the first
	Insets   []*Inset          `json:"insets,omitzero"` // films inside the film
	RoleSets []*RoleSet        `json:"roleSets,omitzero"`
	Palette  []string          `json:"palette,omitzero"` // colours that were put aside, at most 64
	Looks    []*SavedLook      `json:"looks,omitzero"`   // looks that were put aside, at most 64
	Table    *Table            `json:"table,omitzero"`   // that variants are made of
	Media    map[string]*Media `json:"media,omitzero"`   // by SHA-256 of the original file, hex
	Extra    Extra             `json:",embed"`

	shows string // the film that stands in the place of the first
	first *Film  // meanwhile; nil: it is in its place
}

// Rate is a number of frames a second as an exact fraction, 1/1000 to 240, of numbers up to a million.
type Rate struct {
	Num int64 `json:"num"`
	Den int64 `json:"den"`
}

// Valid reports whether a rate lies within its limits.
func (r Rate) Valid() bool {
	return r.Num >= 1 && r.Den >= 1 && r.Num <= 1e6 && r.Den <= 1e6 && r.Num <= 240*r.Den && 1000*r.Num >= r.Den
}

// Film is a list of scenes on pages of one size.
type Film struct {
	Width    int         `json:"width"`  // page px, 16..8192
	Height   int         `json:"height"` // page px, 16..8192
	Rate     Rate        `json:"rate"`
	Loop     bool        `json:"loop,omitzero"`
	Closing  *Transition `json:"closing,omitzero"`  // from the last scene back to the first
	EndPause *int64      `json:"pause,omitzero"`    // ms the last frame of a GIF rests before it begins again; nil: as the film's end asks for
	Clear    bool        `json:"clear,omitzero"`    // the page has no ground: backgrounds are not painted
	Shifts   []Shift     `json:"shifts,omitzero"`   // threads that go on by a step from scene to scene
	Under    string      `json:"under,omitzero"`    // #rrggbb: what files that cannot be clear are filled with; empty: white
	Sounds   []*Sound    `json:"sounds,omitzero"`   // on the film's clock
	Mix      *Mix        `json:"mix,omitzero"`      // how all sounds go together; nil: StandardMix
	Captions *Captioned  `json:"captions,omitzero"` // how what voices say is shown; nil: it is not
	Scenes   []*Scene    `json:"scenes"`            // in their order; those set aside follow
}

// Shown returns the scenes that are in the film: all but those set aside.
func (f *Film) Shown() []*Scene {
	for i, s := range f.Scenes {
		if s.Aside {
			return f.Scenes[:i]
		}
	}
	return f.Scenes
}

// After returns the scenes of the film that follow scene i; none follow one that is set aside.
func (f *Film) After(i int) []*Scene {
	shown := f.Shown()
	return shown[min(i+1, len(shown)):]
}

// Inset is a film inside the film, shown by layers of kind inset.
type Inset struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Film Film   `json:"film"`
}

// Scene is one page of a film with what lies on it, back to front.
type Scene struct {
	ID         string            `json:"id"`
	Name       string            `json:"name"`
	Stay       int64             `json:"stay"`              // ms
	AutoStay   bool              `json:"autoStay,omitzero"` // stay follows the moves and words
	Transition Transition        `json:"transition"`        // into this scene; duration 0 in the first
	Background Fill              `json:"background"`
	Roles      map[string]string `json:"roles,omitzero"` // colour roles: name to #rrggbb
	Cues       []Cue             `json:"cues,omitzero"`
	EndsAtCue  string            `json:"endsAtCue,omitzero"` // the scene stays until this cue is passed
	Runs       []MoveRun         `json:"runs,omitzero"`
	Guides     []Guide           `json:"guides,omitzero"`
	Aside      bool              `json:"aside,omitzero"`    // it is not in the film; layers lie there until they are wanted
	Template   bool              `json:"template,omitzero"` // it is aside to be put into the film again and again; layers are not set aside there
	Sounds     []*Sound          `json:"sounds,omitzero"`   // on the scene's clock
	Captions   []Caption         `json:"captions,omitzero"` // on the scene's clock, rising; none over another
	Layers     []*Layer          `json:"layers"`
	Extra      Extra             `json:",embed"`
}

// MoveRun is an ordered list of moves of a scene: each but the first hangs on the one before it, and its offset is
// the gap. Dragging one past another changes the order; the gaps stay where they are.
type MoveRun struct {
	ID    string   `json:"id"`
	When  string   `json:"when"` // ends: one after another; begins: a cascade
	Moves []string `json:"moves"`
}

// Cue is a named moment of a scene where a presenter may be waited for.
type Cue struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	At   int64  `json:"at"`            // ms on the scene's clock
	Wait int64  `json:"wait,omitzero"` // ms
}

// Axes of guides.
const (
	Upright = "upright"
	Level   = "level"
)

// Guide is a line that layers snap to; it is never exported.
type Guide struct {
	Axis string  `json:"axis"` // upright or level
	At   float64 `json:"at"`   // page px
}

// RoleSet is a saved set of colour roles.
type RoleSet struct {
	ID    string            `json:"id"`
	Name  string            `json:"name"`
	Roles map[string]string `json:"roles"`
}

// Media says what an imported file is; its bytes live beside the document.
type Media struct {
	Name    string `json:"name"`             // as the person called it
	Type    string `json:"type"`             // media type of the original, such as image/png
	Bytes   int64  `json:"bytes"`            // size of the original
	Width   int    `json:"width,omitzero"`   // px, upright
	Height  int    `json:"height,omitzero"`  // px, upright
	Opaque  bool   `json:"opaque,omitzero"`  // no pixel lets the ground through
	Source  string `json:"source,omitzero"`  // who made it, or where it is from, at most MaxCredit characters
	Licence string `json:"licence,omitzero"` // how it may be used, likewise
	Moves   bool   `json:"moves,omitzero"`   // the original has more pictures than the first, which is shown
	Shown   *Crop  `json:"shown,omitzero"`   // the part that is not clear all around, where there is more than that
	Covers  string `json:"covers,omitzero"`  // of a mask: roughly where it keeps anything, as Covers writes it
	Intake  int    `json:"intake,omitzero"`  // which of Capstan's ways to read pictures it was read by; see Intake

	Samples  int64 `json:"samples,omitzero"`  // of a recording, SampleRate a second
	Channels int   `json:"channels,omitzero"` // of a recording: 1, or 2

	// Of fonts, whose type is font/ttf or font/otf.
	Family string `json:"family,omitzero"`
	Weight int    `json:"weight,omitzero"` // 1..1000
	Italic bool   `json:"italic,omitzero"`
	Stays  bool   `json:"stays,omitzero"` // it may not be handed on in a bundle
}

// Intake is the way in which pictures are read now. What was read by an older one stays as it is until it is read anew.
const Intake = 4

// IsFont reports whether the file is a font.
func (m *Media) IsFont() bool { return strings.HasPrefix(m.Type, "font/") }
