package gesture

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/scope"
)

// drawing is a line while the pen draws it, in page px.
type drawing struct {
	line    pen.Contour
	scene   int
	extends string // id of the layer whose open path it goes on
	held    int    // the point whose handles follow the pointer; -1: none
	mirror  bool   // about the upright line through its first point
	at      geom.Point
	hovers  bool
}

// PenView is what the pen has drawn so far.
type PenView struct {
	D      string `json:"d"`      // the line, SVG path data in page px
	Next   string `json:"next"`   // the stretch that a press would add
	Knots  []Dot  `json:"knots"`  // its points
	Closes bool   `json:"closes"` // a press would close it
	Done   bool   `json:"done"`   // it is whole: PenEnd makes it
	Words  string `json:"words"`
}

// Dot is a point of a drawn path, or a handle of one.
type Dot struct {
	ID     string     `json:"id"` // contour.point, and .in or .out for a handle
	At     [2]float64 `json:"at"`
	Handle bool       `json:"handle"`
	Of     [2]float64 `json:"of"` // of a handle: its point
	Smooth bool       `json:"smooth"`
}

// towards limits a direction from a to b to steps of 15 degrees.
func towards(a, b geom.Point, limited bool) geom.Point {
	d := b.Sub(a)
	if !limited || d.Len() == 0 {
		return b
	}
	step := math.Round(math.Atan2(d.Y, d.X)*12/math.Pi) * math.Pi / 12
	sin, cos := math.Sincos(step)
	l := d.X*cos + d.Y*sin
	return a.Add(geom.Point{X: cos * l, Y: sin * l})
}

// Pen draws. what is press, drag, release, hover, back (take the last point away) or mirror (on or off); slack is how near a press
// counts as on a point, in page px. With Shift lines lie at steps of 15 degrees. A press on the end of the open path thread goes on
// with it.
func (s *Drags) Pen(m scope.Moment, what string, at geom.Point, mod Modifiers, slack float64, thread string) PenView {
	if s.pen == nil {
		s.pen = &drawing{held: -1, scene: s.SceneIndex(m)}
	}
	d := s.pen
	n := len(d.line.Nodes)
	switch what {
	case "press":
		d.hovers = false
		if n == 0 {
			s.goOn(m, thread, at, slack)
			if n = len(d.line.Nodes); n > 0 {
				break
			}
		}
		if n > 1 && at.Sub(d.line.Nodes[0].At).Len() <= slack {
			d.line.Closed = true
			d.held = 0
			break
		}
		q := at
		if n > 0 {
			q = towards(d.line.Nodes[n-1].At, at, mod.Shift)
		}
		d.line.Nodes = append(d.line.Nodes, pen.Corner(q))
		d.held = n
	case "drag":
		if d.held < 0 || d.held >= n {
			break
		}
		v := &d.line.Nodes[d.held]
		out := towards(v.At, at, mod.Shift)
		if d.line.Closed { // the last handle of a ring is the one that arrives
			v.In = v.At.Mul(2).Sub(out)
			break
		}
		v.Out = out
		if !mod.Alt {
			v.In = v.At.Mul(2).Sub(out)
		}
	case "release":
		d.held = -1
	case "hover":
		d.at, d.hovers = at, true
		if n > 0 && mod.Shift {
			d.at = towards(d.line.Nodes[n-1].At, at, true)
		}
	case "back":
		if n > 0 {
			d.line.Nodes = d.line.Nodes[:n-1]
		}
	case "mirror":
		d.mirror = !d.mirror
	}
	return s.penView(slack)
}

// goOn takes the open path of a thread up again where a press lies on one of its ends.
func (s *Drags) goOn(m scope.Moment, thread string, at geom.Point, slack float64) {
	list := s.Layers(m, []string{thread})
	if len(list) != 1 || list[0].Kind != doc.PathKind {
		return
	}
	s.Stand(m)
	own, _, ok := s.Player.Axes(list[0].ID)
	p, err := geom.ParseData(list[0].Path)
	if !ok || err != nil {
		return
	}
	onPage := &geom.Path{}
	onPage.Append(p, own)
	all := pen.Contours(onPage)
	if len(all) != 1 || all[0].Closed {
		return
	}
	c := all[0]
	last := len(c.Nodes) - 1
	switch {
	case at.Sub(c.Nodes[last].At).Len() <= slack:
	case at.Sub(c.Nodes[0].At).Len() <= slack:
		c.Reverse()
	default:
		return
	}
	s.pen.line, s.pen.extends, s.pen.held = c, list[0].ID, last
}

