package edit

import (
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/words"
)

// MaxCopies is how many copies one command makes of a selection.
const MaxCopies = 500

// CopyLayers makes copies of layers at several places: each turned about a point and moved, by numbers in the parent's axes, and puts all into
// one group with what they were copied from.
type CopyLayers struct {
	IDs    []string     `json:"ids"`
	Seed   string       `json:"seed"`
	About  [2]float64   `json:"about"`
	At     [][3]float64 `json:"at"`   // moved by x and y, turned by degrees
	Keep   bool         `json:"keep"` // turned about the point, but each as upright as it was
	ID     string       `json:"id"`   // of the group
	Thread string       `json:"thread"`
	Name   string       `json:"name"`
	Names  [][]string   `json:"names"` // for each layer: its own and those of its copies; absent: all are called alike
	Tint   int          `json:"tint"`
	X      float64      `json:"x"`
	Y      float64      `json:"y"`
}

// Op is its name on the wire.
func (c *CopyLayers) Op() string { return "layer.copies" }

func (c *CopyLayers) apply(e *editor) error {
	if len(c.At) == 0 || len(c.At)*len(c.IDs) > MaxCopies {
		return words.New("copies.many", MaxCopies)
	}
	all := slices.Clone(c.IDs)
	for n, id := range c.IDs {
		l, parent, s, err := e.layer(id)
		if err != nil {
			return err
		}
		t, err := motion.Resolve(s, e.into(s))
		if err != nil {
			return err
		}
		list := siblings(s, parent)
		at := slices.Index(*list, l) + 1
		about := geom.Point{X: c.About[0], Y: c.About[1]}
		called := func(k int, l *doc.Layer) {
			if n < len(c.Names) && k < len(c.Names[n]) && c.Names[n][k] != "" {
				l.Name = c.Names[n][k]
			}
		}
		for k, by := range c.At {
			copied := l.Clone()
			copied.Mask = ""
			called(k+1, copied)
			copyIDs(s, []*doc.Layer{copied}, fmt.Sprintf("%s/%d", c.Seed, k), false, begins(t))
			mapChanges(copied, geom.Translate(geom.Point{X: by[0], Y: by[1]}).Mul(geom.Rotate(by[2]).About(about)))
			p := geom.Rotate(by[2]).About(about).Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
			copied.Place.X, copied.Place.Y = round(p.X+by[0]), round(p.Y+by[1])
			if !c.Keep {
				copied.Place.Turn = round(l.Place.Turn + by[2])
			}
			*list = slices.Insert(*list, at, copied)
			at++
			all = append(all, copied.ID)
		}
		called(0, l)
	}
	return e.do(&GroupLayers{IDs: all, ID: c.ID, Thread: c.Thread, Name: c.Name, Tint: c.Tint, X: c.X, Y: c.Y})
}
