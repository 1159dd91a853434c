package arrange

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// names numbers what lies in a row, a grid or a ring: for each layer its own name with 1, 2, 3 …
func names(list []*doc.Layer, n int) [][]string {
	out := make([][]string, len(list))
	for i, l := range list {
		base, _ := scope.Numbered(l.Name)
		for k := 1; k <= n; k++ {
			out[i] = append(out[i], fmt.Sprintf("%s %d", base, k))
		}
	}
	return out
}

// Ways to lay copies out.
const (
	alongRow  = "row"
	alongGrid = "grid"
	alongRing = "ring"
)

var copiesAsked = intent.Table{
	// n things in all, in a row, a grid or around a centre, as layers in a group.
	"copies": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Along   string   `json:"along"`
		N       int      `json:"n"`       // in all; of a grid, in a row of it
		Rows    int      `json:"rows"`    // of a grid
		GapX    float64  `json:"gapX"`    // px between boxes
		GapY    float64  `json:"gapY"`    // of a row: how much lower each lies than the one before; of a grid: between rows
		Radius  float64  `json:"radius"`  // of a ring, px from the centre to the middle of what is copied
		Sweep   float64  `json:"sweep"`   // degrees from the first to the last; 360: all the way round
		Upright bool     `json:"upright"` // on a ring: each stays as it is turned
	}) (edit.Command, error) {
		sc := s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
		if len(list) == 0 {
			return nil, nil
		}
		i := s.SceneIndex(m)
		b := geom.EmptyBox()
		for _, l := range list {
			box, _ := s.Shown.Box(i, l.ID)
			b = b.Union(s.Shown.RestMatrix(i, l.ID).ApplyBox(box))
		}
		n, rows := c.N, max(1, c.Rows)
		if c.Along != alongGrid {
			rows = 1
		}
		if n < 1 || n*rows < 2 || n*rows > edit.MaxCopies {
			return nil, words.New("copies.many", edit.MaxCopies)
		}
		at := [][3]float64{}
		about := b.Centre().Add(geom.Point{Y: c.Radius})
		if _, pivot := s.Shown.Box(i, list[0].ID); c.Along == alongRing && len(list) == 1 && list[0].Place.Pivot != nil {
			about = s.Shown.RestMatrix(i, list[0].ID).Apply(pivot) // a pivot of its own is the centre
		}
		for k := 1; k < n*rows; k++ {
			switch c.Along {
			case alongGrid:
				at = append(at, [3]float64{float64(k%n) * (b.W() + c.GapX), float64(k/n) * (b.H() + c.GapY), 0})
			case alongRing:
				sweep, steps := c.Sweep, float64(n-1)
				if sweep == 0 {
					sweep = 360
				}
				if math.Abs(sweep) >= 360 {
					steps = float64(n)
				}
				at = append(at, [3]float64{0, 0, sweep * float64(k) / steps})
			default:
				at = append(at, [3]float64{float64(k) * (b.W() + c.GapX), float64(k) * c.GapY, 0})
			}
		}
		middle := s.Shown.Ancestry(i, list[0].ID).Apply(b.Centre())
		if c.Along == alongRing {
			middle = s.Shown.Ancestry(i, list[0].ID).Apply(about)
		}
		return &edit.CopyLayers{
			IDs: scope.IDs(list), Seed: s.NewID(), About: geom.Pair(about), At: at, Keep: c.Upright, ID: s.NewID(), Thread: s.NewID(),
			Names: names(list, n*rows), Name: scope.NameFor(sc, fmt.Sprintf("%s × %d", list[0].Name, n*rows)), Tint: list[0].Tint, X: middle.X, Y: middle.Y,
		}, nil
	}),
}