func (s *Drags) penView(slack float64) PenView {
	d := s.pen
	v := PenView{Knots: []Dot{}, D: pen.Path(s.pen.whole()).Data()}
	n := len(d.line.Nodes)
	for i, k := range d.line.Nodes {
		v.Knots = append(v.Knots, dots(fmt.Sprintf("0.%d", i), k, geom.Identity, i == n-1)...)
	}
	v.Done = d.line.Closed && d.held < 0
	if n > 0 && d.hovers && !d.line.Closed {
		last := d.line.Nodes[n-1]
		v.Closes = n > 1 && d.at.Sub(d.line.Nodes[0].At).Len() <= slack
		next := pen.Contour{Nodes: []pen.Node{last, pen.Corner(d.at)}}
		if v.Closes {
			next.Nodes[1] = d.line.Nodes[0]
			v.Words = "close"
		} else {
			by := d.at.Sub(last.At)
			v.Words = fmt.Sprintf("%.0f px, %.0f°", by.Len(), math.Atan2(by.Y, by.X)*180/math.Pi)
		}
		v.Next = pen.Path([]pen.Contour{next}).Data()
	}
	return v
}

// dots are a point and, where they are shown, its handles, mapped by m.
func dots(id string, k pen.Node, m geom.Matrix, handles bool) []Dot {
	at := geom.Pair(m.Apply(k.At))
	out := []Dot{{ID: id, At: at, Of: at, Smooth: k.Smooth()}}
	if !handles {
		return out
	}
	if k.In != k.At {
		out = append(out, Dot{id + ".in", geom.Pair(m.Apply(k.In)), true, at, k.Smooth()})
	}
	if k.Out != k.At {
		out = append(out, Dot{id + ".out", geom.Pair(m.Apply(k.Out)), true, at, k.Smooth()})
	}
	return out
}

// whole is the line with its mirror image, where it is drawn with one. Ends that lie on the axis are joined.
func (d *drawing) whole() []pen.Contour {
	if !d.mirror || len(d.line.Nodes) < 2 {
		return []pen.Contour{d.line}
	}
	axis := d.line.Nodes[0].At.X
	flip := func(q geom.Point) geom.Point { return geom.Point{X: 2*axis - q.X, Y: q.Y} }
	other := pen.Contour{Closed: d.line.Closed}
	for _, k := range d.line.Nodes {
		other.Nodes = append(other.Nodes, pen.Node{At: flip(k.At), In: flip(k.In), Out: flip(k.Out)})
	}
	last := d.line.Nodes[len(d.line.Nodes)-1]
	if d.line.Closed {
		return []pen.Contour{d.line, other}
	}
	// From the axis out and back: one ring, or one line when only its begin lies there.
	other.Reverse()
	n := len(other.Nodes)
	first := d.line.Nodes[0]
	first.In = other.Nodes[n-1].In
	nodes := append([]pen.Node{first}, d.line.Nodes[1:]...)
	if math.Abs(last.At.X-axis) < 1 {
		joined := last
		joined.At.X = axis
		joined.Out = other.Nodes[0].Out
		nodes[len(nodes)-1] = joined
		return []pen.Contour{{Nodes: append(nodes, other.Nodes[1:n-1]...), Closed: true}}
	}
	return []pen.Contour{{Nodes: append(append([]pen.Node{}, other.Nodes[:n-1]...), nodes...)}}
}

// PenDrop lets go of what was drawn.
func (s *Drags) PenDrop() { s.pen = nil }

// PenEnd returns the command that makes what was drawn a layer, or goes on with the one it was begun from; nil when it is no line.
func (s *Drags) PenEnd(m scope.Moment) edit.Command {
	d := s.pen
	s.pen = nil
	if d == nil || len(d.line.Nodes) < 2 {
		return nil
	}
	return s.Drawn(m, d.whole(), d.extends)
}
