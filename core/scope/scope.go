// Package scope is a document at work as a window has it: what is carried out and what is shown of it, which moment the page shows, which layers
// are meant, where they stand. All that shows, drags or asks for something starts from it; it decides nothing.
package scope

import (
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/pen"
	"capstan/core/text"
)

// StartAt returns where on the scene's clock a new move starts: at the playhead inside the scene, else at 0.
func (s *Scope) StartAt(m Moment) int64 {
	if m.Rest {
		return 0
	}
	w := s.Shown.Order.At(Instant(m.Time))
	at := int64(math.Round(w.Clock.Ms()))
	if w.Into || at < 0 || at >= s.Shown.Timing(w.Scene).Stay-doc.MinDuration {
		return 0
	}
	return at
}

// Duplicates are what the last duplicate was made of: copies of its copies go on as far as these were moved.
type Duplicates struct {
	Seed string
	IDs  []string
}

// Scope is an open document in a window. It belongs to one goroutine.
type Scope struct {
	Fonts  text.Book
	FilmID string        // of the film that is worked on; empty: the project's first
	Doc    *doc.Project  // with all that was carried out here, and that film in the place of the first (doc.Project.Showing)
	Film   *frame.Film   // of Doc
	Shown  *frame.Film   // Film, or that of a draft
	Player *frame.Player // of Shown
	NewID  func() string // makes ids where commands are made

	Aids       Aids
	Grows      []string // what grows along with several layers, and with a group: of edit.Growth
	Behind     string   // thread: what is added goes behind it, where it is in the scene; empty: in front of all
	Window     string   // thread: what is added behind is seen through it; empty: whole
	OnNow      bool     // scenes at rest show only what is on at the playhead
	Duplicates Duplicates
	Pulled     Pulled
}

// Moment is what the page shows: scene Scene at rest, or the film at Time.
type Moment struct {
	Film  string  `json:"film,omitzero"` // its id; empty: the project's first
	Rest  bool    `json:"rest"`
	Scene int     `json:"scene"`
	Time  float64 `json:"time"` // ms of the film
}

// Pulled is a drawn path whose points are dragged: its lines, and the name that stands for them in the draft.
type Pulled struct {
	Path  string
	Lines []pen.Contour
}

// Assets are what films are compiled with.
func (s *Scope) Assets() frame.Assets { return frame.Assets{Fonts: &s.Fonts} }

// SetBehind says behind which thread what is added goes, and which window it is seen through; empty: in front of all, and whole.
func (s *Scope) SetBehind(thread, window string) { s.Behind, s.Window = thread, window }

// SetOnNow makes scenes at rest show only what is on at the playhead.
func (s *Scope) SetOnNow(on bool) { s.OnNow = on }

// SetGrows says what grows along when several layers, or a group, are resized: of edit.Growth.
func (s *Scope) SetGrows(what []string) { s.Grows = append([]string{}, what...) }

// Instant turns pointer and playback time into an exact one, in steps of a microsecond.
func Instant(ms float64) motion.Instant { return motion.Seconds(ms / 1000) }

// SceneIndex returns the place of the scene that a moment is in; inside a transition, of the one that comes.
func (s *Scope) SceneIndex(m Moment) int {
	if m.Rest {
		return min(max(m.Scene, 0), len(s.Shown.Doc.Film.Scenes)-1)
	}
	return s.Shown.Order.At(Instant(m.Time)).Scene
}

// Scene returns the scene that a moment is in, as it is shown.
func (s *Scope) Scene(m Moment) *doc.Scene { return s.Shown.Doc.Film.Scenes[s.SceneIndex(m)] }

// Step returns the film time of the frame n frames on from a time, in ms: frames lie on the film's own grid.
func (s *Scope) Step(ms float64, n int64) float64 {
	r := s.Doc.Film.Rate
	k := int64(math.Round(ms*float64(r.Num)/(1000*float64(r.Den)))) + n
	return motion.FrameTime(max(k, 0), r.Num, r.Den).Ms()
}
