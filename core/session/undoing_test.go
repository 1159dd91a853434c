package session_test

import (
	"bytes"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent/arrange"
	"capstan/core/patch"
	"capstan/core/scope"
)

// Every way to arrange is undone to the byte, and done again, one after the other on one document.
func TestEveryWayToArrangeIsUndone(t *testing.T) {
	p, _ := scattered(3)
	p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, words("w", "Kite Day", 160, 180, 20))
	next := doc.NewScene("s2", "Next")
	l := shapeOf("a0", doc.Rectangle, 30, 30, 20, 20)
	l.ID = "a0-2"
	next.Layers = []*doc.Layer{l}
	p.Film.Scenes = append(p.Film.Scenes, next)
	aside := scope.Moment{Rest: true, Scene: 2}
	s := open(t, p)
	write := func() []byte {
		raw, err := s.Document().Write()
		if err != nil {
			t.Fatal(err)
		}
		return raw
	}
	raw, err := doc.Encode(arrange.Copy(s.Desk, rest, []string{"a1"}))
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		intent, args string
		at           scope.Moment
	}{
		{"align", `{"threads":["a0","a1","g"],"edge":"left","to":"selection"}`, rest}, {"align", `{"threads":["a2"],"edge":"middle","to":"safe"}`, rest},
		{"distribute", `{"threads":["a0","a1","a2","a3"],"down":true}`, rest}, {"distribute", `{"threads":["a0","a1","a2"],"gap":12}`, rest},
		{"same", `{"threads":["a0","a1","a2"],"what":"both"}`, rest}, {"spread.apart", `{"threads":["a0","a1","a2"],"percent":10}`, rest},
		{"flip", `{"threads":["a0","a3"]}`, rest}, {"turn.by", `{"threads":["a0","a1"],"degrees":90}`, rest},
		{"order", `{"threads":["a0"],"to":"front"}`, rest}, {"order.reverse", `{"threads":["a0","a1","a2"]}`, rest},
		{"order.before", `{"threads":["a0"],"target":"a3","where":"above"}`, rest}, {"order.before", `{"threads":["a1"],"target":"g","where":"inside"}`, rest},
		{"nudge", `{"threads":["a0","g"],"dx":1,"dy":-10}`, rest}, {"place", `{"threads":["a2"],"x":30,"w":44,"keep":true,"ref":[0,1]}`, rest},
		{"place", `{"threads":["w"],"turn":400}`, rest}, {"pivot", `{"threads":["a3"],"x":0,"y":1}`, rest},
		{"group", `{"threads":["a0","a3"]}`, rest}, {"ungroup", `{"threads":["g"]}`, rest},
		{"mask", `{"threads":["a2","a3"],"how":"outside"}`, rest}, {"lock.all", `{"on":true}`, rest}, {"lock.all", `{"on":false}`, rest},
		{"duplicate", `{"threads":["a0"]}`, rest}, {"duplicate", `{"threads":["a0"]}`, rest}, {"paste", string(raw), rest},
		{"guide", `{"axis":"level","at":50}`, rest}, {"guides.of", `{"threads":["a0"]}`, rest}, {"guides.of", `{"threads":[]}`, rest},
		{"shift.by", `{"threads":["a0"],"dx":5,"turn":10,"size":1.5,"opacity":-0.1}`, rest}, {"carry.all", `{"threads":["w"]}`, rest},
		{"ground.make", `{"threads":["a1"]}`, rest}, {"set.aside", `{"threads":["w"]}`, rest}, {"set.everywhere", `{"thread":"a0","patch":{"hidden":true}}`, rest},
		{"bring.back", `{"threads":["w"],"scene":1}`, aside}, {"delete", `{"threads":["a0"],"everywhere":true}`, rest},
	} {
		before := write()
		cmd, err := s.Intent(c.intent, c.at, []byte(c.args))
		if err != nil || cmd == nil {
			t.Errorf("%s %s: nothing to do, %v", c.intent, c.args, err)
			continue
		}
		done, err := s.Apply(cmd)
		if err != nil {
			t.Errorf("%s %s: %v", c.intent, c.args, err)
			continue
		}
		after := write()
		if bytes.Equal(before, after) {
			t.Errorf("%s %s changes nothing", c.intent, c.args)
		}
		step := func(what string, changes patch.Patch, want []byte) {
			if _, err := s.Apply(&edit.ApplyPatch{Changes: changes}); err != nil {
				t.Fatalf("%s: %s: %v", c.intent, what, err)
			}
			if !bytes.Equal(write(), want) {
				t.Fatalf("%s %s: %s it is not what it was", c.intent, c.args, what)
			}
		}
		step("undone", done.Inverse(), before)
		step("done again", done, after)
	}
}
