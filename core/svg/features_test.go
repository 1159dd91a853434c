package svg_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/likeness"
	"capstan/core/svg"
	"capstan/core/svg/svgtest"
	"capstan/core/words"
)

// elsewhere are features of which librsvg 2.54 knows only a part; Chromium is asked of all (e2e).
var elsewhere = []string{"clipped clips", "patterns", "shadows"}

// One drawing a feature, as librsvg paints it; none of them loses anything.
func TestFeaturesLookAsLibrsvgPaintsThem(t *testing.T) {
	for name, text := range svgtest.Features() {
		got, d, err := painted(text)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if slices.Contains(elsewhere, name) {
			continue
		}
		if s := likeness.SSIM(got, byLibrsvg(t, text)); s < 0.99 {
			t.Errorf("%s: SSIM %.4f", name, s)
		}
		if len(d.Lost) > 0 {
			t.Errorf("%s loses %v", name, d.Lost)
		}
	}
}

// Rectangles and ellipses become ours where they are exactly that, turned or mirrored, and paths where they are slanted; names stay.
func TestShapesBecomeOurs(t *testing.T) {
	for text, want := range map[string]string{
		`<rect id="card" x="10" y="20" width="30" height="10" rx="2"/>`:                   "card rectangle 25 25 30 10 0 2",
		`<circle cx="50" cy="50" r="20" transform="rotate(30 50 50)"/>`:                   "Circle ellipse 50 50 40 40 30 0",
		`<ellipse cx="10" cy="10" rx="8" ry="4" transform="scale(2 3)"/>`:                 "Ellipse ellipse 20 30 32 24 0 0",
		`<rect width="10" height="10" transform="translate(50 50) rotate(45) scale(2)"/>`: "Rectangle rectangle 50 64.1421 20 20 45 0",
		`<rect width="10" height="10" transform="skewX(20)"/>`:                            "Rectangle path",
		`<rect width="10" height="10" rx="3" ry="1"/>`:                                    "Rectangle path",
		`<circle r="5" transform="scale(1 2)" stroke="red"/>`:                             "Circle path",
		`<path id="wing" d="M0 0L10 0 5 8z"/>`:                                            "wing path",
		`<path id="Near_wing_x26__tail" d="M0 0L10 0 5 8z"/>`:                             "Near wing& tail path",
	} {
		d, err := svg.Read(strings.NewReader(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="-100 -100 200 200" width="200" height="200">`+text+`</svg>`), svg.Options{ID: ids()})
		if err != nil {
			t.Fatal(err)
		}
		l := d.Group.Children[0]
		got := fmt.Sprint(l.Name, " ", l.Kind)
		if l.Kind != doc.PathKind {
			got += fmt.Sprint(" ", l.Place.X, " ", l.Place.Y, " ", l.Place.W, " ", l.Place.H, " ", l.Place.Turn, " ", l.Corner)
		}
		if got != want {
			t.Errorf("%s became %s, not %s", text, got, want)
		}
	}
}

// What cannot be kept is told, with where it is; scripts and what lies elsewhere leave no trace.
func TestWhatIsLostIsTold(t *testing.T) {
	text := `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" onload="alert(1)"><script>alert(2)</script>
<rect id="plate" width="50" height="50" stroke="url(#p)" filter="url(#f)" onclick="x()"/>
<image href="https://example.org/x.png" width="10" height="10"/><use href="other.svg#a"/><use href="#gone"/>
<foreignObject width="10" height="10"><b>x</b></foreignObject><circle r="5" mix-blend-mode="hue" style="mix-blend-mode:hue"><animate attributeName="r" to="9" dur="1s"/></circle>
<path d="M0 0L10 10 20 oops"/><filter id="f"><feTurbulence/></filter><pattern id="p" width="5" height="5"><circle r="2"/></pattern></svg>`
	_, d, err := painted(text)
	if err != nil {
		t.Fatal(err)
	}
	said := strings.NewReplacer("{", "", "}", "").Replace(fmt.Sprint(d.Lost))
	for _, want := range []string{"a script", "what it does when something happens", "a pattern along a line “plate”, line 2", "a filter", "a picture from elsewhere", "something from elsewhere", "a reference to what is not there", "a web page in it", "its own animation", "a blend “hue”", "what follows a mistake in path data"} {
		if !strings.Contains(said, want) {
			t.Errorf("%s is not told in %s", want, said)
		}
	}
	if strings.Contains(fmt.Sprint(*d.Group), "alert") {
		t.Error("a script has left a trace")
	}
}

// What is damaged, endless or too much ends soon, and in words.
func TestBadDrawingsEndInWords(t *testing.T) {
	wrap := func(s string) string {
		return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">` + s + `</svg>`
	}
	laughs := `<g id="a0"><rect width="1" height="1"/></g>`
	for i := range 12 {
		laughs += fmt.Sprintf(`<g id="a%d">%s</g>`, i+1, strings.Repeat(fmt.Sprintf(`<use href="#a%d"/>`, i), 10))
	}
	for name, of := range map[string]struct{ text, key string }{
		"uses without end":   {wrap(laughs), "drawing.many"},
		"itself":             {wrap(`<g id="a"><use href="#a"/><use href="#b"/></g><g id="b"><use href="#a"/></g>`), "drawing.blank"},
		"very deep":          {wrap(strings.Repeat("<g>", 10000) + strings.Repeat("</g>", 10000)), "drawing.deep"},
		"entities":           {`<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]>` + wrap(`<text>&b;</text>`), "drawing.damaged"},
		"names of texts":     {`<!DOCTYPE svg [<!ENTITY a "` + strings.Repeat("a", 90) + `">]>` + wrap(`<text>`+strings.Repeat("&a;", 1_000_000)+`</text>`), "drawing.many"},
		"gradients in rings": {wrap(`<linearGradient id="a" href="#b"/><linearGradient id="b" href="#a"/><rect width="9" height="9" fill="url(#a)"/>`), "drawing.blank"},
		"truncated":          {`<svg xmlns="http://www.w3.org/2000/svg"><rect width="4"`, "drawing.damaged"},
		"no drawing":         {`<html><body/></html>`, "drawing.none"},
		"nothing":            {``, "drawing.none"},
		"blank":              {wrap(``), "drawing.blank"},
		"no size":            {`<svg xmlns="http://www.w3.org/2000/svg" width="0" height="5"><rect width="4" height="4"/></svg>`, "drawing.size"},
		"no numbers":         {wrap(`<path d="MNaN NaN L 1e999 5"/><rect width="nan" height="3"/>`), "drawing.blank"},
		"many elements":      {wrap(strings.Repeat(`<rect/>`, 60000)), "drawing.many"},
		"clips of clips":     {wrap(`<clipPath id="a"><use href="#g"/></clipPath><g id="g" clip-path="url(#a)"><rect width="5" height="5"/></g>`), "drawing.blank"},
	} {
		at := time.Now()
		_, _, err := painted(of.text)
		if !words.Is(err, of.key) {
			t.Errorf("%s: %v, not %s", name, err, of.key)
		}
		if d := time.Since(at); d > 5*time.Second {
			t.Errorf("%s takes %v", name, d)
		}
	}
}

// Names that drawing programs give to spaces of names are known.
func TestNamesOfSpacesAreKnown(t *testing.T) {
	_, d, err := painted(`<?xml version="1.0"?><!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd" [
		<!ENTITY ns_svg "http://www.w3.org/2000/svg">
		<!ENTITY elsewhere SYSTEM "file:///etc/hostname">
	]><svg xmlns="&ns_svg;" viewBox="0 0 9 9"><rect id="Sail" width="9" height="9"/></svg>`)
	if err != nil || len(d.Group.Children) != 1 || d.Group.Children[0].Name != "Sail" {
		t.Errorf("%v, %v", d, err)
	}
}

// What would take very long ends when it is asked to, soon, and says so; outlines too tangled for the even-odd rule are told instead.
func TestEndlessDrawingsAreStopped(t *testing.T) {
	many := func(n int, f func(i int) string) string {
		var b strings.Builder
		for i := range n {
			b.WriteString(f(i))
		}
		return b.String()
	}
	zig := func(n int) string {
		return "M0 0" + many(n, func(i int) string { return fmt.Sprintf("L%d %d", i*37%100, i*53%97) })
	}
	rect := `<rect width="100" height="100" fill="url(#p)"/>`
	for name, of := range map[string]struct{ inside, key string }{
		"tiles":              {`<pattern id="p" width="2" height="2" patternUnits="userSpaceOnUse">` + many(300, func(i int) string { return fmt.Sprintf(`<circle cx="%d" cy="1" r="3"/>`, i%3) }) + `</pattern>` + strings.Repeat(rect, 50), "drawing.slow"},
		"markers of markers": {`<marker id="a"><path d="` + zig(1000) + `" stroke="red" marker-mid="url(#b)"/></marker><marker id="b"><path d="` + zig(1000) + `" stroke="red"/></marker><path marker-mid="url(#a)" stroke="red" d="` + zig(1000) + `"/>`, "drawing.slow"},
		"boxes of boxes":     {`<clipPath id="k" clipPathUnits="objectBoundingBox"><rect width="1" height="1"/></clipPath>` + strings.Repeat(`<g clip-path="url(#k)">`, 200) + strings.Repeat(`<path d="M0 0L5 5 5 0z"/>`, 9000) + strings.Repeat("</g>", 200), "drawing.slow"},
		"tangles":            {strings.Repeat(`<path fill-rule="evenodd" d="`+zig(500)+`"/>`, 30), ""},
		"rules":              {`<style>` + many(20000, func(i int) string { return fmt.Sprintf(`g g .a%d{fill:red}`, i) }) + `</style>` + strings.Repeat(`<rect class="a" width="9" height="9"/>`, 1000), ""},
		"dashes":             {strings.Repeat(`<path d="M0 0L9000 9000" stroke="red" stroke-dasharray="0.001" transform="scale(1,0.5)"/>`, 100), ""},
	} {
		at := time.Now()
		_, err := svg.Read(strings.NewReader(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">`+of.inside+`</svg>`), svg.Options{ID: ids(), Stop: func() error {
			if time.Since(at) > 300*time.Millisecond {
				return words.New("drawing.slow")
			}
			return nil
		}})
		if took := time.Since(at); took > 3*time.Second || of.key == "" && err != nil && !words.Is(err, "drawing.slow") || of.key != "" && !words.Is(err, of.key) {
			t.Errorf("%s: %v after %v", name, err, took)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add(`<svg viewBox="0 0 9 9"><style>a>.b{fill:red}</style><path class="b" d="M0 0a1 1 0 015 5z" transform="rotate(5)"/></svg>`)
	f.Add(`<svg><linearGradient id="a"><stop offset="5%"/></linearGradient><g clip-path="url(#c)" mask="url(#m)"><use href="#x"/></g><rect id="x" width="1e3" height="5" fill="url(#a)"/></svg>`)
	f.Add(`<svg><style>{</style></svg>`)
	f.Fuzz(func(t *testing.T, text string) {
		d, err := svg.Read(strings.NewReader(text), svg.Options{ID: ids(), Page: [2]float64{200, 200}})
		if err != nil {
			if _, ok := err.(*words.Fault); !ok {
				t.Errorf("%v is not in words", err)
			}
			return
		}
		if _, _, err := painted(text); err != nil {
			t.Errorf("what was read cannot be shown: %v", err)
		}
		_ = d
	})
}
