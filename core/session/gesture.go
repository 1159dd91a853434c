package session

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/shape"
	"capstan/core/snap"
	"capstan/core/words"
)

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

// gesture is a drag on the page: it begins, is updated with every pointer move, and ends as one command.
type gesture struct {
	background string // the scene whose background's gradient is dragged; empty: a layer's
	kind       string
	handle     string
	points     string // that go with the one that is dragged, by commas
	from       geom.Point
	scene      int
	grips      []grip
	about      geom.Point // on the page, that turning goes about
	turned     float64    // degrees since the begin, full turns counted
	last       float64
	command    edit.Command

	// Of points of a drawn path.
	lines   []pen.Contour // as they were
	targets []geom.Point  // on the page, to snap to
	drawn   []pen.Contour // as they are drafted
	path    string        // stands for drawn in the draft

	field  *snap.Field // what layers snap to
	grows  []string    // what grows along with several, and with a group: edit.Strokes, edit.Effects, edit.Letters
	seed   string      // of copies that are dragged off
	copies *copied     // what the drag has come to, where it is copies
}

// grip is one layer held by a gesture, as it was when the gesture began.
type grip struct {
	layer      *doc.Layer
	own, outer geom.Matrix
	box        geom.Box
	pivot      geom.Point // own axes
	onPage     geom.Point // pivot on the page
	move       *doc.Move
	line       line
}

// Gesture kinds.
const (
	DragLayers = "move"
	DragSize   = "size"
	DragTurn   = "turn"
	DragPath   = "path"
	DragPivot  = "pivot"

	DragGradient = "gradient"
	DragShape    = "shape"
	DragPoints   = "points"
)

// Begin starts a gesture on the threads at a moment. handle is a compass point (nw, n, …) for size; "from", "to", "mid" or a "knot" with its
// index for a path, whose move is named by move; "from", "to", "focus" or a "stop" with its index for a gradient, that of the scene with "background" for the move; the id of a
// handle for a shape.
func (s *Session) Begin(kind string, m Moment, threads []string, handle, move string, at geom.Point) error {
	s.stand(m)
	g := &gesture{grows: s.grows, kind: kind, handle: handle, from: at, scene: s.sceneIndex(m), seed: s.id()}
	sc := s.scene(m)
	for _, l := range outermost(sc, s.layers(m, threads)) {
		own, outer, ok := s.player.Axes(l.ID)
		if !ok {
			outer = s.shown.Ancestry(g.scene, l.ID)
			own = outer.Mul(s.shown.RestMatrix(g.scene, l.ID))
		}
		box, pivot := s.shown.Box(g.scene, l.ID)
		gr := grip{layer: l, own: own, outer: outer, box: box, pivot: pivot, onPage: own.Apply(pivot)}
		if kind == DragPath {
			mv, on := sc.Move(move)
			if mv == nil || on != l || mv.Path == nil {
				continue
			}
			n, ok := s.line(g.scene, l, mv)
			if !ok {
				continue
			}
			gr.move, gr.line = mv, n
		}
		if kind == DragPoints {
			g.points = move
		}
		g.grips = append(g.grips, gr)
	}
	if kind == DragGradient && move == backgroundPart {
		g.background = sc.ID
		g.grips = []grip{{layer: &doc.Layer{Fill: sc.Background}, own: geom.Identity, outer: geom.Identity, box: s.page()}}
	}
	if len(g.grips) == 0 {
		return words.New("gesture.nothing")
	}
	if kind == DragPoints {
		if err := s.takePoints(g, sc); err != nil {
			return err
		}
	}
	if kind == DragLayers || kind == DragSize || kind == DragPivot {
		g.field = s.field(g)
	}
	g.about = g.grips[0].onPage
	if len(g.grips) > 1 {
		g.about = g.around().Centre()
	}
	g.last = angle(g.about, at)
	s.gesture = g
	return nil
}

