package motion

import (
	"reflect"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
)

// Section 11: four pictures there and back, each beginning when the fade before begins: 0, 3.50, 7.00, 10.50; ends 6.00,
// 9.50, 13.00, 16.50. With legs of 4 s, nothing else typed: ends 8, 13.5, 19, 24.5.
func TestAChainOfPicturesFollowsOneChange(t *testing.T) {
	build := func(leg int64) *Timing {
		var moves []*doc.Move
		for i := 0; i < 4; i++ {
			p := straight(string(rune('a'+i)), at(0), leg)
			p.Repeat, p.Alternate = 2, true
			if i > 0 {
				p.Start = when(doc.WhenBegins, string(rune('p'+i-1)), 0)
			}
			out := fade(string(rune('p'+i)), doc.Exit, at(0), 2500)
			out.End = &doc.Anchor{When: doc.WhenEnds, Of: p.ID}
			moves = append(moves, p, out)
		}
		s := scene(0, moves...)
		s.AutoStay = true
		return resolve(t, s, 0)
	}
	r := build(3000)
	for i, begin := range []int64{0, 3500, 7000, 10500} {
		if iv := r.Moves[string(rune('a'+i))]; iv.Begin != begin || iv.End != begin+6000 {
			t.Errorf("picture %d goes from %d to %d", i+1, iv.Begin, iv.End)
		}
	}
	// The last thing is an exit, so there is no tail.
	if r.Stay != 16500 {
		t.Errorf("auto stay %d", r.Stay)
	}
	r = build(4000)
	for i, end := range []int64{8000, 13500, 19000, 24500} {
		if iv := r.Moves[string(rune('a'+i))]; iv.End != end {
			t.Errorf("with legs of 4 s picture %d ends at %d", i+1, iv.End)
		}
	}
}

// Section 11: an endless strip by two copies: a page-wide panel crosses 2 W; the second starts half its duration later. At every
// time they adjoin, and from then on cover the page.
func TestAnEndlessStripByTwoCopies(t *testing.T) {
	const w, T = 1920.0, 8000
	panel := func(id string, start doc.Start) *doc.Move {
		m := straight(id, start, T)
		m.Path.D = "M-1920 0L1920 0"
		return m
	}
	s := &doc.Scene{ID: "s", Stay: 12000}
	for i, m := range []*doc.Move{panel("a", at(0)), panel("b", when(doc.WhenBegins, "a", T/2))} {
		s.Layers = append(s.Layers, &doc.Layer{ID: string(rune('x' + i)), Thread: string(rune('x' + i)), Kind: doc.Rectangle, Moves: []*doc.Move{m}})
	}
	r := resolve(t, s, 0)
	a, b := NewTrack(s.Layers[0], r, Extent{}, nil), NewTrack(s.Layers[1], r, Extent{}, nil)
	for ms := int64(T / 2); ms <= T; ms += 77 {
		c := Clock{At: Millis(ms), Stay: 12000}
		// A panel's rest pose is where its path begins: it departs.
		x, y := a.At(c, nil).Offset.X-w, b.At(c, nil).Offset.X-w
		within(t, "the gap between them", x-y, w, 1e-9)
		if x < 0 || y > 0 {
			t.Fatalf("at %d ms they begin at %v and %v: the page is not covered", ms, y, x)
		}
	}
}

// Section 11, 5: frames one period apart are equal to the last bit for rocks and scrolls too.
func TestRocksAndScrollsRepeatExactly(t *testing.T) {
	rock := &doc.Move{ID: "r", Kind: doc.Loop, Effect: effect.Rock, Duration: 1000, Lasts: doc.WholeScene, Start: at(0), Params: effect.Params{"angle": 7.0}}
	scroll := &doc.Move{ID: "s", Kind: doc.Loop, Effect: effect.Scroll, Lasts: doc.WholeScene, Start: at(0), Params: effect.Params{"speed": 1.0}}
	s := scene(60000, rock, scroll)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil) // a period of 1 px at 1 px/s: a cycle of 1 s
	for _, fps := range []int64{24, 25, 30, 50, 60} {
		for i := int64(0); i < fps; i++ {
			a, b := k.At(Clock{At: FrameTime(i, fps, 1), Stay: 60000}, nil), k.At(Clock{At: FrameTime(i+11*fps, fps, 1), Stay: 60000}, nil)
			if !reflect.DeepEqual(a, b) {
				t.Fatalf("%d fps, frame %d: %+v and eleven seconds later %+v", fps, i, a, b)
			}
		}
	}
}
