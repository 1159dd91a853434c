// Package vector writes films as what browsers play by themselves: one SVG whose elements are moved by CSS animations.
//
// It knows no effect and no move. The film is looked at every hundredth of a second, and as often between two looks as it takes to find to the
// millisecond when something comes, goes or jumps; what one primitive of the display list is at all these times becomes one element, and how each of its numbers
// changes becomes keyframes with easings, so few that nothing is farther from the film than a quarter of a pixel or a hundredth of a colour at any look. What
// SVG cannot say (perspective, grains) is painted, as often as the film has frames, and shown picture by picture.
package vector

import (
	"fmt"
	"hash/fnv"
	"image"
	"math"
	"strconv"
	"strings"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/state"
	"capstan/core/words"
)

// Options say what is written.
type Options struct {
	Width, Height int // px at which it is shown if nothing else is asked for
	From, To      int64
	Rest          int64 // ms it stands still at its end before it begins again
	Passes        int64 // how often it plays; 0: for ever
	Rate, RateDen int64 // frames a second, of what is painted
	Still         int64 // ms of the film: what is seen where motion is unwelcome
	Under         *frame.Paint
	Title, Says   string                                                                       // for people who cannot see it
	Mark          *image.RGBA                                                                  // lies over it; nil: nothing
	Pictures      raster.Pictures                                                              // for what is painted
	Image         func(media string, mip int, colours *state.Colours) (data string, err error) // a picture as a data: address, its colours mapped where that is not nil
	PNG           func(img *image.RGBA) (data string, err error)                               // likewise, of what was painted
	MostBytes     int                                                                          // refused above
	Stop          func() error                                                                 // asked often; what it returns ends the work
	Progress      func(share float64)                                                          // 0..1
}

// A Piece is a film as SVG.
type Piece struct {
	SVG     string
	Weights Weights
	still   string // of it: what shows the still to people who ask for little motion
}

// Weights are the bytes of what a piece is made of.
type Weights struct {
	Outlines, Moves, Pictures, Painted int
}

// step is how often the film is looked at, in ms.
const step = 10

// Write writes a part of a film as one SVG. The same film and options give the same bytes.
func Write(f *frame.Film, o Options) (*Piece, error) {
	w := &writer{film: f, o: o, from: float64(o.From), total: float64(o.To - o.From + o.Rest), scale: float64(o.Width) / float64(f.Doc.Film.Width),
		box: geom.EmptyBox(), names: map[string]string{}, shared: map[uint32]string{}, uses: map[uint32]int{}, known: map[string]string{}, counted: map[string]bool{}}
	w.near = 0.15 / max(1, w.scale)
	// At its very end nothing would be seen any more.
	w.o.Still = int64(min(max(float64(o.Still), w.from), w.from+w.total-1))
	w.own = ownName(f, &o)
	top, err := w.sample()
	if err != nil {
		return nil, err
	}
	top.walk(func(t *track) {
		if t.op == display.OpFill || t.op == display.OpClip {
			w.uses[t.reads[0].codes[0]]++
		}
	})
	var body strings.Builder
	if err := w.level(&body, top); err != nil {
		return nil, err
	}
	if err := w.mark(&body); err != nil {
		return nil, err
	}
	return w.finish(body.String())
}

