package points

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

// mostActed is how many points an acted path is taken from at most: five minutes at 60 a second.
const mostActed = 18000

// How near an acted path keeps to what the pointer did: px of the page, of where it went and of where it was when.
const actedWithin = 1.5

// mostStops is how many stops the easing of an acted path has at most.
const mostStops = 60

var actingAsked = intent.Table{
	// A path as it was acted: where the pointer was, and when.
	"path.acted": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string     `json:"threads"`
		Points  [][3]float64 `json:"points"`  // ms since it began, page px
		Counted bool         `json:"counted"` // time that nothing moves in counts before the first move, too
		Speed   float64      `json:"speed"`   // how many times as fast it is to go: 2 for what was acted at half the speed; 0: 1
	}) (edit.Command, error) {
		return acted(s, m, c.Threads, c.Points, c.Speed, c.Counted)
	}),
}

func acted(s *intent.Desk, m scope.Moment, threads []string, points [][3]float64, speed float64, counted bool) (edit.Command, error) {
	if len(points) > mostActed {
		return nil, words.New("path.acted-long", mostActed)
	}
	if !(speed > 0) {
		speed = 1
	}
	points = stirring(points, counted)
	if len(points) < 2 {
		return nil, words.New("path.still")
	}
	took := points[len(points)-1][0] - points[0][0]
	duration := int64(math.Round(took / speed))
	if duration < doc.MinDuration {
		return nil, words.New("path.still")
	}
	i := s.SceneIndex(m)
	commands := edit.Commands{}
	for _, l := range s.Layers(m, threads) {
		inv, ok := s.Shown.Ancestry(i, l.ID).Inverse()
		if !ok {
			continue
		}
		var way []geom.Point
		first := inv.Apply(geom.Point{X: points[0][1], Y: points[0][2]})
		for _, q := range points {
			way = append(way, inv.Apply(geom.Point{X: q[1], Y: q[2]}).Sub(first))
		}
		line := pen.Path([]pen.Contour{pen.Fit(way, actedWithin)})
		v := &doc.Move{
			ID: s.NewID(), Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: s.StartAt(m)}, Duration: duration,
			Path: &doc.PathParams{D: line.Data(), Rest: doc.Departs},
		}
		v.Easing = easingOf(points, way)
		commands = append(commands, &edit.AddMove{Layer: l.ID, Move: v})
	}
	if len(commands) == 0 {
		return nil, nil
	}
	return edit.All(commands...), nil
}

// stirring returns the points from the first that moves, or where it was counted from the first of all, to the last that does, in the order of
// their times.
func stirring(points [][3]float64, counted bool) [][3]float64 {
	var out [][3]float64
	for _, q := range points {
		if math.IsNaN(q[0]+q[1]+q[2]) || math.IsInf(q[0]+q[1]+q[2], 0) {
			continue
		}
		if n := len(out); n > 0 && q[0] < out[n-1][0] {
			continue
		}
		if n := len(out); !counted && n == 1 && q[1] == out[0][1] && q[2] == out[0][2] {
			out[0] = q // it has not begun to move
			continue
		}
		out = append(out, q)
	}
	for n := len(out); n > 1 && out[n-1][1] == out[n-2][1] && out[n-1][2] == out[n-2][2]; n = len(out) {
		out = out[:n-1]
	}
	return out
}

// plainEasings are tried before an easing of stops.
var plainEasings = []string{"linear", "ease-in-out", "ease-out", "ease-in", "ease"}

// easingOf returns the easing by which a path goes as it was acted: a plain one where that keeps to it, else stops, as few as do.
func easingOf(points [][3]float64, way []geom.Point) string {
	n := len(way)
	at, share := make([]float64, n), make([]float64, n)
	for i := 1; i < n; i++ {
		share[i] = share[i-1] + way[i].Sub(way[i-1]).Len()
		at[i] = points[i][0] - points[0][0]
	}
	length, took := share[n-1], at[n-1]
	for i := range share {
		share[i] /= max(length, 1e-9)
		at[i] /= max(took, 1e-9)
	}
	within := 1.2 * actedWithin / max(length, 1e-9)
	for _, name := range plainEasings {
		e, err := motion.ParseEasing(name)
		if err != nil {
			continue
		}
		worst := 0.0
		for i := range at {
			worst = max(worst, math.Abs(e(at[i])-share[i]))
		}
		if worst <= within {
			return name
		}
	}
	stops := thinned(at, share, within)
	for len(stops) > mostStops {
		within *= 1.5
		stops = thinned(at, share, within)
	}
	var list []string
	for _, i := range stops {
		list = append(list, fmt.Sprintf("%.4g %.4g%%", share[i], 100*at[i]))
	}
	return "linear(" + strings.Join(list, ", ") + ")"
}

// thinned returns which points of a curve keep within a distance of all of it, upright, when straight lines join them (Ramer, 1972; Douglas
// and Peucker, 1973).
func thinned(x, y []float64, within float64) []int {
	keep := []int{0}
	var divide func(a, b int)
	divide = func(a, b int) {
		worst, k := within, -1
		for i := a + 1; i < b; i++ {
			on := y[a]
			if x[b] > x[a] {
				on += (y[b] - y[a]) * (x[i] - x[a]) / (x[b] - x[a])
			}
			if d := math.Abs(y[i] - on); d > worst {
				worst, k = d, i
			}
		}
		if k >= 0 {
			divide(a, k)
			divide(k, b)
			return
		}
		keep = append(keep, b)
	}
	divide(0, len(x)-1)
	return keep
}
