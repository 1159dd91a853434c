package vector

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/state"
)

// writer writes one piece.
type writer struct {
	film        *frame.Film
	o           Options
	from, total float64         // ms of the film
	scale       float64         // px of the piece a page px
	near        float64         // page px that nothing may be farther off
	box         geom.Box        // that is shown beside the page
	layer       *frame.Stretch  // that is being written and holds no others; nil: none
	words       bool            // texts are written as words
	tint        *state.Colours  // of the picture that is being written; nil: none
	taken       map[string]bool // names of layers
	stands      bool            // it is a drawing that stands still, not a piece that moves
	defs, css   strings.Builder
	names       map[string]string // of keyframes, by what they say
	known       map[string]string // of what lies in defs, by what it is
	uses        map[uint32]int    // how many elements show an outline
	shared      map[uint32]string // of those that lie in defs
	counted     map[string]bool   // pictures whose bytes were counted
	own         string            // what its names begin with
	ids         int
	done        float64 // share that was told
	weights     Weights
}

// element is what is said of one element.
type element struct {
	attributes strings.Builder
	style      []string
	moves      []move
}

// move is an animation of an element: its keyframes, and how often they go round in a pass of the piece.
type move struct {
	frames string
	rounds int
}

func (e *element) set(name, value string) { e.attributes.WriteString(" " + name + `="` + value + `"`) }

// open writes an element's begin, without its closing bracket.
func (w *writer) open(e *element, b *strings.Builder, tag string) {
	b.WriteString("<" + tag + e.attributes.String())
	style := e.style
	if len(e.moves) > 0 {
		names, lasts, counts, again := []string{}, []string{}, []string{}, false
		for _, m := range e.moves {
			again = again || m.rounds > 1
			names, lasts, counts = append(names, m.frames), append(lasts, decimal(w.total/1000/float64(m.rounds), 6)+"s"), append(counts, fmt.Sprint(w.o.Passes*int64(m.rounds)))
		}
		style = append(style, "animation-name:"+strings.Join(names, ","))
		if again {
			style = append(style, "animation-duration:"+strings.Join(lasts, ","))
		}
		if again && w.o.Passes > 0 {
			style = append(style, "animation-iteration-count:"+strings.Join(counts, ","))
		}
	}
	if len(style) > 0 {
		b.WriteString(` style="` + strings.Join(style, ";") + `"`)
	}
}

func (e *element) none() bool {
	return e.attributes.Len() == 0 && len(e.style) == 0 && len(e.moves) == 0
}

// id makes a name that is not used yet.
func (w *writer) id() string {
	w.ids++
	return w.own + strconv.FormatInt(int64(w.ids), 36)
}

// define puts something into defs once; text holds %s where its name stands.
func (w *writer) define(text string) string {
	if id, ok := w.known[text]; ok {
		return id
	}
	id := w.id()
	w.known[text] = id
	w.defs.WriteString(strings.Replace(text, "%s", id, 1) + "\n")
	return id
}

// frames makes keyframes once and returns their name.
func (w *writer) frames(text string) string {
	if id, ok := w.names[text]; ok {
		return id
	}
	id := w.id()
	w.names[text] = id
	w.css.WriteString("@keyframes " + id + "{" + text + "}\n")
	return id
}

// percent is a time as a share of the piece, fine enough for hundredths of a millisecond.
func (w *writer) percent(at float64) string { return w.percentOf(at, w.total) }

// percentOf is a time as a share of so many ms.
func (w *writer) percentOf(at, total float64) string {
	places := 3 + max(0, int(math.Ceil(math.Log10(total/1000))))
	return decimal(min(100, max(0, (at-w.from)/total*100)), min(7, places)) + "%"
}

// decimal writes a number with at most so many places.
func decimal(v float64, places int) string {
	s := strconv.FormatFloat(v, 'f', places, 64)
	if strings.ContainsRune(s, '.') {
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	}
	if s == "-0" {
		return "0"
	}
	return s
}

// px writes a length of the page, to a fiftieth of what may be off.
func (w *writer) px(v float64) string { return decimal(v, w.places()) }

func (w *writer) places() int { return min(5, max(1, int(math.Ceil(-math.Log10(w.near)))+1)) }

