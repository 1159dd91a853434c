package session_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/session"
)

// Pasted into a scene that lacks it, a layer keeps its thread, unless it is pasted as new; pasted in place it does not move aside.
func TestPastingInPlaceAndAsNew(t *testing.T) {
	third := session.Moment{Rest: true, Scene: 2}
	for _, c := range []struct {
		where  session.Moment
		args   string
		thread bool
		x      float64
	}{
		{third, ``, true, 40}, {third, `,"new":true`, false, 40}, {rest, ``, false, 45}, {rest, `,"place":true`, false, 40},
	} {
		s := open(t, series())
		raw, err := doc.Encode(s.Copy(rest, []string{"a"}))
		if err != nil {
			t.Fatal(err)
		}
		want(t, s, c.where, "paste", string(raw[:len(raw)-1])+c.args+"}")
		list := s.Document().Film.Scenes[c.where.Scene].Layers
		l := list[len(list)-1]
		if (l.Thread == "a") != c.thread || l.Place.X != c.x {
			t.Errorf("scene %d%s: thread %s at %v", c.where.Scene+1, c.args, l.Thread, l.Place.X)
		}
	}
}
