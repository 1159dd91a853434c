package shapes

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/shape"
	"capstan/core/words"
)

// drawn is the box of a shape that is drawn from one point to another: about the first when centred, with equal sides where wanted.
func drawn(from, to geom.Point, equal, centred bool) (mid geom.Point, w, h float64) {
	d := to.Sub(from)
	if equal {
		s := max(math.Abs(d.X), math.Abs(d.Y))
		d = geom.Point{X: math.Copysign(s, d.X), Y: math.Copysign(s, d.Y)}
	}
	if centred {
		return from, 2 * math.Abs(d.X), 2 * math.Abs(d.Y)
	}
	return from.Add(d.Mul(0.5)), math.Abs(d.X), math.Abs(d.Y)
}

var shapesAsked = intent.Table{
	"add.shape": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Kind   string      `json:"kind"`
		From   *[2]float64 `json:"from"` // drawn from here …
		To     *[2]float64 `json:"to"`   // … to here, on the page; absent: the usual size
		Equal  bool        `json:"equal"`
		Centre bool        `json:"centre"`
	}) (edit.Command, error) {
		sc := s.Scene(m)
		kind := doc.KindNamed(c.Kind)
		if !kind.Shape {
			return nil, words.New("shape.unknown", c.Kind)
		}
		l := s.NewLayer(sc, kind.Words, c.Kind)
		n := 0
		doc.Walk(sc.Layers, func(k, _ *doc.Layer) bool {
			if k.IsShape() {
				n++
			}
			return true
		})
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: scope.ShapeFills[n%len(scope.ShapeFills)]}
		if v := shape.Default(c.Kind); !v.Equal(&doc.Shape{}) {
			l.Shape = &v
		}
		side := math.Round(float64(min(s.Doc.Film.Width, s.Doc.Film.Height)) / 4)
		at := s.Centre()
		if c.From != nil {
			at = geom.Point{X: c.From[0], Y: c.From[1]}
		}
		from, to := at.Sub(geom.Point{X: side / 2, Y: side / 2}), at.Add(geom.Point{X: side / 2, Y: side / 2})
		switch c.Kind {
		case doc.Line:
			from, to = at.Sub(geom.Point{X: side}), at.Add(geom.Point{X: side})
		case doc.Arrow, doc.Bubble, doc.Cloud, doc.Wave:
			from, to = at.Sub(geom.Point{X: side * 0.8, Y: side / 2}), at.Add(geom.Point{X: side * 0.8, Y: side / 2})
		case doc.Ribbon:
			from, to = at.Sub(geom.Point{X: side * 1.4, Y: side / 2}), at.Add(geom.Point{X: side * 1.4, Y: side / 2})
		}
		equal, centred := false, false
		if p := c.To; p != nil && math.Hypot(p[0]-at.X, p[1]-at.Y) >= 1 {
			// Shapes of equal sides are drawn so unless the key says otherwise.
			from, to, equal, centred = at, geom.Point{X: p[0], Y: p[1]}, c.Equal != kind.Keeps, c.Centre
		}
		if c.Kind == doc.Line {
			l.Place = shape.LineFrom(from, to, c.Equal, centred)
			l.Stroke = &doc.Stroke{Fill: l.Fill, Width: max(1, math.Round(side/30)), Cap: geom.RoundCap}
			l.Fill = doc.Fill{Kind: doc.NoFill}
			return s.AddCommand(sc, l), nil
		}
		mid, w, h := drawn(from, to, equal, centred)
		l.Place = doc.Place{X: mid.X, Y: mid.Y, W: max(1, w), H: max(1, h)}
		if c.Kind == doc.Bubble {
			l.Corner = math.Round(min(w, h) / 5)
		}
		return s.AddCommand(sc, l), nil
	}),
	// A marker: which scene this is of those its thread lives in, near the lower edge of the page.
	"add.marker": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Style string `json:"style"`
	}) (edit.Command, error) {
		sc := s.Scene(m)
		l := s.NewLayer(sc, "Marker", doc.MarkerKind)
		l.Marker = &doc.Marker{Style: c.Style}
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: ink.Readable(sc.Background)}
		w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
		u := math.Round(min(w, h) / 40)
		l.Place = doc.Place{X: w / 2, Y: h - 2.5*u, W: math.Round(min(w, h) / 4), H: u}
		switch c.Style {
		case doc.Bars:
			l.Place.H = math.Max(2, math.Round(u/3))
		case doc.Count:
			l.Place.H = math.Round(1.6 * u)
		}
		return s.AddCommand(sc, l), nil
	}),
	// Numbers of shapes; those of other kinds are left alone.
	"shape.set": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		Patch   edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if !l.IsShape() {
				continue
			}
			v := shape.Of(l).Shape
			if err := c.Patch.Change(&v); err != nil {
				return nil, err
			}
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"shape": v}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	// Another bend of a ribbon, half way along its last stretch, or one less.
	"shape.bend": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Less    bool     `json:"less"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			bends := shape.Of(l).Shape.Bends
			n := len(bends)
			if l.Kind != doc.Ribbon || c.Less && n <= 2 || !c.Less && n >= doc.MaxBends {
				continue
			}
			if c.Less {
				bends = bends[:n-1]
			} else {
				a, b := bends[n-2], bends[n-1]
				bends = append(slices.Clone(bends[:n-1]), [2]float64{(a[0] + b[0]) / 2, (a[1] + b[1]) / 2}, b)
			}
			v := shape.Of(l).Shape
			v.Bends = bends
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"shape": v}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}
