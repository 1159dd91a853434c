// Package overlay is what lies over the page and under the pointer: boxes and handles of what is selected, paths, outlines, display lists, and which
// layers a point or a box meets. It changes nothing.
package overlay

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Overlays are what lies over the page. They belong to one goroutine.
type Overlays struct{ *scope.Scope }

// Overlay is what is drawn over the page for the selection, in page px.
type Overlay struct {
	Boxes    []Box         `json:"boxes"`
	Around   *Box          `json:"around,omitzero"` // of several: upright, around all that are not locked
	Paths    []Path        `json:"paths"`
	Away     []Away        `json:"away"`              // where moves of the layers begin or end elsewhere than at rest
	Gradient *GradientLine `json:"gradient,omitzero"` // of the fill of a single layer
	Rings    []Ring        `json:"rings"`             // of the shape of a single layer
	Crop     *Crop         `json:"crop,omitzero"`     // of a single picture
}

// Box is a selected layer's box as it stands at the moment: corners from its own upper left clockwise.
type Box struct {
	Thread  string        `json:"thread"`
	Kind    string        `json:"kind"`
	Corners [4][2]float64 `json:"corners"`
	Pivot   [2]float64    `json:"pivot"`
	Own     bool          `json:"own"`  // the pivot is not the middle of the box
	Turn    float64       `json:"turn"` // degrees, full turns counted, at rest
	Locked  bool          `json:"locked"`
}

// Path is a motion path of a selected layer.
type Path struct {
	Move  string        `json:"move"`
	D     string        `json:"d"`    // SVG path data
	From  [2]float64    `json:"from"` // where it begins
	To    [2]float64    `json:"to"`
	Mid   [2]float64    `json:"mid"`   // half way, where it is bent
	Angle float64       `json:"angle"` // direction of travel at its end, degrees
	Begin int64         `json:"begin"` // ms on the scene's clock
	End   int64         `json:"end"`
	Dots  [][2]float64  `json:"dots"`  // at even time steps
	Ghost [4][2]float64 `json:"ghost"` // the layer's outline at the end that is not rest
	Knots []Knot        `json:"knots"` // of free paths
}

// OverlayView returns the overlay of the selected threads at a moment. For a lot of them there is CrowdView: their paths would hide each other.
func (s *Overlays) OverlayView(m scope.Moment, threads []string) Overlay {
	v := Overlay{Boxes: []Box{}, Paths: []Path{}, Away: []Away{}, Rings: []Ring{}}
	s.StandWhole(m)
	scene := s.SceneIndex(m)
	list := s.Layers(m, threads)
	if len(list) == 1 && !list[0].Locked {
		v.Gradient = s.lineOf(m, list[0])
		v.Rings = s.ringsOf(list[0])
		v.Crop = s.cropOf(list[0])
	}
	all, free := geom.EmptyBox(), 0
	for _, l := range list {
		corners, pivot, ok := s.Player.Quad(l.ID)
		if ok {
			kind := l.Kind
			if l.Roomy() {
				kind = "room" // every side of it can be moved
			}
			if l.Text != nil && (l.Text.Ring != nil || l.Text.Stacked) {
				kind = doc.Group // nothing in it breaks at a width: it has corners alone
			}
			b := Box{Thread: l.Thread, Kind: kind, Pivot: geom.Pair(pivot), Turn: l.Place.Turn, Locked: l.Locked, Own: l.Place.Pivot != nil}
			for i, c := range corners {
				b.Corners[i] = geom.Pair(c)
			}
			v.Boxes = append(v.Boxes, b)
			if !l.Locked {
				all = all.Union(scope.BoxOf(corners))
				free++
			}
		}
		for _, mv := range l.Moves {
			if mv.Kind == doc.MotionPath {
				if p, ok := s.pathView(scene, l, mv); ok {
					v.Paths = append(v.Paths, p)
				}
			}
		}
	}
	v.Around = boxAround(all, free)
	v.Away = s.away(m, scene, list)
	return v
}

// boxAround is the box around n layers; nil where these are fewer than two.
func boxAround(all geom.Box, n int) *Box {
	if n < 2 {
		return nil
	}
	b := &Box{Kind: doc.Group, Pivot: geom.Pair(all.Centre())}
	for i, c := range all.Corners() {
		b.Corners[i] = geom.Pair(c)
	}
	return b
}

func (s *Overlays) pathView(scene int, l *doc.Layer, mv *doc.Move) (Path, bool) {
	n, ok := s.Line(scene, l, mv)
	if !ok {
		return Path{}, false
	}
	m := n.Page()
	onPage := &geom.Path{}
	onPage.Append(n.Path, m)
	ms := geom.NewMeasure(n.Path)
	from, _ := ms.At(0)
	to, angle := ms.At(1)
	mid, _ := ms.At(0.5)
	iv := s.Shown.Timing(scene).Moves[mv.ID]
	v := Path{
		Move: mv.ID, D: onPage.Data(), From: geom.Pair(m.Apply(from)), To: geom.Pair(m.Apply(to)), Mid: geom.Pair(m.Apply(mid)),
		Angle: angle + geom.AngleOf(m), Begin: iv.Begin, End: iv.End, Dots: [][2]float64{}, Knots: knots(n),
	}
	for _, at := range motion.EvenSteps(mv, iv) {
		p, _ := ms.At(at)
		v.Dots = append(v.Dots, geom.Pair(m.Apply(p)))
	}
	other := to
	if mv.Path.Rest == doc.Arrives {
		other = from
	}
	box, _ := s.Shown.Box(scene, l.ID)
	own := n.Outer.Mul(geom.Translate(other.Sub(n.Rest))).Mul(s.Shown.RestMatrix(scene, l.ID))
	for i, c := range box.Corners() {
		v.Ghost[i] = geom.Pair(own.Apply(c))
	}
	return v, true
}

// Hit returns the threads under a page point, outermost group first, empty on the ground. The pointer goes through masks, but through one
// that alone is selected: it is seized where it lies.
func (s *Overlays) Hit(m scope.Moment, at geom.Point, slack float64, selected ...string) []string {
	s.Stand(m)
	out := []string{}
	sc := s.Scene(m)
	found := s.Player.Hit(at, slack)
	if list := s.Layers(m, selected); len(list) == 1 && list[0].Mask != "" {
		if chain := s.Player.Covering(list[0].ID, at, slack); chain != nil {
			found = chain
		}
	}
	for _, id := range found {
		if l, _ := sc.Layer(id); l != nil {
			out = append(out, l.Thread)
		} else if o := s.threadOf(id); o != "" {
			out = append(out, o) // inside a transition, from the scene before
		}
	}
	return out
}

func (s *Overlays) threadOf(id string) string {
	for _, sc := range s.Shown.Doc.Film.Scenes {
		if l, _ := sc.Layer(id); l != nil {
			return l.Thread
		}
	}
	return ""
}

// Within returns the threads at one level of the group tree whose layers lie wholly in a page box: top layers,
// or the children of the group thread inside.
func (s *Overlays) Within(m scope.Moment, box geom.Box, inside string) []string {
	s.Stand(m)
	sc := s.Scene(m)
	out := []string{}
	list := sc.Layers
	if g := sc.Thread(inside); g != nil && inside != "" {
		list = g.Children
	}
	for _, l := range list {
		if l.Locked || l.Hidden {
			continue
		}
		if c, _, ok := s.Player.Quad(l.ID); ok {
			b := scope.BoxOf(c)
			if box.Contains(b.Min) && box.Contains(b.Max) {
				out = append(out, l.Thread)
			}
		}
	}
	return out
}
