// Package view tells what an interface shows of a document in a window: headings, rows, what is selected, what is drawn over the page, and
// display lists. It changes nothing.
package view

import (
	"cmp"
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/shape"
)

// Fit is how the words of a text fill a box of a height of its own.
type Fit struct {
	Scale float64 `json:"scale"` // of their sizes
	Over  float64 `json:"over"`  // px that the box is too low for them
}

// OwnScenes returns which of the scenes have been set by themselves: their stay ("stay") or their transition differs from what
// most of them have.
func (s *Views) OwnScenes(ids []string, what string) []string {
	value := func(i int, sc *doc.Scene) string {
		if what == "stay" {
			return fmt.Sprint(sc.AutoStay, s.Film.Order.Stays[i])
		}
		t := sc.Transition
		t.Threads = nil
		return fmt.Sprint(t)
	}
	count := map[string]int{}
	most := ""
	each := func(f func(id, v string)) {
		for _, id := range ids {
			if i, sc := s.Doc.Scene(id); sc != nil && (what == "stay" || i > 0) {
				f(id, value(i, sc))
			}
		}
	}
	each(func(_, v string) {
		if count[v]++; count[v] > count[most] {
			most = v
		}
	})
	out := []string{}
	each(func(id, v string) {
		if v != most {
			out = append(out, id)
		}
	})
	return out
}

// Views are what is shown. They belong to one goroutine.
type Views struct {
	*scope.Scope
	profiles map[string][]float64 // outlines of bars by name
}

// New returns what is shown of a scope.
func New(s *scope.Scope) *Views { return &Views{Scope: s, profiles: map[string][]float64{}} }

// Film is what the interface shows of the film as a whole.
type Film struct {
	Project string    `json:"project"`
	Film    string    `json:"film,omitzero"` // its id; empty: the project's first
	Name    string    `json:"name"`
	Width   int       `json:"width"`
	Height  int       `json:"height"`
	Rate    doc.Rate  `json:"rate"`
	Length  int64     `json:"length"` // ms
	Frames  int64     `json:"frames"`
	Loop    bool      `json:"loop"`
	Clear   bool      `json:"clear"` // its page has no ground
	Under   string    `json:"under"` // what files that cannot be clear are filled with, #rrggbb
	Closing *Closing  `json:"closing"`
	Scenes  []Heading `json:"scenes"` // in their order; those set aside follow
	Shown   int       `json:"shown"`  // how many of them are in the film

	Palette  []string         `json:"palette"`
	Fonts    []OwnFont        `json:"fonts"` // of the document's own
	Looks    []*doc.SavedLook `json:"looks"`
	RoleSets []*doc.RoleSet   `json:"roleSets"`
	Credits  []Credit         `json:"credits"` // of all pictures that its scenes show
}

// Closing is the transition from the last scene back to the first.
type Closing struct {
	doc.Transition
	Begin int64 `json:"begin"` // ms of the film
}

// Heading is a scene along time. Times are ms of the film.
type Heading struct {
	ID         string         `json:"id"`
	Name       string         `json:"name"`
	Start      int64          `json:"start"` // when its transition begins
	Into       int64          `json:"into"`  // the transition's duration
	Stay       int64          `json:"stay"`
	AutoStay   bool           `json:"autoStay"`
	Transition string         `json:"transition"`
	Easing     string         `json:"easing"`
	Params     map[string]any `json:"params"` // of the transition
	GoesOn     bool           `json:"goesOn"`
	MayGoOn    bool           `json:"mayGoOn"`    // the scene before does not stay and a morph leads into it
	Run        int            `json:"run"`        // how many morphs move as one with this transition; 0: it moves by itself
	Background doc.Fill       `json:"background"` // in the colours it has
	Roles      []Role         `json:"roles"`
	Layers     int            `json:"layers"`
	Cues       []Flag         `json:"cues"`
	EndsAtCue  string         `json:"endsAtCue"`
	Guides     []doc.Guide    `json:"guides"`
	Aside      bool           `json:"aside"`    // it is not in the film
	Template   bool           `json:"template"` // it is aside, and scenes are made of it
	Curve      bool           `json:"curve"`    // of the first morph of a run: positions lie on a smooth curve
}

// Flag is a cue on the film's time.
type Flag struct {
	doc.Cue
	Passed int64 `json:"passed"` // ms of the film: with all waits up to it
}

