package session_test

import (
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
)

func TestWhatLiesUnderThePointerAndWhatIsAlike(t *testing.T) {
	front, back := shapeOf("front", doc.Ellipse, 100, 100, 60, 60), shapeOf("back", doc.Rectangle, 100, 100, 90, 90)
	locked := shapeOf("locked", doc.Rectangle, 100, 100, 200, 200)
	locked.Locked = true
	in := shapeOf("in", doc.Ellipse, 0, 0, 40, 40)
	in.Opacity = 0.5
	group := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 100, Y: 100}, Children: []*doc.Layer{in}}
	away := shapeOf("away", doc.Ellipse, -100, -100, 30, 30)
	s := open(t, with(locked, back, group, front, away))
	said := ""
	for _, u := range s.UnderView(rest, geom.Point{X: 100, Y: 100}, 0) {
		said += fmt.Sprint(strings.Join(u.Chain, "/"), u.Locked, " ")
	}
	if said != "frontfalse g/infalse backfalse lockedtrue " {
		t.Errorf("under the pointer: %s", said)
	}
	if v := s.AllView(rest, ""); fmt.Sprint(v.Threads, v.OnPage) != "[back g front away] [back g front]" {
		t.Errorf("all: %v", v)
	}
	if v := s.AllView(rest, "g"); fmt.Sprint(v.Threads) != "[in]" {
		t.Errorf("in the group: %v", v)
	}
	if v := s.Alike(rest, []string{"front"}, "kind"); fmt.Sprint(v) != "[in front away]" {
		t.Errorf("of one kind: %v", v)
	}
	if v := s.Alike(rest, []string{"front"}, "look"); fmt.Sprint(v) != "[back front away]" {
		t.Errorf("of one look: %v", v)
	}
}
