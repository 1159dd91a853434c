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
	byTheWords(add)
	return
}

// byTheWords are shapes that SVG has no element for, drawn from what docs/format.md says of their outlines.
func byTheWords(add func(name, svg, kind string, w, h, corner float64, v, wrong doc.Shape)) {
	path := func(d string) string { return `<path fill="#17403c" d="` + d + `"/>` }
	at := func(x, y float64) string { return fmt.Sprintf("%.6f %.6f ", 60+x, 60+y) }
	half := [][2]float64{{0, 0.5}, {-0.12, 0.36}, {-0.5, 0.14}, {-0.5, -0.2}, {-0.5, -0.38}, {-0.38, -0.5}, {-0.25, -0.5}, {-0.13, -0.5}, {-0.04, -0.43}, {0, -0.3}}
	heart := ""
	for _, side := range []float64{1, -1} {
		for i, q := range half {
			heart += map[int]string{0: "M", 1: "C", 4: "C", 7: "C"}[i] + at(side*q[0]*100, q[1]*80)
		}
	}
	add("heart", path(heart), doc.Heart, 100, 80, 0, doc.Shape{}, doc.Shape{})
	const n, depth = 3, 0.3
	wave, s := "", depth*40.0
	for k, middle := range []float64{-(40 - s), 40 - s} {
		x, step := -50.0, 100.0/(2*n)
		y := middle + s
		if k == 0 {
			wave += "M" + at(x, y)
		} else { // back along the lower edge
			x, step = 50, -step
			wave += "L" + at(x, y)
		}
		for range 2 * n {
			next := 2*middle - y
			wave += "C" + at(x+0.3642*step, y) + at(x+step-0.3642*step, next) + at(x+step, next)
			x, y = x+step, next
		}
	}
	add("wave", path(wave+"Z"), doc.Wave, 100, 80, 0, doc.Shape{Count: n, Depth: depth}, doc.Shape{Count: n, Depth: 0.35})
	add("bubble", `<rect x="10" y="20" width="100" height="80" rx="12" fill="#17403c"/>`+path("M"+at(-18.8, 39)+"L"+at(-18.8, 40)+"L"+at(-10, 56)+"L"+at(-1.2, 40)+"L"+at(-1.2, 39)+"Z"), doc.Bubble, 100, 80, 12,
		doc.Shape{Tip: &[2]float64{0.4, 1.2}, Base: 0.22}, doc.Shape{Tip: &[2]float64{0.45, 1.2}, Base: 0.22})
	// A cloud's humps, and the box that holds them, by going along them.
	type point = [2]float64
	var humps [][4]point
	const count = 7
	lo, hi := point{9, 9}, point{-9, -9}
	for i := range count {
		end := func(i int) point {
			a := 2*math.Pi*(float64(i)+0.5)/count + math.Pi/2
			return point{math.Cos(a), 0.62 * math.Sin(a)}
		}
		p, q := end(i), end(i+1)
		k := 4.0 / 3 * []float64{0.52, 0.66, 0.58}[i%3]
		out := point{k * (q[1] - p[1]), -k * (q[0] - p[0])}
		h := [4]point{p, {p[0] + out[0], p[1] + out[1]}, {q[0] + out[0], q[1] + out[1]}, q}
		humps = append(humps, h)
		for t := 0.0; t <= 1; t += 1.0 / 512 {
			for c := range 2 {
				u := 1 - t
				v := u*u*u*h[0][c] + 3*u*u*t*h[1][c] + 3*u*t*t*h[2][c] + t*t*t*h[3][c]
				lo[c], hi[c] = min(lo[c], v), max(hi[c], v)
			}
		}
	}
	cloud := ""
	for i, h := range humps {
		for k, q := range h {
			if k > 0 || i == 0 {
				cloud += map[int]string{0: "M", 1: "C"}[k] + at(((q[0]-lo[0])/(hi[0]-lo[0])-0.5)*100, ((q[1]-lo[1])/(hi[1]-lo[1])-0.5)*80)
			}
		}
	}
	add("cloud", path(cloud+"Z"), doc.Cloud, 100, 80, 0, doc.Shape{Count: count}, doc.Shape{Count: count + 1})
}
