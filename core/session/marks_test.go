package session_test

import (
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/intent/moves"
	"capstan/core/scope"
	"capstan/core/session"
)

// spoke gives the film a voice that says words at some times, in the place of the sound that has an id.
func spoke(t *testing.T, s *session.Session, id string, list ...doc.Word) string {
	t.Helper()
	var said, words []string
	for _, w := range list {
		said, words = append(said, w.Text), append(words, fmt.Sprintf(`{"at":%d,"text":%q}`, w.At, w.Text))
	}
	want(t, s, scope.Moment{Time: 500}, "sound.speak", fmt.Sprintf(`{"hash":%q,"media":%s,"id":%q,"spoken":{"text":%q,"voice":"en","lines":[{"from":0,"to":2500,"text":%q}],"words":[%s]}}`,
		strings.Repeat("c", 64), recording(3), id, strings.Join(said, " "), strings.Join(said, " "), strings.Join(words, ",")))
	return s.SoundsView().Rows[0].ID
}

// A move begins when a word of a voice begins, wherever the voice goes, however fast it is, and also when it is spoken anew; what its word or its voice is gone from
// keeps its time. Bars snap to words, what hangs on itself is refused, and scenes that are cut, copied and folded keep what begins with what.
func TestMovesBeginAtWords(t *testing.T) {
	s := sounding(t)
	words := []doc.Word{{At: 100, Text: "Come"}, {At: 600, Text: "and"}, {At: 1000, Text: "fly"}}
	id := spoke(t, s, "", words...)
	at := func(word string) string {
		for _, m := range s.SoundsView().Rows[0].Marks {
			if m.Name == word {
				return m.ID
			}
		}
		return ""
	}
	begins := func(what string, want int64) {
		t.Helper()
		if got := s.Film.Timing(0).Moves["fly"].Begin; got != want {
			t.Errorf("%s: it begins at %d, want %d", what, got, want)
		}
	}
	if snap := moves.SnapBar(s.Desk, rest, []string{"fly"}, "whole", 490, 30); snap.By != 500 || snap.Words != "begins at “fly” of Come and fly" || snap.When != doc.WhenHeard {
		t.Errorf("near a word a bar goes by %+v", snap)
	}
	want(t, s, rest, "move.start", `{"move":"fly","when":"heard","of":"`+at("fly")+`"}`)
	begins("at a word", 1500)
	for _, step := range []struct {
		intent, args string
		begin        int64
	}{
		{"sound.move", `{"ids":["ID"],"by":200}`, 1700},
		{"sound.set", `{"ids":["ID"],"patch":{"speed":2}}`, 1200},
		{"sound.set", `{"ids":["ID"],"patch":{"speed":null,"from":400}}`, 1300},
		{"move.set", `{"move":"fly","patch":{"start":{"offset":-250}}}`, 1050},
		{"mark.set", `{"id":"ID","mark":"` + at("fly") + `","by":-100}`, 950},
	} {
		want(t, s, rest, step.intent, strings.ReplaceAll(step.args, "ID", id))
		begins(step.intent+" "+step.args, step.begin)
	}
	spoke(t, s, id, doc.Word{At: 300, Text: "We"}, doc.Word{At: 900, Text: "fly"}, doc.Word{At: 2000, Text: "fly"})
	begins("spoken anew", 700+900-250)
	if bar := s.Rows(rest)[0].Bars[0]; !strings.Contains(bar.Words, "at “fly” of Come and fly − 0.25 s") {
		t.Errorf("it is said that it begins %s", bar.Words)
	}
	refused(t, s, "hangs on", "sound.bind", `{"id":"`+id+`","to":"move","move":"fly"}`)

	// Copied, cut and folded.
	before := s.Doc
	want(t, s, rest, "scene.duplicate", `{}`)
	if m := s.Doc.Film.Scenes[1].Layers[0].Moves[0]; m.Start.When != doc.WhenHeard || m.Start.Of == s.Doc.Film.Scenes[0].Layers[0].Moves[0].Start.Of {
		t.Errorf("a copy begins %+v", m.Start)
	}
	s = open(t, before)
	want(t, s, scope.Moment{Time: 600}, "scene.split", `{}`)
	if q, m := s.Doc.Film.Scenes[1].Sounds, s.Doc.Film.Scenes[1].Layers[0].Moves[0]; len(q) != 1 || m.Start.When != doc.WhenHeard || s.Film.Timing(1).Moves[m.ID].Begin != 750 {
		t.Errorf("cut before the voice it begins %+v", m.Start)
	}
	want(t, s, rest, "scene.fold", `{"ids":["`+s.Doc.Film.Scenes[0].ID+`","`+s.Doc.Film.Scenes[1].ID+`"]}`)
	if b := s.Film.Timing(0).Moves[s.Doc.Film.Scenes[0].Layers[0].Moves[0].ID].Begin; b != 1350 {
		t.Errorf("folded it begins at %d", b)
	}
	s = open(t, before)
	want(t, s, scope.Moment{Time: 900}, "scene.split", `{}`)
	if m := s.Doc.Film.Scenes[1].Layers[0].Moves[0]; m.Start.When != doc.AtTime || m.Start.Offset != 450 {
		t.Errorf("cut within the voice it begins %+v", m.Start)
	}

	// What it hung on goes.
	for _, gone := range []struct{ intent, args string }{
		{"sound.delete", `{"ids":["ID"]}`},
		{"sound.bind", `{"id":"ID","to":"film"}`},
		{"mark.all", `{"id":"ID","of":""}`},
		{"move.start", `{"move":"fly","when":"at"}`},
	} {
		s = open(t, before)
		want(t, s, rest, gone.intent, strings.ReplaceAll(gone.args, "ID", id))
		begins(gone.intent, 1350)
		if m := s.Doc.Film.Scenes[0].Layers[0].Moves[0]; m.Start.When != doc.AtTime {
			t.Errorf("%s: it begins %+v", gone.intent, m.Start)
		}
	}
	s = open(t, before)
	want(t, s, rest, "scene.continue", `{}`)
	refused(t, s, "is not heard at the playhead", "mark.add", `{"id":"`+id+`"}`)
}

