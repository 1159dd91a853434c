package session_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/intent/moves"
	"capstan/core/scope"
)

func TestBarsKeepWhatTheyHangOn(t *testing.T) {
	s := opener(t)
	sub := thread(t, s, 0, "t-sub").Moves[0]
	begin := s.Shown.Timing(0).Moves[sub.ID].Begin
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"whole","by":300}`, sub.ID))
	m := thread(t, s, 0, "t-sub").Moves[0]
	if m.Start.When != doc.WhenEnds || m.Start.Offset != sub.Start.Offset+300 || s.Shown.Timing(0).Moves[sub.ID].Begin != begin+300 {
		t.Errorf("dragged as a whole: %+v", m.Start)
	}
	end := s.Shown.Timing(0).Moves[sub.ID].End
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"begin","by":-200}`, sub.ID))
	if iv := s.Shown.Timing(0).Moves[sub.ID]; iv.Begin != begin+100 || iv.End != end {
		t.Errorf("dragged by its begin: %+v, the end was %d", iv, end)
	}
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"end","by":-5000}`, sub.ID))
	if iv := s.Shown.Timing(0).Moves[sub.ID]; iv.Pass != doc.MinDuration {
		t.Errorf("dragged shorter than nothing: %+v", iv)
	}
	out := thread(t, s, 1, "t-line").Moves[1]
	was := s.Shown.Timing(1).Moves[out.ID].Begin
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"whole","by":-500}`, out.ID))
	if now := s.Shown.Timing(1).Moves[out.ID].Begin; now != was-500 {
		t.Errorf("hung before the scene's end it went from %d to %d", was, now)
	}
}

func TestBarsSnapToWhatLiesNearAndSaySo(t *testing.T) {
	s := opener(t)
	title, kite := thread(t, s, 0, "t-title").Moves[0].ID, thread(t, s, 0, "t-kite").Moves[0].ID
	end := s.Shown.Timing(0).Moves[kite].End // 3200; the title's fade runs from 900 to 1800
	for _, c := range []struct {
		part       string
		by, within int64
		want       int64
		words      string
	}{
		{"end", end - 1800 - 30, 50, end - 1800, "ends when Path of Red kite ends"},
		{"whole", end - 900 + 20, 50, end - 900, "begins when Path of Red kite ends"},
		{"begin", -900 + 15, 50, -900, "begins with the scene"},
		{"end", 2800 - 40, 50, 2800, "ends when Path of Cloud 1 ends"},
		{"end", 700, 5, 700, ""},
	} {
		got := moves.SnapBar(s.Desk, rest, []string{title}, c.part, c.by, c.within)
		if c.words == "begins with the scene" && strings.HasSuffix(got.Words, "begins") {
			got.Words = c.words // a whole-scene spin begins there too, and moves go before the scene
		}
		if got.By != c.want || got.Words != c.words || (got.At >= 0) != (c.words != "") {
			t.Errorf("%s by %d: %+v, want %d %q", c.part, c.by, got, c.want, c.words)
		}
	}
	if got := moves.SnapBar(s.Desk, scope.Moment{Time: 2500}, []string{title}, "end", 690, 20); got.By != 700 || got.Words != "ends at the playhead" {
		t.Errorf("at the playhead: %+v", got)
	}
}

// Bars that hang on each other are dragged together without going twice as far; nothing goes beyond the own transition.
func TestDraggingBarsThatHangOnEachOther(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "hitch", `{"from":"ap","fromPart":"end","to":"bp","toPart":"begin"}`)
	want(t, s, rest, "hitch", `{"from":"bp","fromPart":"begin","to":"cp","toPart":"begin"}`)
	want(t, s, rest, "bars", `{"moves":["cp","ap","bp"],"part":"whole","by":700}`)
	if got := times(s, "ap", "bp", "cp"); got != "700-1700 1700-2700 1700-2700" {
		t.Errorf("%s", got)
	}
	want(t, s, rest, "bars", `{"moves":["bp"],"part":"whole","by":-300}`)
	if got := times(s, "ap", "bp", "cp"); got != "700-1700 1400-2400 1400-2400" {
		t.Errorf("%s", got)
	}
	refused(t, s, "in a ring", "hitch", `{"from":"cp","fromPart":"end","to":"ap","toPart":"begin"}`)
	refused(t, s, "itself", "hitch", `{"from":"cp","fromPart":"end","to":"cp","toPart":"begin"}`)
	refused(t, s, "different scenes", "hitch", `{"from":"cp","fromPart":"end","to":"dp","toPart":"begin"}`)
	want(t, s, rest, "bars", `{"moves":["ap"],"part":"whole","by":-90000}`)
	if got := times(s, "ap"); got != "0-1000" {
		t.Errorf("dragged beyond the begin: %s", got)
	}
	// Typed beyond that it is refused; come about by another edit it is marked.
	refused(t, s, "or later", "move.set", `{"move":"ap","patch":{"start":{"offset":-100}}}`)
	want(t, s, rest, "bars.nudge", `{"moves":["ap"],"part":"whole","frames":1}`)
	if got := times(s, "ap"); got != "33-1033" {
		t.Errorf("a frame at 30 a second: %s", got)
	}
	want(t, s, rest, "bars.nudge", `{"moves":["ap"],"part":"whole","frames":1}`)
	if got := times(s, "ap"); got != "67-1067" {
		t.Errorf("frames lie on the film's grid: %s", got)
	}
}

