package delivery_test

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

// What is said of a film for people who do not see it are its words, scene by scene, each once; as markup it is well formed whatever they are, names the
// file and its still, and lets nothing move by itself that ought not to.
func TestFilmsAreDescribedAndEmbedded(t *testing.T) {
	p := doc.NewProject("p", "p", 640, 360, "s0")
	second := doc.NewScene("s1", "second")
	p.Film.Scenes = append(p.Film.Scenes, second)
	say := func(s *doc.Scene, id, words string) {
		s.Layers = append(s.Layers, &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"},
			Text: &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: words, Family: "x", Weight: 400, Size: 20}}}})
	}
	say(p.Film.Scenes[0], "a", "Kite \"Day\"\n& <more>")
	say(p.Film.Scenes[0], "b", "noon")
	say(second, "c", "noon")
	say(second, "d", strings.Repeat("long tails ", 40))
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	plan := func(a delivery.Ask) delivery.Plan {
		o, err := delivery.Of(f, a)
		if err != nil {
			t.Fatal(err)
		}
		return o
	}
	if got := plan(delivery.Ask{Format: delivery.PNG, Scene: 1}).Describe(f); got != `Kite "Day" & <more>, noon` {
		t.Errorf("the first scene says %s", got)
	}
	whole := plan(delivery.Ask{Format: delivery.GIF}).Describe(f)
	if n := len([]rune(whole)); n > 240 || n < 220 || !strings.HasSuffix(whole, "tails…") || strings.Count(whole, "noon") != 1 {
		t.Errorf("%d characters: %s", n, whole)
	}
	for format, want := range map[string]string{delivery.MP4: "video", delivery.Clear: "video", delivery.GIF: "picture", delivery.WebP: "picture", delivery.PNG: "img", delivery.SVG: "picture", delivery.HTML: "iframe"} {
		name := `a "b" & c.` + delivery.Ending(format)
		d := xml.NewDecoder(strings.NewReader(strings.NewReplacer(" controls muted loop playsinline", "", `">`+"\n", `"/>`+"\n").Replace(plan(delivery.Ask{Format: format}).Markup(f, name))))
		d.Strict = true
		found := map[string]string{}
		first := ""
		for {
			token, err := d.Token()
			if err == io.EOF {
				break
			}
			if err != nil {
				t.Fatalf("%s: %v", format, err)
			}
			if s, ok := token.(xml.StartElement); ok {
				if first == "" {
					first = s.Name.Local
				}
				for _, a := range s.Attr {
					found[a.Name.Local] = a.Value
				}
			}
		}
		if first != want || found["src"] != name || found["width"] != "640" || found["alt"]+found["aria-label"]+found["title"] != whole && format != delivery.PNG || strings.Contains(plan(delivery.Ask{Format: format}).Markup(f, name), "autoplay") {
			t.Errorf("%s: %s with %v", format, first, found)
		}
		if still := found["srcset"] + found["poster"]; format != delivery.PNG && format != delivery.HTML && still != `a "b" & c.png` {
			t.Errorf("%s: its still is %q", format, still)
		}
	}
	if plan(delivery.Ask{Format: delivery.ProRes}).Markup(f, "x.mov") != "" {
		t.Error("what browsers do not show has markup")
	}
}
