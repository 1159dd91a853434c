package shape

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Handle is a point by which a number of a shape is dragged.
type Handle struct {
	ID    string
	Name  string
	Value string // of the number, for people
	At    geom.Point
}

// inset is how far inside a corner the handle of its radius lies when the radius is 0, in shares of the shorter side: clear of
// the corner itself.
const inset = 0.12

// Handles returns the handles of a shape, in its own axes.
func (s Spec) Handles() []Handle {
	v := &s.Shape
	w, h := s.W/2, s.H/2
	percent := func(x float64) string { return fmt.Sprintf("%.0f %%", 100*x) }
	px := func(x float64) string { return fmt.Sprintf("%.0f px", x) }
	at := func(x, y float64) geom.Point { return geom.Point{X: x, Y: y} }
	onRim := func(deg, k float64) geom.Point {
		sin, cos := math.Sincos(deg * math.Pi / 180)
		return at(k*w*cos, k*h*sin)
	}
	count := func(name string) Handle {
		return Handle{"count", name, strconv.Itoa(v.Count), onRim(360/float64(v.Count)-90, 1)}
	}
	in := inset * min(s.W, s.H)
	round := Handle{"corner", "Corner", px(s.Corner), at(-w+in+s.Corner, -h+in+s.Corner)}
	switch s.Kind {
	case doc.Rectangle:
		if v.Corners == nil {
			return []Handle{round}
		}
		var list []Handle
		for i, c := range [4][2]float64{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
			r := v.Corners[i]
			list = append(list, Handle{"corner" + strconv.Itoa(i), "Corner", px(r), at(c[0]*(w-in-r), c[1]*(h-in-r))})
		}
		return list
	case doc.Ring:
		return []Handle{{"hole", "Hole", percent(v.Hole), at(v.Hole*w, 0)}}
	case doc.Sector:
		list := []Handle{
			{"start", "Start", fmt.Sprintf("%.0f°", v.Start), onRim(v.Start, 1)},
			{"sweep", "Sweep", fmt.Sprintf("%.0f°", v.Sweep), onRim(v.Start+v.Sweep, 1)},
		}
		if !v.Open {
			list = append(list, Handle{"hole", "Hole", percent(v.Hole), onRim(v.Start+v.Sweep/2, v.Hole)})
		}
		return list
	case doc.Polygon:
		return []Handle{count("Sides"), {"corner", "Corner", px(s.Corner), at(0, -h+in+s.Corner)}}
	case doc.Star:
		inner := s.around(2*v.Count, func(i int) float64 { return 1 - float64(i%2)*v.Depth })
		return []Handle{count("Points"), {"depth", "Depth", percent(v.Depth), inner[2*v.Count-1]}, {"corner", "Corner", px(s.Corner), at(0, -h+in+s.Corner)}}
	case doc.Line:
		return []Handle{{"from", "Begin", "", at(-w, 0)}, {"to", "End", fmt.Sprintf("%.0f px long", s.W), at(w, 0)}}
	case doc.Arrow:
		head := min(v.Head*s.H, s.W)
		tip := at(w-head, -h)
		if v.Heads == doc.AtStart {
			tip.X = -w + head
		}
		return []Handle{{"thickness", "Shaft", percent(v.Thickness), at(0, -v.Thickness*h)}, {"head", "Head", px(head), tip}}
	case doc.Bubble:
		return []Handle{{"tip", "Tip", "", at((v.Tip[0]-0.5)*s.W, (v.Tip[1]-0.5)*s.H)}, round}
	case doc.Cross:
		return []Handle{{"thickness", "Arms", percent(v.Thickness), at(v.Thickness*w, -h)}}
	case doc.Cloud:
		return []Handle{count("Humps")}
	case doc.Wave:
		y := -h + v.Depth*s.H
		return []Handle{{"depth", "Height", percent(v.Depth), at(-w, y)}, {"count", "Waves", strconv.Itoa(v.Count), at(-w+s.W/float64(v.Count), y)}}
	case doc.Ribbon:
		var list []Handle
		for i, b := range v.Bends {
			list = append(list, Handle{"bend" + strconv.Itoa(i), "Bend", "", at((b[0]-0.5)*s.W, (b[1]-0.5)*s.H)})
		}
		a, b := list[len(list)/2-1].At, list[len(list)/2].At
		if l := b.Sub(a).Len(); l > 0 {
			n := at(b.Y-a.Y, a.X-b.X).Mul(v.Thickness * h / l)
			list = append(list, Handle{"thickness", "Width", px(v.Thickness * s.H), a.Lerp(b, 0.5).Add(n)})
		}
		return list
	}
	return nil
}

