package frame

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
)

// faintMark is how strongly the marks of other scenes show beside that of this one.
const faintMark = 0.35

// place is which scene of how many a marker's thread is in.
type place struct{ at, of int }

// MarkerFamily is the font family that markers count in.
const MarkerFamily = "Archivo"

// markers finds the place of every marker of the film, by scene and layer id; nil where there is none. Scenes that are known to
// have none are not looked through.
func markers(film *doc.Film, without func(*doc.Scene) bool) []map[string]place {
	type seen struct {
		scene int
		id    string
	}
	threads := map[string][]seen{}
	for i, s := range film.Scenes {
		if s.Aside || without(s) {
			continue
		}
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if l.Kind == doc.MarkerKind {
				threads[l.Thread] = append(threads[l.Thread], seen{i, l.ID})
			}
			return true
		})
	}
	if len(threads) == 0 {
		return nil
	}
	out := make([]map[string]place, len(film.Scenes))
	for _, list := range threads {
		for k, v := range list {
			if out[v.scene] == nil {
				out[v.scene] = map[string]place{}
			}
			out[v.scene][v.id] = place{k + 1, len(list)}
		}
	}
	return out
}

// compileMarker gives a marker its outlines: a mark for each scene of its thread, that of this one in full, or "2 of 4".
func (f *Film) compileMarker(l *layer, p place) {
	b := l.box
	p.of = max(p.of, 1)
	n := float64(p.of)
	content := fmt.Sprint("m", l.doc.Marker.Style, b, p)
	switch l.doc.Marker.Style {
	case doc.Count:
		words := &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: fmt.Sprintf("%d of %d", p.at, p.of), Family: MarkerFamily, Weight: 600, Size: max(1, b.H()*0.8)}}}
		lay := text.SetIn(f.assets.Fonts, words, text.Room{}, "")
		// Words hang from the middle of their upper edge.
		by := geom.Translate(geom.Point{X: b.Centre().X - lay.Box.Centre().X, Y: b.Centre().Y - lay.Box.Centre().Y})
		for i, o := range lay.Outlines {
			l.shapes = append(l.shapes, shape{key: f.Geometry.key(fmt.Sprint(content, f.serial, i), func() *geom.Path {
				moved := &geom.Path{}
				moved.Append(o.Path, by)
				return moved
			})})
		}
	default:
		step := b.W() / (1.6*n - 0.6) // a mark and its gap, in marks: 1 and 0.6
		if l.doc.Marker.Style == doc.Dots {
			step = min(step, b.H())
		}
		left := b.Centre().X - step*(1.6*n-0.6)/2
		for k := range p.of {
			at := geom.Box{Min: geom.Point{X: left + 1.6*step*float64(k), Y: b.Min.Y}, Max: geom.Point{X: left + 1.6*step*float64(k) + step, Y: b.Max.Y}}
			s := shape{key: f.Geometry.key(fmt.Sprint(content, k), func() *geom.Path {
				if l.doc.Marker.Style == doc.Dots {
					return geom.Ellipse(geom.BoxAt(at.Centre(), step, step))
				}
				return geom.Rectangle(at, b.H()/2)
			})}
			if k+1 != p.at {
				s.faint = 1 - faintMark
			}
			l.shapes = append(l.shapes, s)
		}
	}
}