// FilmView returns the headings.
func (s *Views) FilmView() Film {
	p, o := s.Shown.Doc, s.Shown.Order
	v := Film{
		Palette: append([]string{}, s.Shown.Doc.Palette...), Looks: append([]*doc.SavedLook{}, s.Shown.Doc.Looks...), Fonts: s.OwnFonts(), RoleSets: append([]*doc.RoleSet{}, s.Shown.Doc.RoleSets...), Credits: s.credits(),
		Project: p.ID, Film: s.FilmID, Name: p.Name, Width: p.Film.Width, Height: p.Film.Height, Rate: p.Film.Rate,
		Length: o.Length, Frames: s.Shown.Frames(), Loop: p.Film.Loop, Clear: p.Film.Clear, Under: cmp.Or(p.Film.Under, "#ffffff"), Shown: len(p.Film.Shown()),
	}
	if c := p.Film.Closing; c != nil {
		v.Closing = &Closing{*c, o.Length - o.Closing}
	}
	for i, sc := range p.Film.Scenes {
		n := 0
		doc.Walk(sc.Layers, func(*doc.Layer, *doc.Layer) bool { n++; return true })
		t := sc.Transition
		h := Heading{
			ID: sc.ID, Name: sc.Name, Start: o.Starts[i], Into: o.Into[i], Stay: o.Stays[i], AutoStay: sc.AutoStay,
			Transition: t.Kind, Easing: t.Easing, Params: t.Params, GoesOn: t.GoesOn,
			Run: len(o.RunOf(i)), Background: ink.Painted(sc), Roles: roles(sc), Layers: n, Cues: []Flag{}, EndsAtCue: sc.EndsAtCue, Aside: sc.Aside, Template: sc.Template, Curve: t.Curve, Guides: append([]doc.Guide{}, sc.Guides...),
		}
		h.MayGoOn = i > 1 && t.Kind == doc.Morph && p.Film.Scenes[i-1].Transition.Kind == doc.Morph && o.Stays[i-1] == 0
		for _, q := range sc.Cues {
			h.Cues = append(h.Cues, Flag{q, o.Begin(i) + motion.CueTime(sc, q.ID)})
		}
		v.Scenes = append(v.Scenes, h)
	}
	return v
}

// Shifted is by how much a thread goes on from each of some scenes to the next.
type Shifted struct {
	Step   doc.Step `json:"step"`
	Scenes int      `json:"scenes"` // how many
	First  int      `json:"first"`  // the first of them
}

// shiftOf returns the shift that a thread has in scene i; nil where it has none.
func (s *Views) shiftOf(i int, thread string) *Shifted {
	sc := s.Shown.Doc.Film.Scenes[i]
	for _, v := range s.Shown.Doc.Film.Shifts {
		if v.Thread == thread && slices.Contains(v.Scenes, sc.ID) {
			first, _ := s.Shown.Doc.Scene(v.Scenes[0])
			return &Shifted{v.Step, len(v.Scenes), first}
		}
	}
	return nil
}

// Selected is a selected layer in the inspector: its own fields, and what is worked out of them.
type Selected struct {
	Layer   *doc.Layer    `json:"layer"` // without children and moves
	Count   int           `json:"count"` // layers inside a group
	Moves   []MoveView    `json:"moves"`
	Box     [4]float64    `json:"box"`   // x y of the middle in the parent's axes, w h, at rest
	Refs    [][2]float64  `json:"refs"`  // corners, sides and middle of the box in the axes of the parent, row by row
	Now     *[3]float64   `json:"now"`   // x y turn where it is now, when that differs from rest
	Pivot   [2]float64    `json:"pivot"` // in shares of the box
	In      string        `json:"in"`    // the name of the group it lies in
	Later   int           `json:"later"`
	Shift   *Shifted      `json:"shift"`    // by how much it goes on from scene to scene, where that was set
	Strands []Strand      `json:"strands"`  // the morphs that it goes through into the scene and, of the last, out of it
	Stands  string        `json:"stands"`   // the one scene in which it stands as in the one before, though it moves into all others; empty: none
	Colours []string      `json:"colours"`  // fills found in a group
	Inks    []InkUse      `json:"inks"`     // all colours of a group, the most used first
	Kept    []string      `json:"kept"`     // names of the layers it was made of
	Made    string        `json:"made"`     // how it was made of them
	Plate   *ink.Contrast `json:"contrast"` // of a text with its plate
	Missing string        `json:"missing"`  // characters of a text that no family has
	Fit     *Fit          `json:"fit"`      // of a text whose box has a height of its own
	Closed  bool          `json:"closed"`   // covers an area by itself
	Unites  bool          `json:"unites"`   // is of a kind that is combined with others
	Grounds bool          `json:"grounds"`  // may fill the page
	File    *File         `json:"file"`     // of a picture; null: of other layers
	Fills   bool          `json:"fills"`    // a picture with nearly the pixels that it takes to fill the page
	Bares   string        `json:"bares"`    // of what covers the page at rest, but not all along its way: how much of that shows, and when; else empty
}

