package delivery

import (
	"cmp"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/words"
)

// Mark lies over a file from its beginning to its end, whatever the film shows: words, or a picture of the project.
type Mark struct {
	Words   string  `json:"words,omitempty"`
	Picture string  `json:"picture,omitempty"` // hash of one of the project's media, in place of words
	Corner  string  `json:"corner,omitempty"`  // of Corners; empty: the first
	Opacity float64 `json:"opacity,omitempty"` // 0..1; 0: 0.6
	Share   float64 `json:"share,omitempty"`   // of the page's width; 0: 0.1
	Inset   float64 `json:"inset,omitempty"`   // from the corner, share of the page's width; 0: 0.04
}

// Corners are where a mark may lie, as they are offered.
var Corners = []string{"lower right", "lower left", "upper right", "upper left"}

// longestMark is how many characters a mark has at most.
const longestMark = 80

// check returns why there cannot be such a mark on a film, or nil.
func (m *Mark) check(f *frame.Film) error {
	v := f.Doc.Media[m.Picture]
	switch {
	case m.Picture != "" && (v == nil || v.IsFont()):
		return words.New("export.mark-picture")
	case m.Picture == "" && m.Words == "", len([]rune(m.Words)) > longestMark, m.Corner != "" && !slices.Contains(Corners, m.Corner):
		return words.New("export.mark", longestMark)
	case !(m.Opacity >= 0 && m.Opacity <= 1), !(m.Share >= 0 && m.Share <= 1), !(m.Inset >= 0 && m.Inset <= 0.5):
		return words.New("export.mark", longestMark)
	}
	return nil
}

// Film is the mark alone, on a clear page of the film's size: words are white with a soft dark edge, as large as a box of half its width in height
// holds them.
func (m *Mark) Film(f *frame.Film) (*frame.Film, error) {
	film := &f.Doc.Film
	w, h := float64(film.Width), float64(film.Height)
	share, inset := cmp.Or(m.Share, 0.1)*w, cmp.Or(m.Inset, 0.04)*w
	p := doc.NewProject("mark", "Mark", film.Width, film.Height, "mark")
	p.Film.Clear = true
	corner := cmp.Or(m.Corner, Corners[0])
	right, low := corner == Corners[0] || corner == Corners[2], corner == Corners[0] || corner == Corners[1]
	l := &doc.Layer{ID: "mark", Thread: "mark", Name: "Mark", Opacity: cmp.Or(m.Opacity, 0.6), Fill: doc.Fill{Kind: doc.NoFill}}
	l.Place.W, l.Place.H = share, share/2
	if v := f.Doc.Media[m.Picture]; v != nil {
		l.Kind, l.Picture = doc.Picture, &doc.PictureUse{Media: m.Picture}
		l.Place.H = share * float64(v.Height) / float64(v.Width)
		p.Media = map[string]*doc.Media{m.Picture: v}
	} else {
		l.Kind, l.Fill = doc.TextKind, doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
		l.Text = &doc.Text{Align: doc.Left, Wrap: true, Room: doc.FitRoom, Runs: []doc.Run{{Text: m.Words, Family: "Archivo", Weight: 600, Size: share / 2}}}
		if right {
			l.Text.Align = doc.Right
		}
		if low {
			l.Text.Stand = doc.Bottom
		}
		l.Glow = &doc.Glow{Blur: share / 24, Colour: "#0c2523"}
	}
	l.Place.X, l.Place.Y = inset+l.Place.W/2, inset+l.Place.H/2
	if right {
		l.Place.X = w - l.Place.X
	}
	if low {
		l.Place.Y = h - l.Place.Y
	}
	if l.Kind == doc.TextKind {
		l.Place.Y -= l.Place.H / 2 // a text hangs from its place
	}
	p.Film.Scenes[0].Layers = []*doc.Layer{l}
	return f.Beside(p)
}
