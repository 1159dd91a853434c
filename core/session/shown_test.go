package session_test

import (
	"fmt"
	"testing"

	"capstan/core/scope"
	"capstan/core/session"
)

// What is carried out with all that is shown of it can be undone, and shows what was before; what it was shown as a draft is what it comes to.
func TestWhatIsShownFollowsEveryStep(t *testing.T) {
	s := opener(t)
	m := scope.Moment{Rest: true}
	s.Watch(session.Watched{Moment: m, Threads: []string{"t-kite"}})
	was := s.All()
	args := []byte(`{"threads":["t-kite"],"x":321,"keep":false,"ref":[0.5,0.5]}`)
	drafted := s.Try("place", args, true)
	if drafted.Trouble != "" || drafted.Film == nil || len(drafted.Rows) != len(was.Rows) {
		t.Fatalf("%+v", drafted.Trouble)
	}
	done, err := s.Run("place", args, session.Row{}, true)
	if err != nil || done == nil || done.ID == "" || len(done.Command) == 0 || done.Undo != 1 {
		t.Fatalf("%+v %v", done, err)
	}
	if a, b := drafted.Selected[0].Box, done.Selected[0].Box; a != b || a == was.Selected[0].Box {
		t.Errorf("drafted it lies at %v, done at %v, before at %v", a, b, was.Selected[0].Box)
	}
	if done.Later.Count+done.Later.Own == 0 {
		t.Error("no later scene is offered")
	}
	back, err := s.Back(false)
	if err != nil || back == nil || back.Undo != 0 || back.Redo != 1 {
		t.Fatalf("undone: %+v %v", back, err)
	}
	if fmt.Sprint(back.Selected[0].Box, back.Overlay) != fmt.Sprint(was.Selected[0].Box, was.Overlay) {
		t.Errorf("undone it lies at %v, before at %v", back.Selected[0].Box, was.Selected[0].Box)
	}
	if again, err := s.Back(true); err != nil || again.Selected[0].Box != done.Selected[0].Box {
		t.Errorf("done again: %v", err)
	}
	if none, err := s.Back(true); none != nil || err != nil {
		t.Error("there is no step to do again")
	}
	// What is refused changes nothing; what is gone is not selected.
	if d := s.Try("place", []byte(`{"threads":["t-kite"],"w":-5}`), false); d.Trouble == "" && d.Selected[0].Box[2] < 0 {
		t.Error("a width below 0 is shown")
	}
	if gone, err := s.Run("delete", []byte(`{"threads":["t-kite"],"everywhere":true}`), session.Row{}, true); err != nil || len(gone.Threads) != 0 || len(gone.Selected) != 0 {
		t.Errorf("%+v %v", gone.Threads, err)
	}
}
