package session

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
	"capstan/core/words"
)

// OutlineView is a drawn path with its points, on the page.
type OutlineView struct{ Contours []pen.Contour }

// Count is how many points the path has.
func (v OutlineView) Count() (n int) {
	for _, c := range v.Contours {
		n += len(c.Nodes)
	}
	return
}

// Numbers are the view as plain numbers, for paths of a thousand points: for each line of the path how many points it has and 1
// where it is closed; then for each of these x and y of the point, of the handle before and of the one after it, and 1 where the
// line goes through smoothly.
func (v OutlineView) Numbers() []float64 {
	out := make([]float64, 0, 2*len(v.Contours)+7*v.Count())
	flag := func(b bool) float64 {
		if b {
			return 1
		}
		return 0
	}
	for _, c := range v.Contours {
		out = append(out, float64(len(c.Nodes)), flag(c.Closed))
		for _, n := range c.Nodes {
			out = append(out, n.At.X, n.At.Y, n.In.X, n.In.Y, n.Out.X, n.Out.Y, flag(n.Smooth()))
		}
	}
	return out
}

// Outline returns the points of a drawn path of the moment's scene, as it stands; empty for other layers.
func (s *Session) Outline(m Moment, thread string) OutlineView {
	list := s.layers(m, []string{thread})
	if len(list) != 1 || list[0].Kind != doc.PathKind {
		return OutlineView{}
	}
	s.stand(m)
	own, _, ok := s.player.Axes(list[0].ID)
	contours, err := s.contoursOf(list[0])
	if !ok || err != nil {
		return OutlineView{}
	}
	v := OutlineView{make([]pen.Contour, len(contours))}
	for i, c := range contours {
		v.Contours[i] = pen.Contour{Nodes: make([]pen.Node, len(c.Nodes)), Closed: c.Closed}
		for k, n := range c.Nodes {
			v.Contours[i].Nodes[k] = pen.Node{At: own.Apply(n.At), In: own.Apply(n.In), Out: own.Apply(n.Out)}
		}
	}
	return v
}

// contoursOf returns the lines of a drawn path: those of the draft, where its points are being dragged.
func (s *Session) contoursOf(l *doc.Layer) ([]pen.Contour, error) {
	if s.pulled.path != "" && l.Path == s.pulled.path {
		return s.pulled.lines, nil
	}
	return contoursOf(l)
}

func contoursOf(l *doc.Layer) ([]pen.Contour, error) {
	p, err := geom.ParseData(l.Path)
	if err != nil {
		return nil, words.New("path.unreadable", err)
	}
	return pen.Contours(p), nil
}

// SpotAt returns the id of the place on a drawn path that is nearest to a point of the page: 0.3.on.0.25; empty without a path.
func (s *Session) SpotAt(m Moment, thread string, at geom.Point) string {
	list := s.layers(m, []string{thread})
	if len(list) != 1 || list[0].Kind != doc.PathKind {
		return ""
	}
	s.stand(m)
	own, _, ok := s.player.Axes(list[0].ID)
	contours, err := s.contoursOf(list[0])
	inv, fits := own.Inverse()
	if !ok || !fits || err != nil {
		return ""
	}
	id, least := "", math.Inf(1)
	for c := range contours {
		if i, t, d := contours[c].Nearest(inv.Apply(at)); d < least {
			id, least = fmt.Sprintf("%d.%d.on.%.4f", c, i, t), d
		}
	}
	return id
}

// spot is a point, a handle or a place on a stretch, by its id: 0.3, 0.3.in, 0.3.out, or 0.3.on.0.25.
type spot struct {
	contour, node int
	part          string
	t             float64
}

func spotOf(id string, list []pen.Contour) (spot, bool) {
	parts := strings.SplitN(id, ".", 4)
	if len(parts) < 2 {
		return spot{}, false
	}
	c, err1 := strconv.Atoi(parts[0])
	n, err2 := strconv.Atoi(parts[1])
	if err1 != nil || err2 != nil || c < 0 || c >= len(list) || n < 0 || n >= len(list[c].Nodes) {
		return spot{}, false
	}
	p := spot{contour: c, node: n}
	if len(parts) > 2 {
		p.part = parts[2]
	}
	if p.part == "on" && len(parts) == 4 {
		t, err := strconv.ParseFloat(parts[3], 64)
		if err != nil || n >= list[c].Segments() {
			return spot{}, false
		}
		p.t = t
	}
	return p, true
}

// bend moves the place t of a stretch by d: both of its handles go the way that takes it there.
func bend(c *pen.Contour, i int, t float64, d geom.Point) {
	a, b := &c.Nodes[i], &c.Nodes[(i+1)%len(c.Nodes)]
	if a.Out == a.At && b.In == b.At {
		a.Out, b.In = a.At.Lerp(b.At, 1.0/3), a.At.Lerp(b.At, 2.0/3)
	}
	t = min(0.9, max(0.1, t))
	k := 1 / (3 * t * (1 - t))
	a.Out, b.In = a.Out.Add(d.Mul(k)), b.In.Add(d.Mul(k))
}

