package edit

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

func settings(runs []doc.Run) (out []string) {
	for _, r := range runs {
		out = append(out, r.Text+"/"+r.Colour)
	}
	return
}

// What stays of the words keeps its colour, whatever is typed where.
func TestWordsKeepTheirSettingWhileTheyAreTyped(t *testing.T) {
	runs := []doc.Run{{Text: "Kite ", Colour: "red"}, {Text: "Day", Colour: "blue"}, {Text: " at noon", Colour: "green"}}
	for _, c := range []struct{ now, want string }{
		{"Kite Day at noon", "Kite /red Day/blue  at noon/green"},
		{"Kites Day at noon", "Kites /red Day/blue  at noon/green"},
		{"Kite Days at noon", "Kite /red Days/blue  at noon/green"},
		{"Kite Dawn at noon", "Kite /red Dawn/blue  at noon/green"},
		{"Kite at noon", "Kite /red at noon/green"},
		{"My Kite Day at noon", "My Kite /red Day/blue  at noon/green"},
		{"Kite Day at noon!", "Kite /red Day/blue  at noon!/green"},
		{"", "/red"},
		{"x", "x/red"},
	} {
		got := ""
		for i, s := range settings(reworded(runs, []rune(c.now))) {
			if i > 0 {
				got += " "
			}
			got += s
		}
		if got != c.want {
			t.Errorf("%q: %s, want %s", c.now, got, c.want)
		}
	}
}

func TestAStretchOfATextHasASettingOfItsOwn(t *testing.T) {
	p := doc.NewProject("p", "p", 320, 240, "s")
	p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "t", Thread: "t", Name: "t", Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"},
		Text: &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: "Kite Day at noon", Family: "Archivo", Weight: 400, Size: 20}}}}}
	do := func(c string) *doc.Text {
		t.Helper()
		k, err := Read([]byte(c))
		if err != nil {
			t.Fatal(err)
		}
		q, _, err := Apply(p, k, frame.Assets{Fonts: &text.Book{}})
		if err != nil {
			t.Fatal(err)
		}
		p = q
		return p.Film.Scenes[0].Layers[0].Text
	}
	v := do(`{"op":"text.style","ids":["t"],"from":5,"to":8,"patch":{"weight":800,"colour":"#d8573a"}}`)
	if len(v.Runs) != 3 || v.Runs[1].Text != "Day" || v.Runs[1].Weight != 800 || v.Runs[0].Weight != 400 || v.Runs[2].Text != " at noon" || v.Runs[2].Colour != "" {
		t.Errorf("%+v", v.Runs)
	}
	// Across two runs, and back to one.
	v = do(`{"op":"text.style","ids":["t"],"from":3,"to":7,"patch":{"size":40}}`)
	if len(v.Runs) != 5 || v.Runs[1].Text != "e " || v.Runs[2].Text != "Da" || v.Runs[2].Size != 40 || v.Runs[3].Size != 20 {
		t.Errorf("%+v", v.Runs)
	}
	v = do(`{"op":"text.style","ids":["t"],"patch":{"size":20,"weight":400,"colour":null}}`)
	if len(v.Runs) != 1 || v.String() != "Kite Day at noon" {
		t.Errorf("%+v", v.Runs)
	}
	// Beyond its end there is nothing to set.
	v = do(`{"op":"text.style","ids":["t"],"from":90,"to":99,"patch":{"size":90}}`)
	if len(v.Runs) != 1 || v.Runs[0].Size != 20 {
		t.Errorf("%+v", v.Runs)
	}
}