// Captions are begun at the playhead, moved as far as those beside them let them, and read for the whole film; each goes with the scene in which it begins. Those that
// are shown at once are told apart, and what cannot be is refused.
func TestCaptionsAreTypedAndRead(t *testing.T) {
	s := sounding(t)
	shown := func() (out string) {
		for _, c := range s.SoundsView().Captions {
			out += fmt.Sprintf("%d-%d %s (%s %d)\n", c.From, c.To, c.Text, c.Scene, c.Index)
		}
		return out
	}
	for _, step := range []struct {
		at           float64
		intent, args string
		want         string
	}{
		{1000, "caption.add", `{"text":"Up"}`, "1000-3000 Up (s 0)\n"},
		{1500, "caption.add", `{}`, "1000-3000 Up (s 0)\n3000-5000 New caption (s 1)\n"},
		{200, "caption.add", `{"text":"A"}`, "200-1000 A (s 0)\n1000-3000 Up (s 1)\n3000-5000 New caption (s 2)\n"},
		{0, "caption.move", `{"scene":"s","index":0,"by":5000}`, ""},
		{0, "caption.move", `{"scene":"s","index":1,"part":"begin","by":500}`, "200-1000 A (s 0)\n1500-3000 Up (s 1)\n3000-5000 New caption (s 2)\n"},
		{0, "caption.move", `{"scene":"s","index":0,"by":5000}`, "700-1500 A (s 0)\n1500-3000 Up (s 1)\n3000-5000 New caption (s 2)\n"},
		{0, "caption.move", `{"scene":"s","index":0,"by":-5000}`, "0-800 A (s 0)\n1500-3000 Up (s 1)\n3000-5000 New caption (s 2)\n"},
		{0, "caption.move", `{"scene":"s","index":0,"part":"end","by":-5000}`, "0-10 A (s 0)\n1500-3000 Up (s 1)\n3000-5000 New caption (s 2)\n"},
		{0, "caption.delete", `{"scene":"s","index":0}`, "1500-3000 Up (s 0)\n3000-5000 New caption (s 1)\n"},
		{0, "caption.say", `{"scene":"s","index":1,"text":" Off \n"}`, "1500-3000 Up (s 0)\n3000-5000 Off (s 1)\n"},
		// One begins in the second scene, two together, two overlap, one begins after the film.
		{0, "caption.read", `{"lines":[{"from":6000,"to":7000,"text":"D"},{"from":500,"to":1500,"text":"A"},{"from":1000,"to":2000,"text":"B"},{"from":1000,"to":1800,"text":"C"},{"from":60000,"to":61000,"text":"E"}]}`,
			"500-1000 A (s 0)\n1000-2000 B\nC (s 1)\n6000-7000 D (s1 0)\n"},
	} {
		c, err := s.Intent(step.intent, scope.Moment{Time: step.at}, []byte(step.args))
		if err != nil || (c == nil) != (step.want == "") {
			t.Fatalf("%s %s: %v %v", step.intent, step.args, c, err)
		}
		if c == nil {
			continue
		}
		if _, err := s.Apply(c); err != nil {
			t.Fatalf("%s: %v", step.intent, err)
		}
		if got := shown(); got != step.want {
			t.Errorf("%s %s:\n%swant\n%s", step.intent, step.args, got, step.want)
		}
	}
	if last := s.Doc.Film.Scenes[1].Captions; len(last) != 2 || last[1].From != 55_000 {
		t.Errorf("what begins after the film is %v", last)
	}
	want(t, s, scope.Moment{Time: 1500}, "scene.split", `{}`)
	if got := shown(); !strings.HasPrefix(got, "500-1000 A (s 0)\n1000-2000 B\nC (s 1)\n6000-7000 D") {
		t.Errorf("split:\n%s", got)
	}
	want(t, s, rest, "scene.fold", `{"ids":["s","`+s.Doc.Film.Scenes[1].ID+`"]}`)
	if got := shown(); !strings.HasPrefix(got, "500-1000 A (s 0)\n1000-2000 B\nC (s 1)\n6000-7000 D") {
		t.Errorf("folded:\n%s", got)
	}
	if c := s.SoundsView().Captions[0]; c.Pace != 2 || c.Fast {
		t.Errorf("a letter in half a second asks for %v characters a second", c.Pace)
	}
	refused(t, s, "without words", "caption.say", `{"scene":"s","index":0,"text":"  "}`)
	refused(t, s, "no longer there", "caption.say", `{"scene":"s","index":9,"text":"x"}`)
	refused(t, s, "no longer there", "caption.delete", `{"scene":"s9","index":0}`)
	refused(t, s, "500 characters", "caption.say", `{"scene":"s","index":0,"text":"`+strings.Repeat("a", 501)+`"}`)
}