func TestSnappingNamesWhatABarMayHangOn(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "cue.add", `{"at":4000}`)
	if got := moves.SnapBar(s.Desk, rest, []string{"ap"}, "whole", 1480, 40); got.By != 1500 || got.When != doc.WhenEnds || got.Of != "bp" || got.Part != "begin" {
		t.Errorf("%+v", got)
	}
	if got := moves.SnapBar(s.Desk, rest, []string{"ap"}, "whole", 3990, 40); got.By != 4000 || got.When != doc.AtCue || !strings.Contains(got.Words, "at cue Cue 1") {
		t.Errorf("%+v", got)
	}
	// What hangs on a dragged bar goes along: it is nothing to snap to.
	if got := moves.SnapBar(s.Desk, rest, []string{"ap"}, "end", -480, 40); got.Of == "af" {
		t.Errorf("%+v", got)
	}
	// Several that go together do not snap to each other.
	if got := moves.SnapBar(s.Desk, rest, []string{"ap", "bp"}, "whole", 480, 40); got.Of == "bp" || got.Of == "bf" {
		t.Errorf("%+v", got)
	}
}

// 1,000 moves on one layer, every one hung on the one before: resolved, shown, and refused in words where they would close a ring.
func TestAThousandMovesOnALayer(t *testing.T) {
	p := doc.NewProject("p", "P", 1920, 1080, "one")
	l := &doc.Layer{ID: "l", Thread: "t", Name: "Flag", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
	for i := 0; i < 1000; i++ {
		m := &doc.Move{ID: fmt.Sprint("m", i), Kind: doc.MotionPath, Effect: doc.Along, Duration: 10, Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0L1 0"}}
		if i > 0 {
			m.Start = doc.Start{When: doc.WhenEnds, Of: fmt.Sprint("m", i-1)}
		}
		l.Moves = append(l.Moves, m)
	}
	p.Film.Scenes[0].Layers, p.Film.Scenes[0].AutoStay = []*doc.Layer{l}, true
	began := time.Now()
	s := open(t, p)
	if got := s.FilmView().Length; got != 10500 {
		t.Errorf("the film lasts %d ms", got)
	}
	rows := s.Rows(rest)
	if len(rows[0].Bars) != 1000 || rows[0].Bars[999].Lane != 999 {
		t.Errorf("%d bars", len(rows[0].Bars))
	}
	refused(t, s, "in a ring", "hitch", `{"from":"m999","fromPart":"end","to":"m0","toPart":"begin"}`)
	if took := time.Since(began); took > 5*time.Second {
		t.Errorf("it took %v", took)
	}
	// Times that are too long or too short are refused by the field they are in.
	refused(t, s, "duration", "move.set", `{"move":"m5","patch":{"duration":0}}`)
	refused(t, s, "duration", "move.set", `{"move":"m5","patch":{"duration":7200000}}`)
	refused(t, s, "start.of", "move.set", `{"move":"m5","patch":{"start":{"when":"begins","of":"gone"}}}`)
}

// One update of a dragged bar in the demo: the draft and the rows, as the page asks for them.
func BenchmarkDragBar(b *testing.B) {
	s := opener(b)
	id := s.Document().Film.Scenes[0].Thread("t-title").Moves[0].ID
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		c, err := s.Intent("bars", rest, []byte(fmt.Sprintf(`{"moves":[%q],"part":"whole","by":%d}`, id, 10+i%100*10)))
		if err != nil {
			b.Fatal(err)
		}
		if err := s.Draft(c); err != nil {
			b.Fatal(err)
		}
		s.Rows(rest)
	}
}
