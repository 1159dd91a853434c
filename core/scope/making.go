package scope

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/text"
)

// NameFor proposes a layer name that the scene does not have yet.
func NameFor(sc *doc.Scene, base string) string {
	taken := map[string]bool{}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { taken[l.Name] = true; return true })
	if !taken[base] {
		return base
	}
	for n := 2; ; n++ {
		if name := fmt.Sprintf("%s %d", base, n); !taken[name] {
			return name
		}
	}
}

// Numbered splits a name into what it is and the number behind it, 0 where there is none.
func Numbered(name string) (base string, n int) {
	base = strings.TrimRight(name, "0123456789")
	if n, err := strconv.Atoi(name[len(base):]); err == nil && strings.HasSuffix(base, " ") && strings.TrimSpace(base) != "" {
		return strings.TrimSpace(base), n
	}
	return name, 0
}

// tintFor picks the tint that fewest layers of the scene have.
func tintFor(sc *doc.Scene) int {
	var used [8]int
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { used[l.Tint&7]++; return true })
	best := 0
	for i, n := range used {
		if n < used[best] {
			best = i
		}
	}
	return best
}

// ShapeFills are what new shapes are filled with, in turn.
var ShapeFills = []string{"#d8573a", "#e0a03a", "#3f7f86", "#17403c", "#f3dca6"}

// NewLayer returns a layer that is all by default, with ids, a tint and a name that the scene does not have yet.
func (s *Scope) NewLayer(sc *doc.Scene, name, kind string) *doc.Layer {
	return &doc.Layer{
		ID: s.NewID(), Thread: s.NewID(), Name: NameFor(sc, name), Kind: kind, Opacity: 1, Tint: tintFor(sc),
		Fill: doc.Fill{Kind: doc.NoFill},
	}
}

// AddCommand is the command that puts a new layer in front in a scene, or behind what was said.
func (s *Scope) AddCommand(sc *doc.Scene, l *doc.Layer) edit.Command {
	c := &edit.AddLayers{Scene: sc.ID, Layers: []*doc.Layer{l}}
	for i, k := range sc.Layers {
		within := false
		doc.Walk([]*doc.Layer{k}, func(l, _ *doc.Layer) bool { within = within || l.Thread == s.Behind; return !within })
		if s.Behind != "" && within {
			c.Index = &i
			if w := sc.Thread(s.Window); w != nil && l.Kind != doc.ViewKind {
				l.Through = &doc.Through{Thread: s.Window}
			}
		}
	}
	return c
}

// Centre is the middle of the page.
func (s *Scope) Centre() geom.Point {
	f := s.Doc.Film
	return geom.Point{X: float64(f.Width) / 2, Y: float64(f.Height) / 2}
}

// Drawn makes contours in page px a layer, or the path of a layer that is there.
func (s *Scope) Drawn(m Moment, list []pen.Contour, id string) edit.Command {
	p := pen.Path(list)
	sc := s.Scene(m)
	if l, _ := sc.Layer(id); l != nil {
		s.Stand(m)
		if own, _, ok := s.Player.Axes(id); ok {
			if inv, ok := own.Inverse(); ok {
				q := &geom.Path{}
				q.Append(p, inv)
				return edit.SetPath(id, q)
			}
		}
	}
	b := p.Bounds()
	mid := b.Centre()
	q := &geom.Path{}
	q.Append(p, geom.Translate(mid.Mul(-1)))
	l := s.NewLayer(sc, "Drawing", doc.PathKind)
	l.Path, l.Place = q.Data(), doc.Place{X: mid.X, Y: mid.Y}
	n := 0
	doc.Walk(sc.Layers, func(k, _ *doc.Layer) bool {
		if k.IsShape() || k.Kind == doc.PathKind {
			n++
		}
		return true
	})
	ink := doc.Fill{Kind: doc.Solid, Colour: ShapeFills[n%len(ShapeFills)]}
	closed := false
	for _, c := range list {
		closed = closed || c.Closed
	}
	if closed {
		l.Fill = ink
	} else {
		l.Stroke = &doc.Stroke{Fill: ink, Width: max(1, math.Round(float64(min(s.Doc.Film.Width, s.Doc.Film.Height))/120)), Cap: geom.RoundCap, Join: geom.RoundJoin}
	}
	return s.AddCommand(sc, l)
}

// Missing returns the characters of a text that no family has, each once.
func (s *Scope) Missing(l *doc.Layer) string {
	if l.Text == nil || len(l.Text.String()) > 4000 { // long ones would cost a moment at every edit
		return ""
	}
	var out []rune
	for _, c := range text.Set(&s.Fonts, l.Text, text.RoomOf(&l.Place)).Missing {
		if !slices.Contains(out, c) && c != '\n' && len(out) < 12 {
			out = append(out, c)
		}
	}
	return string(out)
}