// Drag returns the shape with a handle taken to q, in its own axes. Numbers stay within their ranges; a handle the shape does not
// have changes nothing. The ends of a line are no numbers: they are the caller's.
func (s Spec) Drag(id string, q geom.Point) Spec {
	v := &s.Shape
	w, h := s.W/2, s.H/2
	share := func(x float64) float64 { return max(0, min(1, math.Round(x*200)/200)) }
	in := inset * min(s.W, s.H)
	most := min(w, h)
	radius := func(x float64) float64 { return max(0, min(most, math.Round(x))) }
	// The direction of q and its distance, of an ellipse as if it were a circle.
	angle := math.Atan2(q.Y/max(h, 1e-9), q.X/max(w, 1e-9)) * 180 / math.Pi
	reach := math.Hypot(q.X/max(w, 1e-9), q.Y/max(h, 1e-9))
	fromTop := math.Mod(angle+450, 360)
	bend := strings.TrimPrefix(id, "bend")
	switch {
	case id == "corner" && (s.Kind == doc.Polygon || s.Kind == doc.Star):
		s.Corner = radius(q.Y + h - in)
	case id == "corner":
		s.Corner = radius(max(q.X+w, q.Y+h) - in)
	case strings.HasPrefix(id, "corner") && v.Corners != nil && len(id) == 7:
		i := int(id[6] - '0')
		if i < 0 || i > 3 {
			return s
		}
		c := *v.Corners
		c[i] = radius(max(w-math.Abs(q.X), h-math.Abs(q.Y)) - in)
		v.Corners = &c
	case id == "hole":
		v.Hole = share(reach)
	case id == "start":
		end := v.Start + v.Sweep
		v.Start = math.Round(angle)
		v.Sweep = sweep(end - v.Start)
	case id == "sweep":
		v.Sweep = sweep(math.Round(angle - v.Start))
	case id == "count" && s.Kind == doc.Wave:
		v.Count = int(max(1, min(doc.MaxSides, math.Round(s.W/max(q.X+w, s.W/doc.MaxSides, 1e-9)))))
	case id == "count":
		v.Count = int(max(doc.MinSides, min(doc.MaxSides, math.Round(360/max(fromTop, 360.0/doc.MaxSides)))))
	case id == "depth" && s.Kind == doc.Wave:
		v.Depth = share((q.Y + h) / max(s.H, 1e-9))
	case id == "depth":
		v.Depth = share(1 - reach)
	case id == "thickness" && s.Kind == doc.Arrow:
		v.Thickness = max(0.01, share(-q.Y/max(h, 1e-9)))
	case id == "thickness" && s.Kind == doc.Cross:
		v.Thickness = max(0.01, share(q.X/max(w, 1e-9)))
	case id == "thickness" && len(v.Bends) > 1:
		a, b := v.Bends[len(v.Bends)/2-1], v.Bends[len(v.Bends)/2]
		p, r := geom.Point{X: (a[0] - 0.5) * s.W, Y: (a[1] - 0.5) * s.H}, geom.Point{X: (b[0] - 0.5) * s.W, Y: (b[1] - 0.5) * s.H}
		d := r.Sub(p)
		if l := d.Len(); l > 0 && h > 0 {
			off := q.Sub(p)
			v.Thickness = max(0.01, share(math.Abs(d.X*off.Y-d.Y*off.X)/l/h))
		}
	case id == "head" && v.Heads == doc.AtStart:
		v.Head = max(0.05, min(100, math.Round((q.X+w)/max(s.H, 1e-9)*100)/100))
	case id == "head":
		v.Head = max(0.05, min(100, math.Round((w-q.X)/max(s.H, 1e-9)*100)/100))
	case id == "tip":
		v.Tip = &[2]float64{shareOf(q.X, s.W), shareOf(q.Y, s.H)}
	case bend != id:
		i, err := strconv.Atoi(bend)
		if err != nil || i < 0 || i >= len(v.Bends) {
			return s
		}
		list := append([][2]float64(nil), v.Bends...)
		list[i] = [2]float64{shareOf(q.X, s.W), shareOf(q.Y, s.H)}
		v.Bends = list
	}
	return s
}

// shareOf is where x lies along a side about 0, as a share of it within what documents hold.
func shareOf(x, side float64) float64 {
	return max(-doc.MaxShares, min(doc.MaxShares, x/max(side, 1e-9)+0.5))
}

// sweep is an angle as what it sweeps: above 0, at most 360.
func sweep(deg float64) float64 {
	deg = math.Mod(deg, 360)
	if deg <= 0 {
		deg += 360
	}
	return deg
}

// Mix interpolates two shapes of one kind; what cannot be interpolated changes half way. The size is the caller's.
func Mix(a, b Spec, t float64) Spec {
	n := func(x, y float64) float64 {
		if t == 1 || x == y {
			return y
		}
		return x + (y-x)*t
	}
	out := a
	if t >= 0.5 {
		out.Shape = b.Shape
	}
	out.W, out.H, out.Corner = n(a.W, b.W), n(a.H, b.H), max(0, n(a.Corner, b.Corner))
	v, x, y := &out.Shape, &a.Shape, &b.Shape
	unit := func(x, y float64) float64 { return max(0, min(1, n(x, y))) }
	v.Hole, v.Depth, v.Thickness, v.Base = unit(x.Hole, y.Hole), unit(x.Depth, y.Depth), unit(x.Thickness, y.Thickness), unit(x.Base, y.Base)
	v.Start, v.Sweep, v.Head = n(x.Start, y.Start), max(0, min(360, n(x.Sweep, y.Sweep))), max(0, n(x.Head, y.Head))
	if x.Tip != nil && y.Tip != nil {
		v.Tip = &[2]float64{n(x.Tip[0], y.Tip[0]), n(x.Tip[1], y.Tip[1])}
	}
	if p, q := a.radii(), b.radii(); x.Corners != nil || y.Corners != nil {
		v.Corners = &[4]float64{max(0, n(p[0], q[0])), max(0, n(p[1], q[1])), max(0, n(p[2], q[2])), max(0, n(p[3], q[3]))}
	}
	if len(x.Bends) == len(y.Bends) && len(x.Bends) > 0 {
		v.Bends = make([][2]float64, len(x.Bends))
		for i := range v.Bends {
			v.Bends[i] = [2]float64{n(x.Bends[i][0], y.Bends[i][0]), n(x.Bends[i][1], y.Bends[i][1])}
		}
	}
	return out
}

func (s Spec) radii() [4]float64 {
	if s.Shape.Corners != nil {
		return *s.Shape.Corners
	}
	return [4]float64{s.Corner, s.Corner, s.Corner, s.Corner}
}
