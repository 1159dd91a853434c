package session_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/session"
)

// acted is what a pointer does: whole px at 60 a second, with a tremble of a px.
func actedPoints(ms int, at func(share float64) geom.Point, seed uint64) (list [][3]float64) {
	r := rand.New(rand.NewPCG(seed, 1))
	for t := 0.0; t <= float64(ms); t += 1000.0 / 60 {
		p := at(t / float64(ms))
		list = append(list, [3]float64{math.Round(t), math.Round(p.X + r.Float64() - 0.5), math.Round(p.Y + r.Float64() - 0.5)})
	}
	return
}

// What is acted comes back: at any time the layer stands within 3 px of where the pointer was within 40 ms of then, along a line of few points.
func TestWhatIsActedComesBack(t *testing.T) {
	for name, c := range map[string]struct {
		at     func(u float64) geom.Point
		points int
		easing string
	}{
		"a circle, eased": {func(u float64) geom.Point {
			a := 2 * math.Pi * (3*u*u - 2*u*u*u)
			return geom.Point{X: 160 + 90*math.Cos(a), Y: 120 + 90*math.Sin(a)}
		}, 14, ""},
		"a line, evenly": {func(u float64) geom.Point { return geom.Point{X: 40 + 220*u, Y: 60 + 80*u} }, 4, "linear"},
		"a wave, haltingly": {func(u float64) geom.Point {
			v := u + 0.12*math.Sin(4*math.Pi*u)
			return geom.Point{X: 30 + 240*v, Y: 120 + 40*math.Sin(6*v)}
		}, 14, "linear("},
	} {
		s := open(t, with(shapeOf("a", doc.Rectangle, 100, 100, 20, 20)))
		const ms = 2400
		points := actedPoints(ms, c.at, 7)
		raw, err := json.Marshal(map[string]any{"threads": []string{"a"}, "points": points})
		if err != nil {
			t.Fatal(err)
		}
		s.Watch(session.Watched{Moment: rest, Threads: []string{"a"}})
		before := marshal(t, s.Document())
		run(t, s, "path.acted", string(raw))
		m := thread(t, s, 0, "a").Moves[0]
		if n := strings.Count(m.Path.D, "C") + strings.Count(m.Path.D, "L") + 1; n > c.points {
			t.Errorf("%s takes %d points", name, n)
		}
		if !strings.HasPrefix(m.Easing, c.easing) || math.Abs(float64(m.Duration-ms)) > 80 {
			t.Errorf("%s goes by %q in %d ms", name, m.Easing, m.Duration)
		}
		if _, err := motion.ParseEasing(m.Easing); err != nil {
			t.Error(err)
		}
		stood := func(at float64) geom.Point {
			q := corners(t, s, scope.Moment{Time: at}, "a")
			return geom.Point{X: (q[0][0]+q[2][0])/2 - 100, Y: (q[0][1]+q[2][1])/2 - 100}
		}
		for _, q := range points[1 : len(points)-1] {
			best := math.Inf(1)
			for dt := -40.0; dt <= 40; dt += 4 {
				p := stood(min(max(q[0]+dt, 0), ms))
				best = min(best, math.Hypot(p.X-(q[1]-points[0][1]), p.Y-(q[2]-points[0][2])))
			}
			if best > 3 {
				t.Errorf("%s: at %.0f ms it is %.1f px off", name, q[0], best)
				break
			}
		}
		if _, err := s.Back(false); err != nil || marshal(t, s.Document()) != before {
			t.Errorf("%s: undone, something is left (%v)", name, err)
		}
	}
	s := open(t, with(shapeOf("a", doc.Rectangle, 100, 100, 20, 20)))
	refused(t, s, "pointer stood still", "path.acted", `{"threads":["a"],"points":[[0,5,5],[400,5,5]]}`)
	refused(t, s, "pointer stood still", "path.acted", `{"threads":["a"],"points":[]}`)
	// After a count of three, what stands still before the first move does so in the path.
	for counted, takes := range map[bool]int64{true: 1500, false: 500} {
		run(t, s, "path.acted", fmt.Sprintf(`{"threads":["a"],"counted":%v,"points":[[0,5,5],[1000,5,5],[1250,35,5],[1500,65,5],[1900,65,5]]}`, counted))
		list := thread(t, s, 0, "a").Moves
		if m := list[len(list)-1]; m.Duration != takes {
			t.Errorf("counted %v, it takes %d ms by %q", counted, m.Duration, m.Easing)
		}
	}
}
