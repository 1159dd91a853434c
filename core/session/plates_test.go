package session_test

import (
	"image/color"
	"math"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/ink"
	"capstan/core/paint"
	"capstan/core/scope"
)

// What cannot be read is mended by the words, where a tone of theirs, white or ink is enough, and the plate stays; else by the plate.
func TestWordsAreMendedBeforeTheirPlate(t *testing.T) {
	for _, c := range []struct{ words, plate, mends string }{
		{"#d8573a", "#f0ddb2", "tone"}, {"#8fa8a1", "#0c2523", ""}, {"#808080", "#767676", "#ffffff"}, {"#fffdf8", "#f6f2e9", "tone"},
	} {
		l := words("t", "Kite Day", 160, 60, 40)
		l.Fill.Colour, l.Text.Plate = c.words, &doc.Plate{Colour: c.plate}
		v := open(t, with(l)).Selection(rest, []string{"t"})[0].Plate
		if c.mends == "" {
			if v.Fix != "" || v.Words != "" {
				t.Errorf("%s on %s: %+v", c.words, c.plate, v)
			}
			continue
		}
		mended, err := paint.Parse(v.Words)
		on, _ := paint.Parse(c.plate)
		if err != nil || paint.Contrast(mended, on) < 4.5 || c.mends != "tone" && paint.Contrast(mended, on) < 4.5 {
			t.Errorf("%s on %s is mended by %q", c.words, c.plate, v.Words)
		}
		if c.mends == "tone" && !slices.Contains(ink.Tones(c.words), v.Words) {
			t.Errorf("%s on %s: %s is no tone of the words", c.words, c.plate, v.Words)
		}
	}
}

func TestAPlateIsPutBehindTheWordsInAReadableToneOfWhatLiesBehind(t *testing.T) {
	l := words("t", "Kite Day\nat the quay", 160, 60, 40)
	l.Fill.Colour = "#f6f2e9"
	p := with(l, words("u", "again", 160, 200, 20))
	p.Film.Scenes[0].Background.Colour = "#9cc9d8"
	s := open(t, p)
	want(t, s, rest, "text.plate", `{"threads":["t"],"on":true,"behind":"#9cc9d8"}`)
	v := layerOf(s, "t").Text.Plate
	if v == nil || v.Padding == 0 {
		t.Fatalf("plate %+v", v)
	}
	a, _ := paint.Parse(v.Colour)
	b, _ := paint.Parse("#f6f2e9")
	if k := paint.Contrast(a, b); k < 4.5 {
		t.Errorf("words on %s: contrast %v", v.Colour, k)
	}
	if c := s.Selection(rest, []string{"t"})[0].Plate; c == nil || c.Ratio < 4.5 || c.Fix != "" {
		t.Errorf("it says %+v", c)
	}
	// One for each line: beside the shorter line, the page shows.
	img := shotOf(t, s, rest)
	sky := color.RGBA{0x9c, 0xc9, 0xd8, 255}
	plate := color.RGBA{uint8(math.Round(a.R * 255)), uint8(math.Round(a.G * 255)), uint8(math.Round(a.B * 255)), 255}
	box := s.Selection(rest, []string{"t"})[0].Box
	wide := int(box[2] / 2)
	if c := img.RGBAAt(160, 60-4); c != plate {
		t.Errorf("above the words %v, want the plate %v", c, plate)
	}
	left := 0
	for x := 160 - wide - 20; x < 160; x++ {
		if img.RGBAAt(x, 80) == sky {
			left = x
		}
	}
	below := 0
	for x := 160 - wide - 20; x < 160; x++ {
		if img.RGBAAt(x, 125) == sky {
			below = x
		}
	}
	if left == below {
		t.Error("both lines have one plate")
	}
	want(t, s, rest, "text.plate", `{"threads":["t"],"patch":{"whole":true}}`)
	img = shotOf(t, s, rest)
	if img.RGBAAt(160-wide, 80) != plate || img.RGBAAt(160-wide, 125) != plate {
		t.Error("one plate does not lie behind both lines")
	}
	// A bad tone is told, with the nearest good one.
	want(t, s, rest, "text.plate", `{"threads":["t"],"patch":{"colour":"#e8e0d0"}}`)
	c := s.Selection(rest, []string{"t"})[0].Plate
	if c == nil || c.Ratio > 1.5 || c.Fix == "" {
		t.Fatalf("it says %+v", c)
	}
	fix, _ := paint.Parse(c.Fix)
	if k := paint.Contrast(fix, b); k < 4.5 {
		t.Errorf("the tone it offers, %s, has %v", c.Fix, k)
	}
	// The last plate comes back, for another text.
	want(t, s, rest, "text.plate", `{"threads":["t"],"on":false}`)
	want(t, s, rest, "text.plate", `{"threads":["u"],"on":true,"behind":"#ffffff"}`)
	if v := layerOf(s, "u").Text.Plate; v.Colour != "#e8e0d0" || !v.Whole {
		t.Errorf("the plate that came back: %+v", v)
	}
}

// A text on a plate fades as one: half-way, nothing of the page shows through between words and plate twice over.
func TestAPlateFadesWithItsWordsAsOne(t *testing.T) {
	for _, unit := range []string{"", doc.ByWord} {
		l := words("t", "Kite Day", 160, 80, 60)
		l.Fill.Colour = "#000000"
		l.Text.Plate = &doc.Plate{Colour: "#000000", Padding: 10}
		l.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.Fade, Easing: "linear", Duration: 1000, Start: doc.Start{When: doc.AtTime}, Unit: unit}}
		s := open(t, with(l))
		img := shotOf(t, s, scope.Moment{Time: 500})
		if unit == "" {
			seen := map[uint8]bool{}
			for x := 120; x < 200; x++ {
				seen[img.RGBAAt(x, 110).R] = true
			}
			if len(seen) > 2 {
				t.Errorf("%d shades of one colour half-way", len(seen))
			}
			continue
		}
		if c := img.RGBAAt(160, 75); c.R > 10 {
			t.Errorf("while its words come, the plate is %v", c)
		}
	}
}

func TestSplitTextsKeepTheirPlate(t *testing.T) {
	l := words("t", "Kite Day", 160, 80, 60)
	l.Text.Plate = &doc.Plate{Colour: "#17403c", Padding: 10, Corner: 8}
	s := open(t, with(l))
	before := shotOf(t, s, rest)
	want(t, s, rest, "text.split", `{"threads":["t"],"unit":"word"}`)
	if n := differs(before, shotOf(t, s, rest), 20); n > 4 {
		t.Errorf("%d pixels differ", n)
	}
	if g := layerOf(s, "t"); len(g.Children) != 3 || g.Children[0].Name != "Plate" {
		t.Errorf("%d layers", len(g.Children))
	}
}