// outermost leaves out layers inside others of the list.
func outermost(sc *doc.Scene, list []*doc.Layer) []*doc.Layer {
	chosen := map[string]bool{}
	for _, l := range list {
		chosen[l.ID] = true
	}
	var out []*doc.Layer
	for _, l := range list {
		inner := false
		for _, p := sc.Layer(l.ID); p != nil; _, p = sc.Layer(p.ID) {
			inner = inner || chosen[p.ID]
		}
		if !inner {
			out = append(out, l)
		}
	}
	return out
}

func angle(about, p geom.Point) float64 {
	return math.Atan2(p.Y-about.Y, p.X-about.X) * 180 / math.Pi
}

// Update follows the pointer: the draft is shown, and said at the pointer.
func (s *Session) Update(at geom.Point, mod Modifiers) (Readout, error) {
	g := s.gesture
	if g == nil {
		return Readout{}, words.New("gesture.none")
	}
	var c edit.Command
	var r Readout
	switch g.kind {
	case DragLayers:
		c, r = g.drag(at, mod)
	case DragSize:
		c, r = g.size(at, mod)
	case DragTurn:
		c, r = g.turn(at, mod)
	case DragPath:
		if strings.HasPrefix(g.handle, "knot") {
			c, r = g.moveKnot(at, mod)
		} else {
			c, r = g.bend(at, mod)
		}
	case DragPivot:
		c, r = g.movePivot(at, mod)
	case DragGradient:
		c, r = g.moveGradient(at, mod)
	case DragShape:
		c, r = g.reshape(at, mod)
	case DragPoints:
		list, r := g.pullPoints(at, mod)
		if list == nil {
			return r, nil
		}
		err := s.draftPoints(g, list)
		s.gesture = g
		return r, err
	}
	if c == nil {
		return r, nil
	}
	if err := s.Draft(c); err != nil {
		return r, err
	}
	s.gesture = g // Draft compiles anew; the gesture goes on
	g.command = c
	return r, nil
}

// End returns the command the gesture has come to, or nil when nothing has moved. The draft stays on show until the
// command is applied or the draft cleared.
func (s *Session) End() edit.Command {
	g := s.gesture
	s.gesture = nil
	if g == nil {
		return nil
	}
	if g.drawn != nil {
		return setPath(g.grips[0].layer.ID, pen.Path(g.drawn))
	}
	if g.copies != nil {
		s.copied = *g.copies
	}
	return g.command
}

func setPlaces(list []edit.Part) edit.Command {
	return &edit.SetLayers{Set: list}
}

func placeOf(id string, place edit.Fields) edit.Part {
	return edit.Part{ID: id, Patch: edit.Fields{"place": place}}
}

func (g *gesture) drag(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	d := at.Sub(g.from)
	if mod.Shift {
		if math.Abs(d.X) >= math.Abs(d.Y) {
			d.Y = 0
		} else {
			d.X = 0
		}
	}
	d, marks := g.snapMove(d, mod)
	if mod.Alt {
		list := make([]string, len(g.grips))
		for i, gr := range g.grips {
			list[i] = gr.layer.ID
		}
		g.copies = &copied{g.seed, list}
		return &edit.DuplicateLayers{IDs: list, Seed: g.seed, DX: d.X, DY: d.Y}, said(Readout{Words: fmt.Sprintf("a copy, %+.0f, %+.0f", d.X, d.Y)}, marks)
	}
	g.copies = nil
	var list []edit.Part
	for _, gr := range g.grips {
		in := d
		if inv, ok := gr.outer.Inverse(); ok {
			in = inv.ApplyVector(d)
		}
		list = append(list, placeOf(gr.layer.ID, edit.Fields{"x": gr.layer.Place.X + in.X, "y": gr.layer.Place.Y + in.Y}))
	}
	return setPlaces(list), said(Readout{Words: fmt.Sprintf("%+.0f, %+.0f", d.X, d.Y)}, marks)
}

