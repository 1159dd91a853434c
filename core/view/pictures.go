package view

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// File is the file of a picture.
type File struct {
	Words    string     `json:"words"`    // "WebP, 1500 × 900 px"
	Source   string     `json:"source"`   // who made it, or where it is from
	Licence  string     `json:"licence"`  // how it may be used
	Crop     [4]float64 `json:"crop"`     // of its sides: how much is cut off on the left, above, on the right, below, shares
	Zoom     float64    `json:"zoom"`     // how many times as large it is as just covers its frame
	Turned   float64    `json:"turned"`   // degrees clockwise by which it is turned in its frame
	Trims    bool       `json:"trims"`    // it has clear margins that are shown
	Old      bool       `json:"old"`      // it was read as pictures are no longer
	Shrinks  float64    `json:"shrinks"`  // up to how many device px to one of the page a smaller copy is painted than at the page's own size; 0: at none
	Enlarged int        `json:"enlarged"` // how large it is shown of its own pixels at rest, per cent, where that is more than they are; else 0
}

// Credit is what a picture that a film shows says of itself.
type Credit struct {
	Hash    string `json:"hash"`
	Name    string `json:"name"`
	Source  string `json:"source"`
	Licence string `json:"licence"`
}

// kindWords are kinds of files as they are written, where capitals alone are not it.
var kindWords = map[string]string{"image/webp": "WebP"}

func (s *Views) fileOf(scene int, l *doc.Layer, m *doc.Media) *File {
	kind := kindWords[m.Type]
	if kind == "" {
		kind = strings.ToUpper(strings.TrimPrefix(m.Type, "image/"))
	}
	f := &File{Words: fmt.Sprintf("%s, %d × %d px", kind, m.Width, m.Height), Source: m.Source, Licence: m.Licence, Zoom: 1, Turned: l.Picture.Turn, Old: m.Intake < doc.Intake}
	if v := m.Shown; v != nil {
		c := l.Picture.Cropped()
		f.Trims = l.Picture.Turn == 0 && (c[0] < v[0]-1e-6 || c[1] < v[1]-1e-6 || c[2] > v[2]+1e-6 || c[3] > v[3]+1e-6)
	}
	if v, ok := shape.FramedOf(l); ok {
		f.Zoom = math.Round(v.Zoom()*1e6) / 1e6
	}
	w, h := float64(m.Width), float64(m.Height)
	if c := l.Picture.Crop; c != nil {
		f.Crop = [4]float64{c[0], c[1], 1 - c[2], 1 - c[3]}
		w, h = w*(c[2]-c[0]), h*(c[3]-c[1])
	}
	at := s.Shown.Ancestry(scene, l.ID).Mul(s.Shown.RestMatrix(scene, l.ID))
	across, down := at.ApplyVector(geom.Point{X: l.Place.W}).Len(), at.ApplyVector(geom.Point{Y: l.Place.H}).Len()
	k := max(across/max(w, 1e-9), down/max(h, 1e-9)) // px of the page to one of its own
	if k > halved && k < 1e9 {
		f.Shrinks = halved / k
	}
	if k > 1.01 {
		f.Enlarged = int(math.Round(min(k, 1e4) * 100))
	}
	return f
}

// credits are those of the pictures that the scenes of the film show, in the order in which they come, then of what is heard, each once.
func (s *Views) credits() []Credit {
	list := []Credit{}
	if len(s.Shown.Doc.Media) == 0 {
		return list
	}
	add := func(hash string) {
		m := s.Shown.Doc.Media[hash]
		if m != nil && !m.IsFont() && !slices.ContainsFunc(list, func(c Credit) bool { return c.Hash == hash }) {
			list = append(list, Credit{hash, m.Name, m.Source, m.Licence})
		}
	}
	for _, sc := range s.Shown.Doc.Film.Shown() {
		add(sc.Background.Media)
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			add(mediaOf(l))
			add(l.Fill.Media)
			for _, v := range l.Moves {
				if v.Change != nil {
					if b := &v.Change.To; b.Picture != nil {
						add(b.Picture.Media)
					} else if b.Fill != nil {
						add(b.Fill.Media)
					}
				}
			}
			return true
		})
	}
	s.Shown.Doc.Film.EachSound(func(q *doc.Sound, sc *doc.Scene) {
		if sc == nil || !sc.Aside {
			add(q.Media)
		}
	})
	return list
}

// halved is how many px there are to one of a picture’s own from which on the next smaller copy is painted (state.MipFor).
const halved = 0.5

// nearly is the share of the page’s pixels, each way, from which on a picture is taken to be able to fill it.
const nearly = 0.9

// mediaOf is the hash of what a picture shows; empty for other layers.
func mediaOf(l *doc.Layer) string {
	if l.Picture == nil {
		return ""
	}
	return l.Picture.Media
}
