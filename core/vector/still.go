package vector

import (
	"fmt"
	"image"
	"math"
	"strings"
	"unicode"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/raster"
	"capstan/core/state"
)

// StillOptions say how a drawing is written.
type StillOptions struct {
	Box       geom.Box // page px: what of it is seen
	Words     bool     // texts as words, which need their families where they are shown; else as outlines
	Title     string
	Pictures  raster.Pictures                                                              // for what is painted
	Image     func(media string, mip int, colours *state.Colours) (data string, err error) // a picture as a data: address, its colours mapped where that is not nil
	PNG       func(img *image.RGBA) (data string, err error)                               // likewise, of what was painted
	MostBytes int                                                                          // refused above
	Stop      func() error                                                                 // asked often; what it returns ends the work
}

// stillScale is how many px a page px has where SVG has no words and something is painted.
const stillScale = 2

// Still writes what a list shows as one SVG that stands still. Groups and layers are elements with their names; layers that are as the document says are
// rectangles, ellipses and paths with strokes, as drawing programs have them. The same list and options give the same bytes.
func Still(f *frame.Film, list *frame.List, layers []frame.Stretch, o StillOptions) (string, error) {
	d := &f.Doc.Film
	box := geom.Box{Min: geom.Point{X: math.Floor(o.Box.Min.X), Y: math.Floor(o.Box.Min.Y)}, Max: geom.Point{X: math.Ceil(o.Box.Max.X), Y: math.Ceil(o.Box.Max.Y)}}
	w := &writer{film: f, total: 1, scale: stillScale, near: 0.02, own: "_", box: box, words: o.Words, taken: map[string]bool{}, stands: true,
		o:     Options{Width: stillScale * d.Width, Height: stillScale * d.Height, To: 1, Pictures: o.Pictures, Image: o.Image, PNG: o.PNG, MostBytes: o.MostBytes, Stop: o.Stop},
		names: map[string]string{}, shared: map[uint32]string{}, uses: map[uint32]int{}, known: map[string]string{}, counted: map[string]bool{}}
	items, err := read(list, layers)
	if err != nil {
		return "", err
	}
	top := &level{}
	top.look(items, 0, true)
	top.end(w.total)
	top.walk(func(t *track) {
		if t.op == display.OpFill || t.op == display.OpClip {
			w.uses[t.reads[0].codes[0]]++
		}
	})
	var body, b strings.Builder
	if err := w.level(&body, top); err != nil {
		return "", err
	}
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" width="%s" height="%s">`+"\n",
		decimal(box.Min.X, 0), decimal(box.Min.Y, 0), decimal(box.W(), 0), decimal(box.H(), 0), decimal(box.W(), 0), decimal(box.H(), 0))
	if o.Title != "" {
		b.WriteString("<title>" + escaped(o.Title) + "</title>\n")
	}
	if w.defs.Len() > 0 {
		b.WriteString("<defs>\n" + w.defs.String() + "</defs>\n")
	}
	b.WriteString(body.String() + "</svg>\n")
	if b.Len() > o.MostBytes && o.MostBytes > 0 {
		return "", w.tooLarge()
	}
	return b.String(), nil
}

// named writes a layer as one element with its name.
func (w *writer) named(b *strings.Builder, t *track) error {
	outer := w.layer
	if w.layer = t.layer; len(t.layer.Layer.Children) > 0 {
		w.layer = nil
	}
	defer func() { w.layer = outer }()
	var inner strings.Builder
	if err := w.level(&inner, t.inside[0]); err != nil {
		return err
	}
	text := inner.String()
	if text == "" {
		return nil
	}
	name := w.name(t.layer.Layer.Name)
	if w.layer != nil && strings.Count(text, "\n") == 1 && !strings.HasPrefix(text, "<g>") { // one element
		tag := strings.IndexAny(text, " >")
		b.WriteString(text[:tag] + name + text[tag:])
		return nil
	}
	b.WriteString("<g" + name + ">\n" + text + "</g>\n")
	return nil
}

// name is what says a layer's name: an id with low lines for blanks, which no other element has, and all of it where that is not the same.
func (w *writer) name(s string) string {
	id := strings.Map(func(r rune) rune {
		switch {
		case unicode.IsSpace(r):
			return '_'
		case unicode.IsLetter(r) || unicode.IsDigit(r) || strings.ContainsRune("_-.", r):
			return r
		}
		return '-'
	}, strings.ToValidUTF8(strings.TrimSpace(s), ""))
	if id == "" || !unicode.IsLetter(rune(id[0])) && id[0] < 0x80 {
		id = "L" + id
	}
	base := id
	for n := 2; w.taken[id]; n++ {
		id = fmt.Sprint(base, "-", n)
	}
	w.taken[id] = true
	out := ` id="` + id + `"`
	if strings.ReplaceAll(id, "_", " ") != s {
		out += ` aria-label="` + escaped(s) + `"`
	}
	return out
}
