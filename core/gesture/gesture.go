// Package gesture is what the pointer does on the page: drags, each a type that holds layers as they were when it began and says what it comes to,
// and the pen. While one lasts a draft is shown; at its end it is one command.
package gesture

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/snap"
	"capstan/core/words"
)

// Drags are the drags of a window, one at a time, and its pen. They belong to one goroutine.
type Drags struct {
	*scope.Scope
	shows  shower
	drag   drag
	ground []*doc.Layer // that what is dragged would bare the page by
	scene  int          // where that lies
	came   edit.Command // what the drag has come to
	drafts int          // of paths whose points were dragged: each has a name of its own
	pen    *drawing
}

// New returns the drags of a window that shows their drafts.
func New(s *scope.Scope, shows shower) *Drags { return &Drags{Scope: s, shows: shows} }

// Modifiers are the keys held during a gesture.
type Modifiers struct {
	Shift bool    `json:"shift"`
	Alt   bool    `json:"alt"`
	Reach float64 `json:"reach"` // px of the page within which things snap; 0: nothing does
	Free  bool    `json:"free"`  // nothing snaps while it is held
}

// Readout is what a gesture says at the pointer.
type Readout struct {
	Words string       `json:"words"`
	Lines [][4]float64 `json:"lines,omitempty"` // of the page: from what it snapped to, to where it lies
}

// drag is one kind of drag on the page, begun with what it holds and carried out as one command.
type drag interface {
	// to returns the command that the drag has come to with the pointer at a point of the page, nil where it comes to nothing, and what is said
	// of it.
	to(at geom.Point, mod Modifiers) (edit.Command, Readout)
}

// drafted is a drag that shows what it comes to by itself, since writing a command for every move of the pointer would take too long.
type draftedDrag interface {
	draft(s *Drags, at geom.Point, mod Modifiers) (Readout, error)
	made() edit.Command // at its end
}

// hold is what a drag holds, as it was when it began.
type hold struct {
	handle string // what is seized
	from   geom.Point
	scene  int
	grips  []grip
	field  *snap.Field // what layers snap to
	grows  []string    // what grows along with several, and with a group: edit.Strokes, edit.Effects, edit.Letters
}

// grip is one layer held by a gesture, as it was when the gesture began.
type grip struct {
	layer      *doc.Layer
	own, outer geom.Matrix
	box        geom.Box
	pivot      geom.Point // own axes
	onPage     geom.Point // pivot on the page
}

// begun is what a drag is asked for with.
type begun struct {
	hold
	moment scope.Moment
	of     string // what of the layers is dragged: a move, points by commas, or the background
}

// drags are the kinds of drags by name.
var drags = map[string]func(s *Drags, b begun) (drag, error){
	"move":     (*Drags).moveLayers,
	"size":     (*Drags).sizeLayers,
	"turn":     (*Drags).turnLayers,
	"path":     (*Drags).bendPath,
	"pivot":    (*Drags).movePivot,
	"gradient": (*Drags).moveGradient,
	"shape":    (*Drags).reshape,
	"points":   (*Drags).pullPoints,
	"crop":     (*Drags).cropPicture,
}

// Begin starts a drag of a kind on the threads at a moment. handle is a compass point (nw, n, …) for size; "from", "to", "mid" or a "knot" with
// its index for a path, which is the move of; "from", "to", "focus" or a "stop" with its index for a gradient, that of the scene with
// "background" for of; the id of a handle for a shape, of a point for points, with others that go along, by commas, in of.
func (s *Drags) Begin(kind string, m scope.Moment, threads []string, handle, of string, at geom.Point) error {
	f := drags[kind]
	if f == nil {
		return words.New("gesture.unknown", kind)
	}
	s.Stand(m)
	b := begun{hold{handle: handle, from: at, scene: s.SceneIndex(m), grows: s.Grows}, m, of}
	for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, threads)) {
		own, outer, ok := s.Player.Axes(l.ID)
		if !ok {
			outer = s.Shown.Ancestry(b.scene, l.ID)
			own = outer.Mul(s.Shown.RestMatrix(b.scene, l.ID))
		}
		box, pivot := s.Shown.Box(b.scene, l.ID)
		b.grips = append(b.grips, grip{layer: l, own: own, outer: outer, box: box, pivot: pivot, onPage: own.Apply(pivot)})
	}
	d, err := f(s, b)
	if err != nil {
		return err
	}
	s.drag, s.came, s.ground, s.scene = d, nil, s.grounds(&b), b.scene
	return nil
}

// shower shows drafts while something is dragged.
type shower interface {
	// Draft shows what a command would make.
	Draft(c edit.Command) error
	// showDraft shows a document.
	ShowDraft(p *doc.Project) error
}

// Dragging reports whether something is dragged.
func (s *Drags) Dragging() bool { return s.drag != nil }

// DropDrag lets go of what is dragged; the draft of it stays on show.
func (s *Drags) DropDrag() { s.drag, s.came = nil, nil }

// held returns what a drag holds; it holds something.
func (b *begun) held() (hold, error) {
	if len(b.grips) == 0 {
		return hold{}, words.New("gesture.nothing")
	}
	return b.hold, nil
}

// Update follows the pointer: the draft is shown, and said at the pointer.
func (s *Drags) Update(at geom.Point, mod Modifiers) (Readout, error) {
	d := s.drag
	if d == nil {
		return Readout{}, words.New("gesture.none")
	}
	if own, ok := d.(draftedDrag); ok {
		return own.draft(s, at, mod)
	}
	c, r := d.to(at, mod)
	if c == nil {
		return r, nil
	}
	if err := s.shows.Draft(c); err != nil {
		return r, err
	}
	s.drag, s.came = d, c // Draft compiles anew; the drag goes on
	if said := s.bared(); said != "" {
		r.Words += " · " + said
	}
	return r, nil
}

// End returns the command the drag has come to, or nil when nothing has moved. The draft stays on show until the command is applied or the draft
// cleared.
func (s *Drags) End() edit.Command {
	d, c := s.drag, s.came
	s.drag, s.came = nil, nil
	if own, ok := d.(draftedDrag); ok {
		return own.made()
	}
	if v, ok := d.(*movedLayers); ok && v.copies != nil {
		s.Duplicates = *v.copies
	}
	return c
}

// around is the upright box on the page around all that a drag holds, as it was when it began.
func (g *hold) around() geom.Box {
	b := geom.EmptyBox()
	for i := range g.grips {
		b = b.Union(g.grips[i].pageBox())
	}
	return b
}

// placed returns where a grip's origin comes to lie, in the axes its place is in, when m is done to it on the page.
func (gr *grip) placed(m geom.Matrix) (x, y float64) {
	p := geom.Point{X: gr.layer.Place.X, Y: gr.layer.Place.Y}
	if inv, ok := gr.outer.Inverse(); ok {
		p = inv.Apply(m.Apply(gr.outer.Apply(p)))
	}
	return p.X, p.Y
}
