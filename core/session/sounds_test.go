package session_test

import (
	"bytes"
	"fmt"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent/moves"
	"capstan/core/scope"
	"capstan/core/session"
)

// recording is what is known of a sound of so many seconds.
func recording(seconds int64) string {
	return fmt.Sprintf(`{"name":"Hum.wav","type":"audio/wav","bytes":9,"samples":%d,"channels":1}`, seconds*doc.SampleRate)
}

// sounding is a film of two scenes of four seconds with a morph of one between; in the first a kite flies from the first second to the third.
func sounding(t *testing.T) *session.Session {
	kite := shapeOf("kite", doc.Rectangle, 40, 60, 40, 40)
	kite.Moves = []*doc.Move{{ID: "fly", Kind: doc.MotionPath, Effect: doc.Along, Duration: 2000, Start: doc.Start{When: doc.AtTime, Offset: 1000}, Path: &doc.PathParams{D: "M0 0L200 0"}}}
	p := with(kite)
	second := doc.NewScene("s1", "Second")
	second.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000}
	p.Film.Scenes = append(p.Film.Scenes, second)
	p.Film.Scenes[0].Stay = 4000
	return open(t, p)
}

// said is when each sound is heard, as it is shown.
func said(s *session.Session) string {
	var list []string
	for _, r := range s.SoundsView().Rows {
		list = append(list, fmt.Sprintf("%s %d-%d (%s)", r.Use, r.Begin, r.End, r.Words))
	}
	return strings.Join(list, "; ")
}

// Sounds come in and are moved, trimmed and bound as docs/motion.md, section 12, says; each ends where its recording does.
func TestSoundsAreBoundAndTrimmed(t *testing.T) {
	s := sounding(t)
	hash, long := strings.Repeat("a", 64), strings.Repeat("b", 64)
	id := func() string { r := s.SoundsView().Rows; return r[len(r)-1].ID }
	first := s.Doc.Film.Scenes[0]
	for _, step := range []struct{ intent, args, want string }{
		{"sound.add", `{"hash":"` + hash + `","media":` + recording(3) + `}`, "effect 500-3500 (in Scene 1, at 0.50 s)"},
		{"sound.move", `{"ids":["ID"],"by":-900}`, "effect 0-3000 (in Scene 1, at 0.00 s)"},
		{"sound.move", `{"ids":["ID"],"by":5500}`, "effect 5500-8500 (in Second, at 0.50 s)"}, // over into the next scene
		{"sound.bind", `{"id":"ID","to":"move","move":"fly"}`, "effect 1000-3000 (when Path of kite begins, until Path of kite ends)"},
		{"sound.bind", `{"id":"ID","to":"film"}`, "effect 1000-3000 (with the film, from 1.00 s on)"},
		{"sound.trim", `{"id":"ID","part":"end","by":9000}`, "effect 1000-4000 (with the film, from 1.00 s on)"},    // as far as the recording goes
		{"sound.trim", `{"id":"ID","part":"begin","by":800}`, "effect 1800-4000 (with the film, from 1.80 s on)"},   // it is heard from there on
		{"sound.trim", `{"id":"ID","part":"begin","by":-5000}`, "effect 1000-4000 (with the film, from 1.00 s on)"}, // nothing is before its begin
		{"sound.set", `{"ids":["ID"],"patch":{"speed":2,"length":1500}}`, "effect 1000-2500 (with the film, from 1.00 s on)"},
		{"sound.bind", `{"id":"ID","to":"scene"}`, "effect 1000-2500 (in Scene 1, at 1.00 s)"},
		{"sound.bind", `{"id":"ID","to":"move","move":"fly"}`, "effect 1000-3000 (when Path of kite begins, until Path of kite ends)"},
		{"moves.delete", `{"moves":["fly"]}`, "effect 1000-3000 (in Scene 1, at 1.00 s)"}, // what it hung on is gone; it is heard when it was
		{"sound.delete", `{"ids":["ID"]}`, ""},
	} {
		at := scope.Moment{Time: 500}
		if step.intent != "sound.add" {
			at = rest
		}
		args := step.args
		if strings.Contains(args, `"ID"`) {
			args = strings.ReplaceAll(args, `"ID"`, `"`+id()+`"`)
		}
		want(t, s, at, step.intent, args)
		if got := said(s); got != step.want {
			t.Errorf("%s %s: %s, want %s", step.intent, step.args, got, step.want)
		}
	}
	want(t, s, rest, "sound.add", `{"hash":"`+long+`","media":`+recording(60)+`}`)
	if q := s.Doc.Film.Sounds; len(q) != 1 || q[0].Use != doc.Music || q[0].FadeOut != 1500 || said(s) != "music 0-9000 (with the film, from 0.00 s on)" {
		t.Errorf("a long one is %s", said(s))
	}
	for _, bad := range []string{`{"ids":["gone"],"by":4}`, `{"ids":["` + first.ID + `"],"by":4}`} {
		if _, err := s.Intent("sound.move", rest, []byte(bad)); err == nil {
			t.Errorf("%s is done", bad)
		}
	}
}