func (g *gesture) turn(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	first := g.grips[0]
	now := angle(g.about, at)
	step := now - g.last
	for step > 180 {
		step -= 360
	}
	for step < -180 {
		step += 360
	}
	g.last = now
	g.turned += step
	by := g.turned
	if len(g.grips) > 1 {
		step := map[bool]float64{false: 0.1, true: 15}[mod.Shift]
		return g.turnTogether(math.Round(by/step) * step)
	}
	if mod.Shift {
		by = math.Round((first.layer.Place.Turn+by)/15)*15 - first.layer.Place.Turn
	} else {
		by = math.Round(by*10) / 10
	}
	var list []edit.Part
	for _, gr := range g.grips {
		p := gr.layer.Place
		v := geom.Rotate(p.Turn).ApplyVector(gr.pivot).Sub(geom.Rotate(p.Turn + by).ApplyVector(gr.pivot))
		list = append(list, placeOf(gr.layer.ID, edit.Fields{"turn": p.Turn + by, "x": p.X + v.X, "y": p.Y + v.Y}))
	}
	total := first.layer.Place.Turn + by
	words := fmt.Sprintf("%.1f°", total)
	if n := math.Trunc(total / 360); n != 0 {
		words = fmt.Sprintf("%.1f° · %+.0f turns", total, n)
	}
	return setPlaces(list), Readout{Words: words}
}

// proportional says whether a layer keeps its proportions when it is resized.
func proportional(l *doc.Layer) bool {
	return l.Kind == doc.Group || l.Kind == doc.Picture || l.Kind == doc.TextKind || shape.Square(l.Kind)
}

func (g *gesture) size(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	if len(g.grips) > 1 {
		return g.sizeTogether(at, mod)
	}
	gr := g.grips[0]
	l := gr.layer
	inv, ok := gr.own.Inverse()
	if !ok || gr.box.W() <= 0 || gr.box.H() <= 0 {
		return nil, Readout{}
	}
	d := inv.Apply(at).Sub(inv.Apply(g.from))
	w, h := gr.box.W(), gr.box.H()
	fixed := gr.box.Centre()
	nw, nh := w, h
	middle := fixed
	if mod.Alt { // from the middle: both sides go
		d = d.Mul(2)
	}
	for _, c := range g.handle {
		switch c {
		case 'e':
			nw, fixed.X = w+d.X, gr.box.Min.X
		case 'w':
			nw, fixed.X = w-d.X, gr.box.Max.X
		case 's':
			nh, fixed.Y = h+d.Y, gr.box.Min.Y
		case 'n':
			nh, fixed.Y = h-d.Y, gr.box.Max.Y
		}
	}
	if mod.Alt {
		fixed = middle
	}
	nw, nh = math.Max(nw, 1), math.Max(nh, 1)
	if roomy(l) {
		return g.room(gr, nw, nh, fixed)
	}
	if l.Kind == doc.TextKind && (g.handle == "e" || g.handle == "w") {
		return g.wrap(gr, nw, fixed)
	}
	keep := proportional(l) != mod.Shift || l.Kind == doc.Group || l.Kind == doc.TextKind
	kx, ky := nw/w, nh/h
	if keep {
		switch {
		case len(g.handle) == 1 && (g.handle == "n" || g.handle == "s"):
			kx = ky
		case len(g.handle) == 1:
			ky = kx
		default:
			k := math.Max(kx, ky)
			kx, ky = k, k
		}
	}
	kx, ky, marks := g.snapSize(&gr, kx, ky, keep, fixed, mod)
	shift := fixed.Sub(geom.Point{X: kx * fixed.X, Y: ky * fixed.Y})
	local := gr.own
	if o, ok := gr.outer.Inverse(); ok {
		local = o.Mul(gr.own)
	}
	by := local.ApplyVector(shift)
	return scaled(l, kx, ky, l.Place.X+by.X, l.Place.Y+by.Y, g.grows), said(Readout{Words: fmt.Sprintf("%.0f × %.0f", w*kx, h*ky)}, marks)
}

