package frame

import (
	"cmp"
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

// CaptionLine is a caption on film time, ms, and what it comes from: a voice, or a scene's own captions.
type CaptionLine struct {
	doc.Caption
	Sound string // the id of the voice that says it; empty: it is a scene's own
	Scene int    // that it belongs to; -1: to a voice on the film's clock
	Index int    // among those of the voice or the scene
}

// CaptionLines are the captions of the scenes, and of the voices that are heard, in their order. Where two would be shown at once the first ends as the second begins.
func (f *Film) CaptionLines() (list []CaptionLine) {
	add := func(l CaptionLine, begin, end int64) {
		if l.From, l.To, l.Text = max(l.From, begin), min(l.To, end, f.Order.Length), strings.TrimSpace(l.Text); l.From < l.To && l.Text != "" {
			list = append(list, l)
		}
	}
	voice := func(q *doc.Sound, scene int, begin, end int64) {
		if q.Spoken == nil || q.Muted {
			return
		}
		for k, l := range q.Spoken.Lines {
			at := func(ms int64) int64 { return begin + int64(float64(ms-q.From)/q.Rate()+0.5) }
			if l.To > q.From {
				add(CaptionLine{doc.Caption{From: at(l.From), To: at(l.To), Text: l.Text}, q.ID, scene, k}, max(begin, 0), end)
			}
		}
	}
	for _, q := range f.Doc.Film.Sounds {
		voice(q, -1, q.Start.Offset, q.Start.Offset+q.Length)
	}
	for i, sc := range f.Doc.Film.Shown() {
		at := f.Order.Begin(i)
		for _, q := range sc.Sounds {
			t := f.Timing(i).Sounds[q.ID]
			voice(q, i, at+t.Begin, at+t.End)
		}
		for k, c := range sc.Captions {
			add(CaptionLine{doc.Caption{From: at + c.From, To: at + c.To, Text: c.Text}, "", i, k}, 0, f.Order.Length)
		}
	}
	slices.SortStableFunc(list, func(a, b CaptionLine) int { return cmp.Compare(a.From, b.From) })
	for i := range list[:max(0, len(list)-1)] {
		list[i].To = max(list[i].From, min(list[i].To, list[i+1].From))
	}
	return slices.DeleteFunc(list, func(c CaptionLine) bool { return c.From == c.To })
}

// Captions are the lines as they are shown, without what they come from.
func (f *Film) Captions() (list []doc.Caption) {
	for _, l := range f.CaptionLines() {
		list = append(list, l.Caption)
	}
	return list
}

// caption is a line that is drawn over the film between two times, ms.
type caption struct {
	from, to int64
	look     captionLook
	layer    *layer
	m        geom.Matrix
}

// captionLook is all that decides how a line looks.
type captionLook struct {
	text, words, plate  string
	size, width, height float64
	top                 bool
}

// compileCaptions makes the lines that are drawn, where the film shows them. Those that look as they did in the film before are taken over.
func (f *Film) compileCaptions(before *Film) {
	style := f.Doc.Film.Captions
	if style == nil {
		return
	}
	film := &f.Doc.Film
	made := map[captionLook]caption{}
	if before != nil {
		for _, c := range before.captions {
			made[c.look] = c
		}
	}
	w, h := float64(film.Width), float64(film.Height)
	for _, c := range f.Captions() {
		roles := film.Scenes[f.Order.At(motion.Millis(c.From)).Scene].Roles
		look := captionLook{c.Text, cmp.Or(style.Colour, roles[captionRole], captionInk), cmp.Or(style.Plate, roles[plateRole], captionPlate), cmp.Or(style.Size, h/18), w, h, style.Top}
		one, ok := made[look]
		if !ok {
			if one, ok = f.captionOf(look); !ok {
				return
			}
			made[look] = one
		}
		one.from, one.to = c.From, c.To
		f.captions = append(f.captions, one)
	}
}

// captionOf lays a line out, in the middle of a side of the page.
func (f *Film) captionOf(k captionLook) (caption, bool) {
	d := &doc.Scene{ID: "captions", Layers: []*doc.Layer{{
		ID: "caption", Thread: "caption", Kind: doc.TextKind, Opacity: 1, Locked: true, Fill: doc.Fill{Kind: doc.Solid, Colour: k.words}, Place: doc.Place{W: captionWidth * k.width},
		Text: &doc.Text{Align: doc.Centre, Wrap: true, LineHeight: 1.25, Runs: []doc.Run{{Text: k.text, Family: CaptionFamily, Weight: 600, Size: k.size}}, Plate: &doc.Plate{Colour: k.plate, Padding: k.size * 0.35, Corner: k.size * 0.2}},
	}}}
	t, err := motion.Resolve(d, 0)
	if err != nil {
		return caption{}, false // it has no moves that could hang on each other
	}
	l := f.compileScene(d, 0, t, nil, nil, nil).layers[0]
	b := l.rest.ApplyBox(l.box)
	by := geom.Point{X: k.width/2 - (b.Min.X+b.Max.X)/2, Y: k.height*(1-captionEdge) - b.Max.Y}
	if k.top {
		by.Y = k.height*captionEdge - b.Min.Y
	}
	return caption{look: k, layer: l, m: geom.Translate(by).Mul(l.rest)}, true
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