// Commands and patches that hold nothing where a sound should be, or sounds that break a rule, are refused in words, and nothing is changed.
func TestHostileSoundsAreRefused(t *testing.T) {
	s := sounding(t)
	hash := strings.Repeat("a", 64)
	want(t, s, rest, "sound.add", `{"hash":"`+hash+`","media":`+recording(3)+`}`)
	id, scene := s.Doc.Film.Scenes[0].Sounds[0].ID, s.Doc.Film.Scenes[0].ID
	before, _ := s.Doc.Write()
	one := func(more string) string {
		return `{"id":"x1","name":"x","media":"` + hash + `","use":"effect","start":{"when":"at"},"length":100` + more + `}`
	}
	for _, raw := range []string{
		`{"op":"sound.add","sounds":[null]}`, `{"op":"sound.add","scene":"` + scene + `","sounds":[null]}`, `{"op":"sound.add","scene":"gone","sounds":[]}`,
		`{"op":"batch","commands":[{"op":"patch","changes":[{"part":"scene/` + scene + `","field":"sounds","before":null,"after":[null]}]},{"op":"sound.set","id":"` + id + `","patch":{}}]}`,
		`{"op":"batch","commands":[{"op":"sound.add","scene":"` + scene + `","sounds":[null]},{"op":"scene.cut","scene":"` + scene + `","at":500,"id":"n1","seed":"n2","name":"n"}]}`,
		`{"op":"batch","commands":[{"op":"sound.add","scene":"` + scene + `","sounds":[null]},{"op":"scene.fold","ids":["` + scene + `","s1"],"seed":"n2"}]}`,
		`{"op":"scene.paste","scenes":[{"id":"p","name":"p","stay":1,"transition":{"kind":"cut"},"background":{"kind":"none"},"layers":[],"sounds":[null]}],"ids":["p1"],"seed":"p2","index":1}`,
		`{"op":"sound.add","sounds":[` + one(`,"start":{"when":"begins","of":"fly"}`) + `]}`, `{"op":"sound.add","sounds":[` + one(`,"gain":99`) + `]}`, `{"op":"sound.add","sounds":[` + one(`,"speed":1e9`) + `]}`,
		`{"op":"sound.add","sounds":[` + one(`,"beats":[5,5]`) + `]}`, `{"op":"sound.add","sounds":[` + one(`,"points":[{"at":9,"gain":0},{"at":3,"gain":0}]`) + `]}`, `{"op":"sound.add","sounds":[` + one("") + "," + one("") + `]}`,
		`{"op":"film.set","patch":{"sounds":[]}}`, `{"op":"film.set","patch":{"mix":{"back":1e9}}}`,
		`{"op":"sound.set","id":"` + id + `","patch":{"id":"other"}}`, `{"op":"sound.delete","ids":["gone"]}`,
	} {
		c, err := edit.Read([]byte(raw))
		if err == nil {
			_, err = s.Apply(c)
		}
		if err == nil {
			t.Errorf("%s is done", raw)
		}
		if after, _ := s.Doc.Write(); !bytes.Equal(before, after) {
			t.Fatalf("%s has changed the document", raw)
		}
	}
}