// scaled is the command that scales one layer and puts it at a place. Of groups what grows along is as wanted; of others the letters of a text.
func scaled(l *doc.Layer, kx, ky, x, y float64, grows []string) edit.Command {
	c := &edit.ScaleLayer{ID: l.ID, KX: kx, KY: ky, X: x, Y: y}
	if l.Kind == doc.Group {
		c.Grows = &grows
	}
	return c
}

// wrap gives a text a width to break its lines at. The side that is not dragged stays.
func (g *gesture) wrap(gr grip, width float64, fixed geom.Point) (edit.Command, Readout) {
	l := gr.layer
	left := fixed.X
	if g.handle == "w" {
		left = fixed.X - width
	}
	// The origin of a text that wraps is the middle of its upper edge.
	local := gr.own
	if o, ok := gr.outer.Inverse(); ok {
		local = o.Mul(gr.own)
	}
	by := local.ApplyVector(geom.Point{X: left + width/2})
	patch := edit.Fields{
		"text":  edit.Fields{"wrap": true},
		"place": edit.Fields{"w": width, "x": l.Place.X + by.X, "y": l.Place.Y + by.Y},
	}
	c := &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: patch}}}
	return c, Readout{Words: fmt.Sprintf("%.0f wide", width)}
}

// bend drags one end of a motion path, or its middle. Dragging the end that is the rest pose moves the layer, and the other end
// stays where it is.
func (g *gesture) bend(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := gr.line.page().Inverse()
	if !ok {
		return nil, Readout{}
	}
	q := inv.Apply(at)
	p := &geom.Path{Verbs: append([]geom.Verb(nil), gr.line.path.Verbs...), Points: append([]geom.Point(nil), gr.line.path.Points...)}
	n := len(p.Points)
	a, b := p.Points[0], p.Points[n-1]
	rest := gr.move.Path.Rest
	if g.handle == "mid" {
		c := q.Mul(2).Sub(a.Add(b).Mul(0.5))
		curve := &geom.Path{}
		curve.Move(a)
		curve.Quad(c, b)
		return g.setPath(gr, curve, nil), Readout{Words: "bent"}
	}
	other := a
	i, near := n-1, n-2
	if g.handle == "from" {
		other, i, near = b, 0, 1
	}
	if mod.Shift {
		d := q.Sub(other)
		if math.Abs(d.X) >= math.Abs(d.Y) {
			q.Y = other.Y
		} else {
			q.X = other.X
		}
	}
	d := q.Sub(p.Points[i])
	p.Points[i] = q
	if n > 2 {
		p.Points[near] = p.Points[near].Add(d)
	}
	length := geom.NewMeasure(p).Length()
	words := Readout{Words: fmt.Sprintf("%.0f px", length)}
	restEnd := (g.handle == "from" && rest != doc.Arrives && rest != doc.Passes) || (g.handle == "to" && rest == doc.Arrives)
	if !restEnd {
		return g.setPath(gr, p, nil), words
	}
	// Path points count from the rest pose: the layer moves by d, so the line's points move by -d.
	for k := range p.Points {
		p.Points[k] = p.Points[k].Sub(d)
	}
	return g.setPath(gr, p, &d), words
}

func (g *gesture) setPath(gr grip, p *geom.Path, by *geom.Point) edit.Command {
	set := &edit.SetMoves{Set: []edit.Part{{
		ID: gr.move.ID, Patch: edit.Fields{"path": edit.Fields{"d": p.Data()}},
	}}}
	if by == nil {
		return set
	}
	l := gr.layer
	return edit.All(set, setPlaces([]edit.Part{
		placeOf(l.ID, edit.Fields{"x": l.Place.X + by.X, "y": l.Place.Y + by.Y}),
	}))
}