// escaped is a text as XML has it.
func escaped(s string) string {
	s = strings.Map(func(r rune) rune {
		if r < ' ' && r != '\n' && r != '\t' || r == 0xfffe || r == 0xffff {
			return ' '
		}
		return r
	}, strings.ToValidUTF8(s, ""))
	return strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", `"`, "&#34;").Replace(s)
}

// visible says when an element is seen.
func (w *writer) visible(e *element, spans []span) {
	shown := slices.Clone(spans)
	shown = slices.DeleteFunc(shown, func(s span) bool { return s.to <= s.from })
	if len(shown) == 1 && shown[0].from <= w.from && shown[0].to >= w.from+w.total {
		return
	}
	var at []float64
	var says []string
	put := func(t float64, what string) {
		if n := len(at); n > 0 && at[n-1] == t {
			says[n-1] = what
			return
		}
		if n := len(says); n > 0 && says[n-1] == what {
			return
		}
		at, says = append(at, t), append(says, what)
	}
	put(w.from, "hidden")
	seen := false
	for _, s := range shown {
		put(s.from, "visible")
		if s.to < w.from+w.total {
			put(s.to, "hidden")
		}
		seen = seen || s.from <= float64(w.o.Still) && float64(w.o.Still) < s.to
	}
	if name := w.stepped("visibility", at, says); name != "" {
		e.moves = append(e.moves, move{name, 1})
	}
	if !seen {
		e.style = append(e.style, "visibility:hidden")
	}
}

// stepped makes keyframes of a property that goes from value to value at once; empty where it has one.
func (w *writer) stepped(property string, at []float64, says []string) string {
	if len(says) < 2 {
		return ""
	}
	var b strings.Builder
	for i, t := range at {
		if i == 0 {
			t = w.from
		}
		b.WriteString(w.percent(t) + "{" + property + ":" + says[i] + ";animation-timing-function:step-end}")
	}
	b.WriteString("100%{" + property + ":" + says[len(says)-1] + "}")
	return w.frames(b.String())
}

// animate says how a property changes by keyframes: in its style as it stands at the still, and as keyframes. says writes the value of numbers.
func (w *writer) animate(e *element, property string, keys []key, says func(v []float64) string) {
	moves := false
	for i := range keys {
		moves = moves || says(keys[i].v) != says(keys[0].v)
	}
	e.style = append(e.style, property+":"+says(valueAt(keys, float64(w.o.Still))))
	if !moves {
		return
	}
	rounds := w.rounds(keys)
	keys = keys[:(len(keys)-1)/rounds+1]
	percent := func(at float64) string { return w.percentOf(at, w.total/float64(rounds)) }
	var b strings.Builder
	for i, k := range keys {
		at := percent(k.at)
		if i == 0 {
			if at != "0%" {
				at = "0%," + at
			}
		} else if at == percent(keys[i-1].at) {
			continue
		}
		if i == len(keys)-1 && at != "100%" {
			at += ",100%"
		}
		b.WriteString(at + "{" + property + ":" + says(k.v) + timing(k.ease) + "}")
	}
	e.moves = append(e.moves, move{w.frames(b.String()), rounds})
}

// rounds is how often keyframes that last as long as the piece go the same way: 1 where they do not repeat themselves.
func (w *writer) rounds(keys []key) int {
	last := len(keys) - 1
	if keys[0].at != w.from || keys[last].at != w.from+w.total {
		return 1
	}
	for n := 1; n <= last/2; n++ {
		if last%n != 0 {
			continue
		}
		period := w.total / float64(last/n)
		again := true
		for i := 0; i+n <= last && again; i++ {
			again = math.Abs(keys[i+n].at-keys[i].at-period) < 1e-6 && same(keys[i+n].v, keys[i].v) && (i+n == last || keys[i+n].ease == keys[i].ease)
		}
		if again {
			return last / n
		}
	}
	return 1
}

func timing(e ease) string {
	if e == (ease{}) {
		return ""
	}
	v := e.bezier
	return fmt.Sprintf(";animation-timing-function:cubic-bezier(%s,%s,%s,%s)", decimal(v[0], 3), decimal(v[1], 3), decimal(v[2], 3), decimal(v[3], 3))
}

// valueAt is what keyframes say at a time.
func valueAt(keys []key, at float64) []float64 {
	for i := 1; i < len(keys); i++ {
		if a, b := &keys[i-1], &keys[i]; at < b.at {
			if at <= a.at {
				return a.v
			}
			p := a.ease.easing()((at - a.at) / (b.at - a.at))
			v := make([]float64, len(a.v))
			for k := range v {
				v[k] = a.v[k] + p*(b.v[k]-a.v[k])
			}
			return v
		}
	}
	return keys[len(keys)-1].v
}

// curveOf is how numbers of a track change, as far from those of each reading as tell at most by.
func (t *track) curveOf(numbers func(r *reading) []float64, by ...float64) *curve {
	c := &curve{}
	for i := range t.reads {
		r := &t.reads[i]
		c.at, c.v, c.breaks = append(c.at, r.at), append(c.v, numbers(r)), append(c.breaks, r.begins && i > 0)
	}
	c.near = func(k int, v []float64) bool {
		for i, x := range c.v[k] {
			if math.Abs(v[i]-x) > by[i%len(by)] {
				return false
			}
		}
		return true
	}
	return c
}

// moved says how an element lies: a matrix that each reading has. box is what it carries, in its own axes.
func (w *writer) moved(e *element, t *track, m func(r *reading) geom.Matrix, box geom.Box) {
	ms := make([]geom.Matrix, len(t.reads))
	still0 := true
	for i := range t.reads {
		ms[i] = m(&t.reads[i])
		still0 = still0 && ms[i] == ms[0]
	}
	if still0 {
		if v := ms[0]; v != geom.Identity {
			if v.A == 1 && v.B == 0 && v.C == 0 && v.D == 1 {
				e.set("transform", "translate("+w.px(v.E)+" "+w.px(v.F)+")")
			} else {
				e.set("transform", "matrix("+strings.Join([]string{decimal(v.A, 6), decimal(v.B, 6), decimal(v.C, 6), decimal(v.D, 6), w.px(v.E), w.px(v.F)}, " ")+")")
			}
		}
		return
	}
	if box.Empty() {
		box = box.Union(geom.Box{}).Grow(1)
	}
	pivots := []geom.Point{{}}
	turns := false
	for _, v := range ms {
		turns = turns || v.A != ms[0].A || v.B != ms[0].B || v.C != ms[0].C || v.D != ms[0].D
	}
	if turns {
		pivots = []geom.Point{box.Centre()}
		if p := still(ms, box.Centre()); p.Sub(pivots[0]).Len() > w.near && p.Len() < 1e5 {
			pivots = append(pivots, p)
		}
	}
	var best []key
	var pivot geom.Point
	for _, p := range pivots {
		c := &curve{}
		var before []float64
		for i := range t.reads {
			before = place(ms[i], p, before)
			c.at, c.v, c.breaks = append(c.at, t.reads[i].at), append(c.v, before), append(c.breaks, t.reads[i].begins && i > 0)
		}
		corners := box.Corners()
		c.near = func(k int, v []float64) bool {
			m := matrix(v, p)
			for _, q := range corners {
				if a, b := m.Apply(q), ms[k].Apply(q); !(math.Hypot(a.X-b.X, a.Y-b.Y) <= w.near) {
					return false
				}
			}
			return true
		}
		if keys := c.keys(); best == nil || len(keys) < len(best) {
			best, pivot = keys, p
		}
	}
	w.placed(e, best, pivot)
}

// placed writes the keyframes of a place: of its parts those that are not always nothing.
func (w *writer) placed(e *element, keys []key, pivot geom.Point) {
	always := func(n int, v float64) bool {
		return !slices.ContainsFunc(keys, func(k key) bool { return math.Abs(k.v[n]-v) > 1e-7 })
	}
	turns, skews, scales := !always(placeTurn, 0), !always(placeSkew, 0), !always(placeSX, 1) || !always(placeSY, 1)
	says := func(v []float64) string {
		var b strings.Builder
		b.WriteString("translate(" + w.px(v[placeX]) + "px," + w.px(v[placeY]) + "px)")
		if turns {
			b.WriteString(" rotate(" + decimal(v[placeTurn], 3) + "deg)")
		}
		if skews {
			b.WriteString(" skewX(" + decimal(v[placeSkew], 3) + "deg)")
		}
		if scales {
			b.WriteString(" scale(" + decimal(v[placeSX], 5) + "," + decimal(v[placeSY], 5) + ")")
		}
		if pivot != (geom.Point{}) {
			b.WriteString(" translate(" + w.px(-pivot.X) + "px," + w.px(-pivot.Y) + "px)")
		}
		return b.String()
	}
	w.animate(e, "transform", keys, says)
}
