package session_test

import (
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/patch"
	"capstan/core/session"
)

// What another window stored goes under the commands that wait here; these are carried out again, and what no longer fits is
// said.
func TestPendingCommandsAreCarriedOutAgainOnWhatWasStored(t *testing.T) {
	here, there := opener(t), opener(t)
	stored := func(s *session.Session, intent, args string) patch.Patch {
		c, err := s.Intent(intent, rest, []byte(args))
		if err != nil {
			t.Fatal(err)
		}
		p, err := s.Apply(c)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	first := stored(here, "nudge", `{"threads":["t-kite"],"dx":5,"dy":0}`)
	if err := here.Acknowledge(); err != nil {
		t.Fatal(err)
	}
	if _, err := there.CatchUp([]patch.Patch{first}, false); err != nil {
		t.Fatal(err)
	}
	stored(here, "nudge", `{"threads":["t-title"],"dx":0,"dy":7}`)
	stored(here, "set", `{"threads":["t-sub"],"patch":{"opacity":0.5}}`)
	elsewhere := []patch.Patch{
		stored(there, "nudge", `{"threads":["t-kite"],"dx":10,"dy":0}`),
		stored(there, "delete", `{"threads":["t-sub"],"everywhere":false}`),
	}
	failed, err := here.CatchUp(elsewhere, false)
	if err != nil || len(failed) != 1 || failed[0].Index != 1 || !strings.Contains(failed[0].Words, "no longer there") {
		t.Fatalf("%v, %v", failed, err)
	}
	if x := thread(t, here, 0, "t-kite").Place.X; x != 1435 {
		t.Errorf("the kite stands at %v, want both windows' steps", x)
	}
	if y := thread(t, here, 0, "t-title").Place.Y; y != 403 {
		t.Errorf("the pending step is gone: %v", y)
	}
	if err := here.Acknowledge(); err != nil {
		t.Fatal(err)
	}
	if here.Acknowledge() == nil {
		t.Error("more was acknowledged than waits")
	}
	// A refused command is taken back.
	stored(here, "nudge", `{"threads":["t-title"],"dx":0,"dy":100}`)
	stored(here, "nudge", `{"threads":["t-kite"],"dx":0,"dy":1}`)
	if _, err := here.CatchUp(nil, true); err != nil {
		t.Fatal(err)
	}
	if y := thread(t, here, 0, "t-title").Place.Y; y != 403 || thread(t, here, 0, "t-kite").Place.Y != 331 {
		t.Errorf("title at %v, kite at %v", y, thread(t, here, 0, "t-kite").Place.Y)
	}
	// A patch that does not fit changes nothing.
	before := thread(t, here, 0, "t-kite").Place
	if _, err := here.CatchUp([]patch.Patch{first}, false); err == nil || thread(t, here, 0, "t-kite").Place != before {
		t.Errorf("a patch that does not fit: %v", err)
	}
}

// Words that are being typed outlive a family that arrives, and what another window stores meanwhile.
func TestADraftOutlivesWhatComesUnderIt(t *testing.T) {
	s := open(t, with(words("w", "Kite", 160, 100, 30), shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	if err := s.Draft(sent(`{"op":"text.words","id":"w","text":"Kite D"}`)); err != nil {
		t.Fatal(err)
	}
	typed := func() string { return s.Selection(rest, []string{"w"})[0].Layer.Text.String() }
	if err := s.Recompile(); err != nil {
		t.Fatal(err)
	}
	if got := typed(); got != "Kite D" {
		t.Errorf("after a family has come, the words are %q", got)
	}
	other := open(t, with(words("w", "Kite", 160, 100, 30), shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	made, err := other.Apply(sent(`{"op":"layer.set","set":[{"id":"a","patch":{"opacity":0.5}}]}`))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.CatchUp([]patch.Patch{made}, false); err != nil {
		t.Fatal(err)
	}
	if got := typed(); got != "Kite D" || thread(t, s, 0, "a").Opacity != 0.5 {
		t.Errorf("after another window's edit, the words are %q, the other layer %v", got, thread(t, s, 0, "a").Opacity)
	}
	// Where the text is gone, so is the draft.
	made, err = other.Apply(sent(`{"op":"layer.delete","ids":["w"]}`))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.CatchUp([]patch.Patch{made}, false); err != nil {
		t.Fatal(err)
	}
	if n := len(s.Selection(rest, []string{"w", "a"})); n != 1 {
		t.Errorf("%d layers are left", n)
	}
}
