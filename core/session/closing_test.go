package session_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/intent/moves"
)

// Fitted, films of loops close, whichever loops they have, there and back, from scene to scene, as far away as may be; each cycle is the one nearest
// to what it was of all that divide the time, and one that did already stays.
func TestFitToLoop(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 1))
	kinds := []string{"spin", "rock", "swell", "bob", "shiver", effect.Blink, effect.Scroll}
	for i := range 40 {
		p := doc.NewProject("p", "P", 640, 360, "s")
		p.Film.Loop, p.Film.Rate = true, doc.Rate{Num: 25, Den: 1}
		s := p.Film.Scenes[0]
		s.Stay = 40 * int64(50+r.IntN(100))
		was := map[string]int64{}
		for k, kind := range kinds {
			m := &doc.Move{ID: kind, Kind: doc.Loop, Effect: kind, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene}
			switch kind {
			case effect.Blink:
				m.Params = effect.Params{"on": float64(100 + r.IntN(900)), "off": float64(100 + r.IntN(900))}
			case effect.Scroll:
				m.Params = effect.Params{"speed": 20 + 100*r.Float64()}
			default:
				m.Duration, m.Alternate = int64(300+r.IntN(2500)), r.IntN(3) == 0
				was[kind] = m.Duration
			}
			l := shapeOf("l"+kind, doc.Rectangle, float64(60+60*k), 100, 40, 20)
			if kind == effect.Scroll && i%2 == 0 {
				l.Depth = 2.6
			}
			l.Moves = []*doc.Move{m}
			s.Layers = append(s.Layers, l)
		}
		if i%3 == 0 { // goes on in a second scene
			next := s.Clone()
			next.ID, next.Name, next.Transition = "s2", "Two", doc.Transition{Kind: doc.Morph, Duration: 700}
			for _, l := range next.Layers {
				l.ID += "2"
				m := l.Moves[0]
				m.ID, m.Continues = m.ID+"2", m.ID
			}
			p.Film.Scenes = append(p.Film.Scenes, next)
		}
		d := open(t, p)
		if delivery.Closes(d.Film).Closes {
			t.Fatal("it closes as it is")
		}
		said := moves.Fits(d.Desk)
		want(t, d, rest, "film.fit", `{}`)
		length := d.Film.Order.Length
		if c := delivery.Closes(d.Film); !c.Closes && length%40 == 0 {
			t.Errorf("%d: %s after %s", i, c.Words, strings.Join(said, "; "))
		}
		if rest := moves.Fits(d.Desk); len(rest) != 0 {
			t.Errorf("%d: fitted, it would still change %v", i, rest)
		}
		for kind, before := range was {
			m, _, _ := d.Move(kind)
			way := int64(1)
			if m.Alternate {
				way = 2
			}
			best := math.Inf(1)
			for c := int64(doc.MinDuration); c*way <= length; c++ {
				if length%(c*way) == 0 {
					best = min(best, math.Abs(math.Log(float64(c)/float64(before))))
				}
			}
			if got := math.Abs(math.Log(float64(m.Duration) / float64(before))); got > best+1e-9 {
				t.Errorf("%d: %s: %d ms of %d is not the nearest to %d", i, kind, m.Duration, length, before)
			}
		}
	}
}
