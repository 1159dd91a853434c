package gallery_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/gallery"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/library"
)

// studio is an open project with a rectangle, a text and a group, and a scene after that.
func studio(t *testing.T) *session.Session {
	t.Helper()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	p := doc.NewProject("p", "Gallery", 640, 360, "s")
	sc := p.Film.Scenes[0]
	solid := doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}
	sc.Layers = []*doc.Layer{
		{ID: "box", Thread: "box", Name: "Box", Kind: doc.Rectangle, Opacity: 1, Fill: solid, Place: doc.Place{X: 200, Y: 150, W: 120, H: 80}},
		{ID: "words", Thread: "words", Name: "Words", Kind: doc.TextKind, Opacity: 1, Fill: solid, Place: doc.Place{X: 30, Y: 20}, Text: &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: "Kite day", Family: "Archivo", Weight: 400, Size: 40}}}},
		{ID: "group", Thread: "group", Name: "Group", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 400, Y: 100}, Children: []*doc.Layer{
			{ID: "inner", Thread: "inner", Name: "Inner", Kind: doc.Ellipse, Opacity: 1, Fill: solid, Place: doc.Place{W: 60, H: 60}},
			{ID: "other", Thread: "other", Name: "Other", Kind: doc.Ellipse, Opacity: 1, Fill: solid, Place: doc.Place{X: 60, W: 60, H: 60}},
		}},
	}
	next := doc.NewScene("n", "Next")
	next.Transition = doc.Transition{Kind: doc.Cut}
	p.Film.Scenes = append(p.Film.Scenes, next)
	raw, err := doc.Encode(p)
	if err != nil {
		t.Fatal(err)
	}
	s := session.New()
	s.Fonts = *fonts
	if err := s.Open(raw); err != nil {
		t.Fatal(err)
	}
	return s
}

var rest = scope.Moment{Rest: true}

// Of the everyday words beside the effects 95 in a hundred find theirs among the first three, each with one letter wrong 85.
func TestEverydayWordsFindTheirs(t *testing.T) {
	raw, err := os.ReadFile("../effect/testdata/everyday.txt")
	if err != nil {
		t.Fatal(err)
	}
	g := gallery.Moves(studio(t).Desk, rest, []string{"words"}, "")
	group := gallery.Moves(studio(t).Desk, rest, []string{"group"}, "") // a flip-book is of groups alone
	found := func(sought string, means []string) bool {
		first := g.Best(sought)
		if slices.Contains(means, effect.FlipBook) {
			first = group.Best(sought)
		}
		kind := ""
		for _, m := range means {
			if m == doc.Entrance || m == doc.Exit {
				kind = m
			}
		}
		return slices.ContainsFunc(first[:min(3, len(first))], func(c gallery.Card) bool {
			return slices.Contains(means, c.Effect) && (kind == "" || c.Kind == kind || c.Kind == doc.MotionPath)
		})
	}
	n, right, wrong, forgiven := 0, 0, 0, 0
	for line := range strings.Lines(string(raw)) {
		sought, means, ok := strings.Cut(strings.TrimSpace(line), ": ")
		if !ok || strings.HasPrefix(line, "#") {
			continue
		}
		n++
		if found(sought, strings.Fields(means)) {
			right++
		} else {
			t.Logf("%q finds %v first", sought, names(g.Best(sought)))
		}
		if w := strings.Fields(sought)[0]; len(w) > 4 {
			wrong++
			i := len(w) / 2
			if found(strings.Replace(sought, w, w[:i]+string(w[i+1])+string(w[i])+w[i+2:], 1), strings.Fields(means)) {
				forgiven++
			}
		}
	}
	if n < 120 || right*100 < 95*n || forgiven*100 < 85*wrong {
		t.Errorf("of %d words %d find theirs; with two letters swapped %d of %d", n, right, forgiven, wrong)
	}
	if got := g.Best(strings.Repeat("spin ", 2000)); len(got) == 0 || got[0].Effect != effect.Spin {
		t.Error("10,000 letters find nothing")
	}
	if len(g.Best("qqqq")) > 0 || g.View("qqqq").First != -1 {
		t.Error("what means nothing finds something")
	}
}

func names(cards []gallery.Card) (out []string) {
	for _, c := range cards[:min(4, len(cards))] {
		out = append(out, c.Name)
	}
	return
}

// Every card has a small film in which something happens, for a shape, a text, a group and a layer in one; the document is not touched. What is used
// comes first the next time, and what is only looked at does not.
func TestEveryCardMoves(t *testing.T) {
	s := studio(t)
	before, _ := doc.Encode(s.Document())
	for _, thread := range []string{"box", "words", "group", "inner"} {
		v := s.OpenGallery(rest, []string{thread}, "")
		cards := 0
		for _, r := range v.Rows {
			for _, c := range r.Cards {
				cards++
				seen := map[string]bool{}
				for k := range 12 {
					l := s.SmallFrame(c.At, float64(c.Length)*float64(k)/12, 0.2)
					if l == nil {
						t.Fatalf("%s of %s has no small film", c.Name, thread)
					}
					seen[digest(l)] = true
					for _, key := range keys(l) {
						if s.OutlineOf(key) == nil {
							t.Fatalf("%s of %s names an outline that there is not", c.Name, thread)
						}
					}
				}
				if len(seen) < 2 {
					t.Errorf("%s of %s: nothing happens", c.Name, thread)
				}
			}
		}
		if cards < 45 {
			t.Errorf("%s is offered %d moves", thread, cards)
		}
	}
	if after, _ := doc.Encode(s.Document()); string(before) != string(after) {
		t.Error("the gallery has changed the document")
	}
	first := func() string { return s.OpenGallery(rest, []string{"box"}, "").Rows[0].Cards[0].Effect }
	s.Watch(session.Watched{Moment: rest, Threads: []string{"box"}})
	s.Try("move.add", []byte(`{"threads":["box"],"kind":"entrance","effect":"iris"}`), false)
	if from, to, ok := s.Tried(); !ok || to-from != 700 {
		t.Errorf("what is tried goes on from %d to %d", from, to)
	}
	if got := first(); got != effect.Fade {
		t.Errorf("looked at alone, %s is first", got)
	}
	s.ClearDraft()
	if _, err := s.Run("move.add", []byte(`{"threads":["box"],"kind":"entrance","effect":"iris"}`), session.Row{}, false); err != nil {
		t.Fatal(err)
	}
	if got := first(); got != effect.Iris {
		t.Errorf("an iris was added, and %s is first", got)
	}
	if v := s.OpenPages(1); len(v.Rows) != 1 || len(v.Rows[0].Cards) < 8 || s.SmallFrame(3, 500, 0.2) == nil {
		t.Errorf("transitions: %+v", v)
	}
	if v := s.OpenPages(0); len(v.Rows) != 0 {
		t.Error("there are transitions into the first scene")
	}
}

func digest(l *frame.List) string {
	var b strings.Builder
	for _, n := range l.Numbers {
		b.WriteString(strings.TrimSpace(string(rune(int(n*10)%50000 + 50001))))
	}
	return b.String()
}

func keys(l *frame.List) (out []uint32) {
	for c, n := 0, 0; c < len(l.Codes); {
		if l.Codes[c] == display.OpFill {
			out = append(out, l.Codes[c+1])
		}
		if display.Holds(l.Codes[c]) || l.Codes[c] == display.OpEnd || l.Codes[c] == display.OpNext {
			return // what is inside others is named by the same stores
		}
		var ok bool
		if c, n, ok = display.Skip(l.Codes, l.Numbers, c, n); !ok {
			return
		}
	}
	return
}
