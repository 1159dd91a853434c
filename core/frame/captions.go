package frame

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// CaptionFamily is what captions are set in.
const CaptionFamily = "Archivo"

// Of captions that are drawn: how far they are from the side of the page, in shares of its height, how wide they are at most, in shares of its width, and the colours
// they have where a scene has no roles.
const (
	captionEdge  = 0.06
	captionWidth = 0.84
	captionInk   = "#fffdf8"
	captionPlate = "#10302ed9"
	captionRole  = "words" // as core/ink calls them
	plateRole    = "ground"
)

// Captions are the lines of the voices that are heard, on film time, in their order. Where two would be shown at once the first ends as the second begins.
func (f *Film) Captions() (list []doc.Caption) {
	add := func(q *doc.Sound, begin, end int64) {
		if q.Spoken == nil || q.Muted {
			return
		}
		end = min(end, f.Order.Length)
		for _, l := range q.Spoken.Lines {
			at := func(ms int64) int64 { return begin + int64(float64(ms-q.From)/q.Rate()+0.5) }
			c := doc.Caption{From: max(begin, 0, at(l.From)), To: min(end, at(l.To)), Text: strings.TrimSpace(l.Text)}
			if l.To > q.From && c.From < c.To && c.Text != "" {
				list = append(list, c)
			}
		}
	}
	for _, q := range f.Doc.Film.Sounds {
		add(q, q.Start.Offset, q.Start.Offset+q.Length)
	}
	for i, sc := range f.Doc.Film.Shown() {
		for _, q := range sc.Sounds {
			at, t := f.Order.Begin(i), f.Timing(i).Sounds[q.ID]
			add(q, at+t.Begin, at+t.End)
		}
	}
	slices.SortStableFunc(list, func(a, b doc.Caption) int { return cmp.Compare(a.From, b.From) })
	for i := range list[:max(0, len(list)-1)] {
		list[i].To = max(list[i].From, min(list[i].To, list[i+1].From))
	}
	return slices.DeleteFunc(list, func(c doc.Caption) bool { return c.From == c.To })
}

// caption is a line that is drawn over the film between two times, ms.
type caption struct {
	from, to int64
	layer    *layer
	m        geom.Matrix
}

// compileCaptions makes the lines that are drawn, where the film shows them.
func (f *Film) compileCaptions() {
	style := f.Doc.Film.Captions
	if style == nil {
		return
	}
	list := f.Captions()
	if len(list) == 0 {
		return
	}
	film := &f.Doc.Film
	w, h := float64(film.Width), float64(film.Height)
	size := cmp.Or(style.Size, h/18)
	d := &doc.Scene{ID: "captions"}
	for i, c := range list {
		roles := film.Scenes[f.Order.At(motion.Millis(c.From)).Scene].Roles
		words, plate := cmp.Or(style.Colour, roles[captionRole], captionInk), cmp.Or(style.Plate, roles[plateRole], captionPlate)
		id := fmt.Sprint("caption-", i)
		d.Layers = append(d.Layers, &doc.Layer{
			ID: id, Thread: id, Kind: doc.TextKind, Opacity: 1, Locked: true, Fill: doc.Fill{Kind: doc.Solid, Colour: words}, Place: doc.Place{W: captionWidth * w},
			Text: &doc.Text{Align: doc.Centre, Wrap: true, LineHeight: 1.25, Runs: []doc.Run{{Text: c.Text, Family: CaptionFamily, Weight: 600, Size: size}}, Plate: &doc.Plate{Colour: plate, Padding: size * 0.35, Corner: size * 0.2}},
		})
	}
	t, err := motion.Resolve(d, 0)
	if err != nil {
		return // it has no moves that could hang on each other
	}
	s := f.compileScene(d, 0, t, nil, nil, nil)
	for i, l := range s.layers {
		b := l.rest.ApplyBox(l.box)
		by := geom.Point{X: w/2 - (b.Min.X+b.Max.X)/2, Y: h*(1-captionEdge) - b.Max.Y}
		if style.Top {
			by.Y = h*captionEdge - b.Min.Y
		}
		f.captions = append(f.captions, caption{list[i].From, list[i].To, l, geom.Translate(by).Mul(l.rest)})
	}
}

// caption lays the line of a time over everything.
func (p *Player) caption(t motion.Instant) {
	list := p.film.captions
	i, found := slices.BinarySearchFunc(list, t, func(c caption, t motion.Instant) int { return -t.Cmp(c.from) })
	if !found {
		i--
	}
	if i < 0 || t.Cmp(list[i].to) >= 0 {
		return
	}
	n := p.blank()
	n.layer, n.m, n.alpha, n.end = list[i].layer, list[i].m, 1, len(p.nodes)
}
