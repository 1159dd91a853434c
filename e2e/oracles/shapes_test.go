package oracles

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
)

// shapes are those that SVG has elements or arcs for, with points worked out here by themselves.
func shapes() (list []drawn) {
	const fill = ` fill="#17403c"`
	add := func(name, svg, kind string, w, h, corner float64, v, wrong doc.Shape) {
		layer := func(v doc.Shape, w float64) *doc.Layer {
			return &doc.Layer{Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: 60, Y: 60, W: w, H: h}, Corner: corner, Shape: &v}
		}
		wide := w
		if wrong.Equal(&v) {
			wide += 2
		}
		list = append(list, drawn{name: "shape " + name, svg: svg, layer: layer(v, w), wrong: layer(wrong, wide), curves: !strings.Contains(svg, "<polygon")})
	}
	points := func(n int, rx, ry float64, share func(i int) float64) string {
		var s strings.Builder
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			fmt.Fprintf(&s, "%.6f,%.6f ", 60+share(i)*rx*math.Sin(a), 60-share(i)*ry*math.Cos(a))
		}
		return `<polygon points="` + s.String() + `"` + fill + `/>`
	}
	whole := func(int) float64 { return 1 }
	add("rounded rectangle", `<rect x="10" y="25" width="100" height="70" rx="18"`+fill+`/>`, doc.Rectangle, 100, 70, 18, doc.Shape{}, doc.Shape{})
	add("ellipse", `<ellipse cx="60" cy="60" rx="50" ry="30"`+fill+`/>`, doc.Ellipse, 100, 60, 0, doc.Shape{}, doc.Shape{})
	for _, n := range []int{3, 5, 8} {
		add(fmt.Sprint("polygon ", n), points(n, 50, 40, whole), doc.Polygon, 100, 80, 0, doc.Shape{Count: n}, doc.Shape{Count: n + 1})
		add(fmt.Sprint("star ", n), points(2*n, 50, 40, func(i int) float64 { return 1 - 0.45*float64(i%2) }), doc.Star, 100, 80, 0, doc.Shape{Count: n, Depth: 0.45}, doc.Shape{Count: n, Depth: 0.5})
	}
	add("ring", `<path fill-rule="evenodd" d="M10 60a50 40 0 1 0 100 0a50 40 0 1 0 -100 0zM35 60a25 20 0 1 0 50 0a25 20 0 1 0 -50 0z"`+fill+`/>`, doc.Ring, 100, 80, 0, doc.Shape{Hole: 0.5}, doc.Shape{Hole: 0.55})
	at := func(deg, k float64) string {
		s, c := math.Sincos(deg * math.Pi / 180)
		return fmt.Sprintf("%.6f %.6f", 60+50*k*c, 60+40*k*s)
	}
	add("sector", `<path d="M`+at(20, 1)+`A50 40 0 1 1 `+at(260, 1)+`L60 60z"`+fill+`/>`, doc.Sector, 100, 80, 0, doc.Shape{Start: 20, Sweep: 240}, doc.Shape{Start: 20, Sweep: 246})
	add("slice of a ring", `<path d="M`+at(-60, 1)+`A50 40 0 0 1 `+at(50, 1)+`L`+at(50, 0.4)+`A20 16 0 0 0 `+at(-60, 0.4)+`z"`+fill+`/>`, doc.Sector, 100, 80, 0, doc.Shape{Start: -60, Sweep: 110, Hole: 0.4}, doc.Shape{Start: -60, Sweep: 110, Hole: 0.5})
	add("cross", `<polygon points="45,20 75,20 75,48 110,48 110,72 75,72 75,100 45,100 45,72 10,72 10,48 45,48"`+fill+`/>`, doc.Cross, 100, 80, 0, doc.Shape{Thickness: 0.3}, doc.Shape{Thickness: 0.35})
	add("arrow", `<polygon points="10,44 70,44 70,20 110,60 70,100 70,76 10,76"`+fill+`/>`, doc.Arrow, 100, 80, 0, doc.Shape{Thickness: 0.4, Head: 0.5}, doc.Shape{Thickness: 0.4, Head: 0.55})
	return
}