// sample looks at the film.
func (w *writer) sample() (*level, error) {
	o, player := &w.o, w.film.Player()
	view := frame.View{Scale: w.scale, Under: o.Under}
	look := func(t motion.Instant) ([]item, error) { return read(player.At(t, view), nil) }
	top := &level{}
	before, err := look(motion.Millis(o.From))
	if err != nil {
		return nil, err
	}
	top.look(before, w.from, true)
	at := float64(o.From)
	// between looks where two looks cannot be joined, down to a millisecond.
	var between func(a, b float64, x, y []item) error
	between = func(a, b float64, x, y []item) error {
		if b-a <= 1 || !jumps(x, y) {
			return nil
		}
		m := math.Floor((a + b) / 2)
		if m <= a {
			m = math.Ceil((a + b) / 2)
		}
		if m <= a || m >= b {
			return nil
		}
		z, err := look(motion.Millis(int64(m)))
		if err != nil {
			return err
		}
		if err := between(a, m, x, z); err != nil {
			return err
		}
		top.look(z, m, false)
		return between(m, b, z, y)
	}
	k := int64(1)
	for at < float64(o.To) {
		next, whole := (math.Floor(at/step)+1)*step, false
		t := motion.Millis(int64(next))
		if f := motion.FrameTime(k, o.Rate, o.RateDen).Add(o.From); f.Ms() <= next+1e-9 {
			next, t, whole = f.Ms(), f, true
			k++
		}
		if next > float64(o.To) {
			next, t, whole = float64(o.To), motion.Millis(o.To), false
		}
		if next <= at {
			continue
		}
		now, err := look(t)
		if err != nil {
			return nil, err
		}
		if err := between(at, next, before, now); err != nil {
			return nil, err
		}
		if next < float64(o.To) || !jumps(before, now) { // at the very end a film that goes round shows its beginning again
			top.look(now, next, whole)
		}
		before, at = now, next
		if err := w.goes((at - w.from) / float64(o.To-o.From) / 2); err != nil {
			return nil, err
		}
	}
	top.end(w.from + w.total)
	return top, nil
}

func (w *writer) goes(share float64) error {
	if w.o.Progress != nil && share > w.done {
		w.done = share
		w.o.Progress(share)
	}
	if w.o.Stop != nil {
		return w.o.Stop()
	}
	return nil
}

// reduced shows the still to people who ask for little motion.
const reduced = "@media (prefers-reduced-motion:reduce){#%s *{animation:none!important}}\n"

// ownName is what all names of a piece begin with, so that several may stand in one page.
func ownName(f *frame.Film, o *Options) string {
	h := fnv.New32a()
	fmt.Fprint(h, f.Doc.ID, f.Doc.Name, o.Width, o.Height, o.From, o.To, o.Rest, o.Passes)
	return "k" + strconv.FormatInt(int64(h.Sum32()%(36*36*36)), 36) + "-"
}

func (w *writer) finish(body string) (*Piece, error) {
	d := &w.film.Doc.Film
	var b strings.Builder
	fmt.Fprintf(&b, `<svg id="%s" xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" width="%d" height="%d" role="img"`, w.own, d.Width, d.Height, w.o.Width, w.o.Height)
	if w.o.Says != "" {
		b.WriteString(` aria-label="` + escaped(w.o.Says) + `"`)
	}
	b.WriteString(">\n")
	if w.o.Title != "" {
		b.WriteString("<title>" + escaped(w.o.Title) + "</title>\n")
	}
	if w.o.Says != "" {
		b.WriteString("<desc>" + escaped(w.o.Says) + "</desc>\n")
	}
	passes := "infinite"
	if w.o.Passes > 0 {
		passes = fmt.Sprint(w.o.Passes)
	}
	// Only of its own: it may stand among other things in a page.
	fmt.Fprintf(&b, "<style>\n#%s *{animation:%ss linear %s both}\n%s%s</style>\n", w.own, decimal(w.total/1000, 3), passes, w.css.String(), fmt.Sprintf(reduced, w.own))
	b.WriteString("<defs>\n" + w.defs.String() + "</defs>\n" + body + "</svg>\n")
	w.weights.Moves += w.css.Len()
	if b.Len() > w.o.MostBytes && w.o.MostBytes > 0 {
		return nil, w.tooLarge()
	}
	return &Piece{b.String(), w.weights, fmt.Sprintf(reduced, w.own)}, nil
}

func (w *writer) tooLarge() error {
	if w.stands {
		return words.New("drawing.heavy", w.o.MostBytes>>20)
	}
	return words.New("export.piece", w.o.MostBytes>>20)
}

// page is the page's box, with all that is shown beside it.
func (w *writer) page() geom.Box {
	d := &w.film.Doc.Film
	return geom.Box{Max: geom.Point{X: float64(d.Width), Y: float64(d.Height)}}.Union(w.box)
}
