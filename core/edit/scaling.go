package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/series"
	"capstan/core/words"
)

// ScaleLayer changes the size of a layer and puts it at a place.
type ScaleLayer struct {
	ID string  `json:"id"`
	X  float64 `json:"x"` // where its place is afterwards
	Y  float64 `json:"y"`
	KX float64 `json:"kx"` // factors along the layer's own axes; of groups and texts only kx counts
	KY float64 `json:"ky"`
	// Grows says what grows along, of Growth. Absent, as in commands stored before it was there: the letters, and within groups strokes and
	// effects.
	Grows *[]string `json:"grows"`
}

// Op is its name on the wire.
func (c *ScaleLayer) Op() string { return "layer.scale" }

func (c *ScaleLayer) apply(e *editor) error {
	l, _, _, err := e.layer(c.ID)
	if err != nil {
		return err
	}
	if !(c.KX > 0 && c.KY > 0) {
		return words.New("layer.unscalable")
	}
	var grows []string
	if c.Grows != nil {
		grows = append([]string{}, *c.Grows...)
		if l.Kind != doc.Group {
			scaleLook(l, c.KX, grows)
		}
	}
	if err := scale(l, c.KX, c.KY, grows); err != nil {
		return err
	}
	l.Place.X, l.Place.Y = round(c.X), round(c.Y)
	return nil
}

// What grows along when layers are scaled.
const (
	Strokes = "strokes" // and corners
	Effects = "effects" // blurs, soft borders, shadows, glows
	Letters = "letters"
)

// Growth returns all that may grow along.
func Growth() []string { return []string{Strokes, Effects, Letters} }

// grow reports whether something grows along; without a list all does.
func grow(grows []string, what string) bool { return grows == nil || slices.Contains(grows, what) }

// scaleLook scales strokes and effects of a layer, as far as they grow along.
func scaleLook(l *doc.Layer, k float64, grows []string) {
	if grow(grows, Strokes) {
		l.Corner *= k
		scaleStroke(l.Stroke, k)
	}
	if !grow(grows, Effects) {
		return
	}
	l.Blur, l.Feather = min(l.Blur*k, doc.MaxEffect), min(l.Feather*k, doc.MaxEffect)
	if v := l.Shadow; v != nil {
		fall := func(x float64) float64 { return min(max(x*k, -doc.MaxShadow), doc.MaxShadow) }
		v.X, v.Y, v.Blur = fall(v.X), fall(v.Y), min(v.Blur*k, doc.MaxEffect)
	}
	if v := l.Glow; v != nil {
		v.Blur = min(v.Blur*k, doc.MaxEffect)
	}
}

func scaleStroke(v *doc.Stroke, k float64) {
	if v == nil {
		return
	}
	v.Width *= k
	v.DashOffset *= k
	for i := range v.Dash {
		v.Dash[i] *= k
	}
}

// scale changes the size of a layer about its origin. Groups and texts keep their proportions: kx holds for both axes.
func scale(l *doc.Layer, kx, ky float64, grows []string) error {
	if l.Is().Scaled {
		ky = kx
	}
	if l.Kind == doc.TextKind && !grow(grows, Letters) {
		return nil
	}
	l.Place.W, l.Place.H = round(l.Place.W*kx), round(l.Place.H*ky)
	if v := l.Place.Pivot; v != nil {
		v[0], v[1] = v[0]*kx, v[1]*ky
	}
	if err := scaleChanges(l, kx, ky); err != nil {
		return err
	}
	if l.Made != nil {
		for _, k := range l.Made.Of {
			k.Place.X, k.Place.Y = round(k.Place.X*kx), round(k.Place.Y*ky)
			if err := scale(k, kx, ky, grows); err != nil {
				return err
			}
			k.Corner *= min(kx, ky)
		}
	}
	if f := scalerOf(l.Kind); f != nil {
		return f(l, kx, ky, grows)
	}
	return nil
}

// scalerOf returns what else changes with the size of a layer of a kind; nil: nothing does.
func scalerOf(kind string) func(l *doc.Layer, kx, ky float64, grows []string) error {
	switch kind {
	case doc.TextKind:
		return scaleText
	case doc.PathKind:
		return scalePath
	case doc.Group:
		return scaleGroup
	}
	return nil
}

func scaleText(l *doc.Layer, k, _ float64, _ []string) error {
	for i := range l.Text.Runs {
		l.Text.Runs[i].Size = round(min(4000, max(1, l.Text.Runs[i].Size*k)))
	}
	l.Text.LetterSpacing *= k
	if v := l.Text.Plate; v != nil {
		v.Padding, v.Corner = round(v.Padding*k), round(v.Corner*k)
	}
	if r := l.Text.Ring; r != nil {
		r.Radius = round(max(1, r.Radius*k))
	}
	return nil
}

func scalePath(l *doc.Layer, kx, ky float64, _ []string) error {
	data, err := scaledData(l.Path, kx, ky)
	l.Path = data
	return err
}

func scaledData(d string, kx, ky float64) (string, error) {
	p, err := geom.ParseData(d)
	if err != nil {
		return d, words.New("path.unreadable", err)
	}
	out := &geom.Path{}
	out.Append(p, geom.Scale(kx, ky))
	return out.Data(), nil
}

func scaleGroup(l *doc.Layer, kx, _ float64, grows []string) error {
	scaleLook(l, kx, grows)
	for _, k := range l.Children {
		k.Place.X, k.Place.Y = k.Place.X*kx, k.Place.Y*kx
		series.Becoming(k, func(b *doc.Becomes) {
			for _, v := range []*float64{b.X, b.Y} {
				if v != nil {
					*v = round(*v * kx)
				}
			}
		})
		if err := scale(k, kx, kx, grows); err != nil {
			return err
		}
		// Of groups it is done already; commands stored before Grows did it twice.
		if k.Kind != doc.Group || grows == nil {
			scaleLook(k, kx, grows)
		}
		for _, m := range k.Moves {
			if m.Path == nil {
				continue
			}
			data, err := scaledData(m.Path.D, kx, kx)
			if err != nil {
				return err
			}
			m.Path.D = data
		}
	}
	return nil
}