// Scenes that are split, folded, copied and continued keep what is heard when it was: a split one hands on what begins later, a copy has its own, one that goes on
// has none.
func TestSoundsGoWithTheirScenes(t *testing.T) {
	var s *session.Session
	begin := func() {
		s = sounding(t)
		for _, at := range []float64{500, 3200} {
			want(t, s, scope.Moment{Time: at}, "sound.add", `{"hash":"`+strings.Repeat("a", 64)+`","media":`+recording(1)+`}`)
		}
	}
	begin()
	times := func() (list []string) {
		for _, r := range s.SoundsView().Rows {
			list = append(list, fmt.Sprintf("%d:%d", r.Scene, r.Begin))
		}
		slices.Sort(list)
		return list
	}
	expect := func(what string, want ...string) {
		t.Helper()
		if got := times(); !slices.Equal(got, want) {
			t.Errorf("%s: %v, want %v", what, got, want)
		}
	}
	expect("at first", "0:3200", "0:500")
	want(t, s, scope.Moment{Time: 2000}, "scene.split", `{}`)
	expect("split", "0:500", "1:3200")
	begin()
	want(t, s, rest, "scene.duplicate", `{}`)
	expect("copied", "0:3200", "0:500", "1:5200", "1:7900")
	begin()
	want(t, s, scope.Moment{Time: 2000}, "scene.split", `{}`)
	want(t, s, rest, "scene.fold", `{"ids":["`+s.Doc.Film.Scenes[0].ID+`","`+s.Doc.Film.Scenes[1].ID+`"]}`)
	expect("split and folded", "0:3200", "0:500")
	begin()
	want(t, s, rest, "scene.continue", `{}`)
	expect("continued", "0:3200", "0:500")
}

// Bars snap to beats of the music, several begin on one after another, and scenes end on bars; without beats it says so.
func TestMovesAndScenesGoWithBeats(t *testing.T) {
	s := sounding(t)
	if _, err := s.Intent("scene.bars", rest, []byte(`{"ids":["s0"],"beats":4}`)); err == nil {
		t.Error("there are bars without beats")
	}
	want(t, s, rest, "sound.add", `{"hash":"`+strings.Repeat("b", 64)+`","media":`+recording(60)+`}`)
	var beats []string
	for i := range 40 {
		beats = append(beats, fmt.Sprint(230+i*500))
	}
	want(t, s, rest, "sound.set", `{"ids":["`+s.Doc.Film.Sounds[0].ID+`"],"patch":{"beats":[`+strings.Join(beats, ",")+`]}}`)
	if snap := moves.SnapBar(s.Desk, rest, []string{"fly"}, "whole", 215, 30); snap.By != 230 || snap.Words != "begins on a beat" {
		t.Errorf("a bar near a beat goes by %+v", snap)
	}
	want(t, s, rest, "time", `{"tool":"beats","moves":["fly"]}`)
	if b := s.Film.Timing(0).Moves["fly"].Begin; b != 1230 && b != 730 {
		t.Errorf("on a beat it begins at %d", b)
	}
	var ids []string
	for _, sc := range s.Doc.Film.Scenes {
		ids = append(ids, `"`+sc.ID+`"`)
	}
	want(t, s, rest, "scene.bars", `{"ids":[`+strings.Join(ids, ",")+`],"beats":4}`)
	for i := range s.Doc.Film.Scenes {
		if end := s.Film.Order.Begin(i) + s.Film.Order.Stays[i]; (end-230)%2000 != 0 {
			t.Errorf("scene %d ends at %d, on no bar", i, end)
		}
	}
}
