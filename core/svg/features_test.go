package svg_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/likeness"
	"capstan/core/svg"
	"capstan/core/words"
)

// One drawing a feature, as librsvg paints it; none of them loses anything.
func TestFeaturesLookAsLibrsvgPaintsThem(t *testing.T) {
	for name, inside := range map[string]string{
		"shapes":          `<rect x="5" y="5" width="30" height="20" fill="teal"/><rect x="40" y="5" width="40" height="30" rx="12" ry="6" fill="#d8573a"/><circle cx="25" cy="60" r="15"/><ellipse cx="70" cy="60" rx="20" ry="10" fill="navy"/><polygon points="10,95 30,80 50,95" fill="olive"/><polyline points="60,95 75,80 90,95" fill="none" stroke="purple" stroke-width="3"/><line x1="5" y1="45" x2="95" y2="42" stroke="gray" stroke-width="2"/>`,
		"path commands":   `<path fill="#3f7f86" d="M10 10h30v20H10zm50 0c10-10 30 0 30 20s-10 10-20 10T60 30zM20 60a15 10 30 1 1 20 20L20 90Q5 80 20 60zM60.5.5"/><path d="M60 60 s10-20 30 0 0 30-30 30z" fill="#d8573a"/>`,
		"compact numbers": `<path d="M10-.5.5 20l1e1.5.5.5a5 5 0 0120 10.5 5 5 0 11-20-5z" transform="translate(10,20)"/>`,
		"groups":          `<g transform="translate(20 10) rotate(20)" fill="#d8573a"><g transform="scale(1.5,0.8)"><rect width="30" height="20"/></g><circle cx="40" cy="50" r="12" fill="#17403c"/></g><rect x="60" y="60" width="20" height="20" transform="skewX(20)" fill="#e0a03a"/>`,
		"a style":         `<style>.a{fill:#d8573a}#b,g > .c{fill:rgb(20,120,90)}g rect.d{fill:hsl(210 60% 40%) !important}circle{fill:orange}</style><rect class="a" width="40" height="40"/><rect id="b" x="50" width="40" height="40"/><g><circle class="c" cx="20" cy="70" r="18"/><rect class="d" style="fill:red" x="50" y="50" width="40" height="40"/></g>`,
		"inheritance":     `<g fill="currentColor" color="#b5402a" stroke="#17403c" stroke-width="4"><rect x="10" y="10" width="30" height="30"/><rect x="55" y="10" width="30" height="30" color="teal"/><g fill="inherit" stroke="none"><circle cx="30" cy="70" r="20"/></g></g>`,
		"strokes":         `<g fill="none" stroke="#17403c"><path d="M10 20L40 10 60 30" stroke-width="8" stroke-linecap="round" stroke-linejoin="round"/><path d="M10 50L40 40 60 60" stroke-width="8" stroke-linecap="square" stroke-linejoin="bevel"/><path d="M10 80h80" stroke-width="5" stroke-dasharray="12 5 3" stroke-dashoffset="4"/><path d="M70 10L90 20 70 26" stroke-width="5" stroke-miterlimit="1.5"/></g>`,
		"pressed strokes": `<ellipse cx="10" cy="20" rx="7" ry="12" transform="scale(5,2)" fill="#f3dca6" stroke="#d8573a" stroke-width="3"/>`,
		"even-odd":        `<path fill-rule="evenodd" d="M50 5L21 95 97 39H3L79 95Z" fill="#e0a03a" stroke="#17403c" stroke-width="2"/>`,
		"gradients":       `<defs><linearGradient id="a" x1="0" x2="1" y2="0.5"><stop offset="0" stop-color="#d8573a"/><stop offset="60%" stop-color="#f3dca6" stop-opacity="0.6"/><stop offset="1" stop-color="teal"/></linearGradient><linearGradient id="b" href="#a" gradientUnits="userSpaceOnUse" x1="10" y1="60" x2="50" y2="90" gradientTransform="rotate(10)"/><radialGradient id="c" cx="0.4" cy="0.4" r="0.6" fx="0.3" fy="0.3"><stop stop-color="white"/><stop offset="1" stop-color="#17403c"/></radialGradient></defs><rect x="5" y="5" width="40" height="40" fill="url(#a)"/><rect x="5" y="55" width="45" height="40" fill="url(#b)"/><circle cx="75" cy="50" r="22" fill="url(#c)"/>`,
		"use":             `<defs><g id="x"><rect width="20" height="20"/><circle cx="20" cy="20" r="8" fill="orange"/></g><symbol id="s" viewBox="0 0 10 10"><path d="M0 0h10L5 10z"/></symbol></defs><use href="#x" x="5" y="5" fill="teal"/><use href="#x" x="5" y="50" fill="#d8573a" transform="rotate(-10)"/><use href="#s" x="50" y="10" width="40" height="30"/><use href="#s" x="50" y="55" width="30" height="40" fill="purple"/>`,
		"opacity":         `<rect width="60" height="60" fill="#d8573a" fill-opacity="0.5"/><g opacity="0.6"><rect x="30" y="30" width="50" height="50" fill="teal"/><circle cx="75" cy="75" r="20" fill="navy"/></g>`,
		"nested":          `<svg x="10" y="10" width="40" height="80" viewBox="0 0 10 10"><rect width="10" height="10" fill="teal"/></svg><svg x="55" y="10" width="40" height="80" viewBox="0 0 10 10" preserveAspectRatio="none"><circle cx="5" cy="5" r="5" fill="#d8573a"/></svg>`,
		"clip paths":      `<clipPath id="k"><circle cx="40" cy="40" r="30"/></clipPath><clipPath id="e" clipPathUnits="objectBoundingBox"><rect x="0.2" y="0.2" width="0.5" height="0.6"/></clipPath><g clip-path="url(#k)"><rect width="60" height="60" fill="#d8573a"/><rect x="30" y="30" width="60" height="60" fill="teal"/></g><rect x="60" y="60" width="36" height="36" clip-path="url(#e)" fill="navy"/>`,
		"masks":           `<mask id="m"><rect x="20" y="20" width="60" height="40" rx="10" fill="white"/></mask><g mask="url(#m)"><rect width="100" height="100" fill="#3f7f86"/><circle cx="50" cy="50" r="30" fill="#f3dca6"/></g>`,
		"units":           `<rect x="10%" y="0.1in" width="1cm" height="10mm" fill="teal"/><circle cx="50%" cy="70%" r="10pt" fill="#d8573a" stroke="#000" stroke-width="0.5em" font-size="4"/>`,
		"hidden":          `<g visibility="hidden"><rect width="50" height="50"/><circle cx="60" cy="60" r="20" visibility="visible" fill="teal"/></g><g display="none"><rect width="100" height="100" fill="red"/></g>`,
		"a switch":        `<switch><rect systemLanguage="xx" width="90" height="90" fill="red"/><circle cx="50" cy="50" r="30" fill="teal"/></switch>`,
	} {
		text := `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 100 100" width="100" height="100">` + inside + `</svg>`
		got, d, err := painted(text)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if s := likeness.SSIM(got, librsvg(t, text)); s < 0.99 {
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
<rect id="plate" width="50" height="50" fill="url(#p) teal" filter="url(#f)" onclick="x()"/>
<image href="https://example.org/x.png" width="10" height="10"/><use href="other.svg#a"/><use href="#gone"/>
<foreignObject width="10" height="10"><b>x</b></foreignObject><circle r="5" mix-blend-mode="hue" style="mix-blend-mode:hue"><animate attributeName="r" to="9" dur="1s"/></circle>
<path d="M0 0L10 10 20 oops"/><filter id="f"><feTurbulence/></filter><pattern id="p" width="5" height="5"><circle r="2"/></pattern></svg>`
	_, d, err := painted(text)
	if err != nil {
		t.Fatal(err)
	}
	said := fmt.Sprint(d.Lost)
	for _, want := range []string{"a script", "what it does when something happens", "a pattern “plate”, line 2", "a filter", "a picture from elsewhere", "something from elsewhere", "a reference to what is not there", "a web page in it", "its own animation", "a blend “hue”", "what follows a mistake in path data"} {
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

func FuzzRead(f *testing.F) {
	f.Add(`<svg viewBox="0 0 9 9"><style>a>.b{fill:red}</style><path class="b" d="M0 0a1 1 0 015 5z" transform="rotate(5)"/></svg>`)
	f.Add(`<svg><linearGradient id="a"><stop offset="5%"/></linearGradient><g clip-path="url(#c)" mask="url(#m)"><use href="#x"/></g><rect id="x" width="1e3" height="5" fill="url(#a)"/></svg>`)
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