// edited is an intent on the points of one drawn path.
func edited[C any](thread func(c *C) string, f func(c *C, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error)) ask {
	return of(func(s *Session, m Moment, c *C) (edit.Command, error) {
		list := s.layers(m, []string{thread(c)})
		if len(list) != 1 || list[0].Kind != doc.PathKind {
			return nil, words.New("path.gone")
		}
		contours, err := contoursOf(list[0])
		if err != nil {
			return nil, err
		}
		s.stand(m)
		own, _, ok := s.player.Axes(list[0].ID)
		if !ok {
			own = geom.Identity
		}
		out, err := f(c, contours, own)
		if err != nil || out == nil {
			return nil, err
		}
		return setPath(list[0].ID, pen.Path(out)), nil
	})
}

type chosenPoints struct {
	Thread string   `json:"thread"`
	IDs    []string `json:"ids"`
}

func (c *chosenPoints) thread() string { return c.Thread }

type movedPoints struct {
	chosenPoints
	DX float64 `json:"dx"`
	DY float64 `json:"dy"`
}

type placeOnPage struct {
	Thread string  `json:"thread"`
	X      float64 `json:"x"` // on the page
	Y      float64 `json:"y"`
}

type tolerance struct {
	Thread    string  `json:"thread"`
	Tolerance float64 `json:"tolerance"`
}

// each calls f for every chosen point, the last first, so that those before keep their places.
func (c *chosenPoints) each(list []pen.Contour, f func(k *pen.Contour, i int)) int {
	var spots []spot
	for _, id := range c.IDs {
		if p, ok := spotOf(id, list); ok && p.part == "" && !slices.Contains(spots, p) {
			spots = append(spots, p)
		}
	}
	for len(spots) > 0 {
		last := 0
		for i, p := range spots {
			if p.contour > spots[last].contour || p.contour == spots[last].contour && p.node > spots[last].node {
				last = i
			}
		}
		f(&list[spots[last].contour], spots[last].node)
		spots = slices.Delete(spots, last, last+1)
	}
	return len(c.IDs)
}

var pointsAsked = table{
	"points.remove": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		var refused bool
		c.each(list, func(k *pen.Contour, i int) { refused = !k.Remove(i) || refused })
		if refused {
			return nil, words.New("points.few")
		}
		return list, nil
	}),
	"points.smooth": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.MakeSmooth(i) })
		return list, nil
	}),
	"points.corner": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.MakeCorner(i) })
		return list, nil
	}),
	"points.join": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.Nodes[i].Join() })
		return list, nil
	}),
	"points.close": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		for i := range list {
			list[i].Closed = len(list[i].Nodes) > 1
		}
		return list, nil
	}),
	"points.reverse": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		for i := range list {
			list[i].Reverse()
		}
		return list, nil
	}),
	"points.move": edited((*movedPoints).thread, func(c *movedPoints, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error) {
		inv, ok := own.Inverse()
		if !ok {
			return nil, nil
		}
		by := inv.ApplyVector(geom.Point{X: c.DX, Y: c.DY})
		c.each(list, func(k *pen.Contour, i int) {
			v := &k.Nodes[i]
			*v = v.Moved(by)
		})
		return list, nil
	}),
	// Opens a ring at a point, or divides a line there.
	"points.cut": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		if len(c.IDs) != 1 {
			return nil, words.New("points.one")
		}
		p, ok := spotOf(c.IDs[0], list)
		if !ok {
			return nil, words.New("points.one")
		}
		return slices.Concat(list[:p.contour], pen.Cut(list[p.contour], p.node), list[p.contour+1:]), nil
	}),
	"points.insert": edited(func(c *placeOnPage) string { return c.Thread }, func(c *placeOnPage, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error) {
		inv, ok := own.Inverse()
		if !ok {
			return nil, nil
		}
		best, at, t, least := -1, 0, 0.0, math.Inf(1)
		for i := range list {
			if k, u, d := list[i].Nearest(inv.Apply(geom.Point{X: c.X, Y: c.Y})); d < least {
				best, at, t, least = i, k, u, d
			}
		}
		if best < 0 {
			return nil, nil
		}
		list[best].Insert(at, t)
		return list, nil
	}),
	"points.simplify": edited(func(c *tolerance) string { return c.Thread }, func(c *tolerance, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		return pen.Simplify(list, tolerated(c.Tolerance)), nil
	}),
	// Shapes become paths with points; undo gives their numbers back.
	"points.begin": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []string
		for _, l := range s.layers(m, c.Threads) {
			if l.IsShape() {
				list = append(list, l.ID)
			}
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.OutlineShapes{IDs: list}, nil
	}),
}