// Selection returns the selected layers of the moment's scene. For a lot of them there is ManyView.
func (s *Views) Selection(m scope.Moment, threads []string) []Selected {
	out := []Selected{}
	i := s.SceneIndex(m)
	sc := s.Shown.Doc.Film.Scenes[i]
	s.Stand(m)
	for _, l := range s.Layers(m, threads) {
		v := Selected{Layer: ink.Shown(l, sc), Moves: []MoveView{}, Colours: []string{}, Inks: inksOf(l, sc), Kept: []string{}, Shift: s.shiftOf(i, l.Thread), Strands: s.strandsOf(i, l.Thread), Stands: s.standsIn(i, l.Thread), Closed: s.Shown.Encloses(i, l.ID), Missing: s.Missing(l), Plate: ink.PlateContrast(l, sc)}
		v.Layer.Path = "" // long, and shown by nothing but the page
		wholeShape(v.Layer)
		if l.Roomy() {
			scale, over := s.Shown.Fit(i, l.ID)
			v.Fit = &Fit{scale, over}
		}
		if l.Made != nil {
			v.Made = l.Made.How
			for _, k := range l.Made.Of {
				v.Kept = append(v.Kept, k.Name)
			}
		}
		seen := map[string]bool{}
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			if k != l {
				v.Count++
			}
			if k.Fill.Kind == doc.Solid {
				if c := ink.Code(k.Fill.Colour, k.Fill.Role, k.Fill.Tone, sc); !seen[c] {
					seen[c] = true
					v.Colours = append(v.Colours, c)
				}
			}
			return true
		})
		_, parent := sc.Layer(l.ID)
		if parent != nil {
			v.In = parent.Name
		}
		v.Unites, v.Grounds = l.Is().Joins, scope.Groundable(l, parent)
		box, pivot := s.Shown.Box(i, l.ID)
		rest := s.Shown.RestMatrix(i, l.ID)
		at := rest.Apply(box.Centre())
		if box.W() > 0 && box.H() > 0 {
			v.Pivot = [2]float64{(pivot.X - box.Min.X) / box.W(), (pivot.Y - box.Min.Y) / box.H()}
		}
		v.Box = [4]float64{at.X, at.Y, box.W(), box.H()}
		v.Refs = [][2]float64{}
		for k := 0; k < 9; k++ {
			v.Refs = append(v.Refs, geom.Pair(rest.Apply(geom.Point{X: box.Min.X + float64(k%3)/2*box.W(), Y: box.Min.Y + float64(k/3)/2*box.H()})))
		}
		if m := s.Doc.Media[mediaOf(l)]; m != nil {
			v.File = s.fileOf(i, l, m)
			v.Fills = float64(m.Width) >= nearly*float64(s.Doc.Film.Width) && float64(m.Height) >= nearly*float64(s.Doc.Film.Height)
		}
		if v.Grounds {
			v.Bares = s.Bares(i, l)
		}
		if own, outer, ok := s.Player.Axes(l.ID); ok && !m.Rest {
			if inv, ok := outer.Inverse(); ok {
				local := inv.Mul(own)
				now := local.Apply(box.Centre())
				turn := geom.AngleOf(local)
				restTurn := geom.AngleOf(rest)
				if now.Sub(at).Len() > 0.05 || diff(turn, restTurn) > 0.05 {
					v.Now = &[3]float64{now.X, now.Y, turn}
				}
			}
		}
		for _, later := range s.Shown.Doc.Film.After(i) {
			if later.Thread(l.Thread) != nil {
				v.Later++
			}
		}
		for _, mv := range l.Moves {
			w := s.moveView(sc, i, l, mv)
			v.Moves = append(v.Moves, w)
		}
		out = append(out, v)
	}
	return out
}

func diff(a, b float64) float64 {
	d := a - b
	for d > 180 {
		d -= 360
	}
	for d < -180 {
		d += 360
	}
	return max(d, -d)
}

// DocumentColours returns the colours the document uses, the most used first.
func (s *Views) DocumentColours() []string {
	count := map[string]int{}
	var order []string
	one := func(c string) {
		if c != "" {
			if count[c] == 0 {
				order = append(order, c)
			}
			count[c]++
		}
	}
	for _, sc := range s.Doc.Film.Scenes {
		ink.Each(sc, func(k ink.Ink) { one(ink.Resolved(k, sc)) })
	}
	sortByCount(order, count)
	return order[:min(len(order), 16)]
}

// wholeShape gives a shape's layer, which is a copy, the numbers that it leaves out.
func wholeShape(l *doc.Layer) {
	if l.IsShape() {
		v := shape.Of(l).Shape
		l.Shape = &v
	}
}
