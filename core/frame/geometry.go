// Package frame is the one pure function: Compile makes a film of a document, and a Player of that
// film answers any time with a display list. Preview, export, thumbnails, hit test and timeline all ask it;
// nothing else knows how things move.
package frame

import (
	"capstan/core/state"
	"fmt"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
)

// Store keeps outlines by content, so that painters may cache what they made of a key. Keys are never used
// twice for different outlines, also across the films compiled one from another.
type Store struct {
	byContent map[string]uint32
	paths     map[uint32]*geom.Path
	bounds    map[uint32]geom.Box
	contacts  map[contactKey]combine.Contact
	measures  map[string]*geom.Measure // of what is drawn, by what it is
	strokes   map[uint32]uint32        // of outlines of strokes, what they go along
	next      uint32
}

// maxOutlines is when a store forgets outlines made before; long editing sessions make many.
const maxOutlines = 20000

func newStore(next uint32) *Store {
	return &Store{byContent: map[string]uint32{}, paths: map[uint32]*geom.Path{}, bounds: map[uint32]geom.Box{}, contacts: map[contactKey]combine.Contact{}, measures: map[string]*geom.Measure{}, strokes: map[uint32]uint32{}, next: next}
}

// KnowPath tells the store the outline of a drawn path whose data is name, so that name need not be path data: while points are
// dragged, writing and reading thousands of numbers would take longer than a frame.
func (s *Store) KnowPath(name string, p *geom.Path) { s.key("p"+name, func() *geom.Path { return p }) }

// Path returns the outline of a key, or nil for a key this store does not have.
func (s *Store) Path(key uint32) *geom.Path { return s.paths[key] }

// Bounds returns the box of an outline; that of one without points, or of a key this store does not have, is empty.
func (s *Store) Bounds(key uint32) geom.Box {
	if b, ok := s.bounds[key]; ok {
		return b
	}
	return geom.EmptyBox()
}

// StrokeOf returns the key of what the stroke of a layer goes along, by the key of the stroke's own outline; 0 where that is none.
func (s *Store) StrokeOf(key uint32) uint32 { return s.strokes[key] }

// key returns the key for the outline described by content, making it when it is new.
func (s *Store) key(content string, outline func() *geom.Path) uint32 {
	if k, ok := s.byContent[content]; ok {
		return k
	}
	s.next++
	s.byContent[content] = s.next
	p := outline()
	s.paths[s.next], s.bounds[s.next] = p, p.Bounds()
	return s.next
}

// measure returns the lengths of what content describes.
func (s *Store) measure(content string, p *geom.Path) *geom.Measure {
	m := s.measures[content]
	if m == nil {
		m = geom.NewMeasure(p)
		s.measures[content] = m
	}
	return m
}

func (s *Store) rectangle(b geom.Box, radius float64) uint32 {
	return s.key(fmt.Sprint("r", b, radius), func() *geom.Path { return geom.Rectangle(b, radius) })
}

// compileOutlines gives a layer the outlines of its shape.
func (f *Film) compileOutlines(l *layer) {
	l.spec = state.ShapeOf(l.doc)
	v, _ := doc.Encode(l.spec.Shape)
	content := fmt.Sprint("k", l.spec.Kind, l.spec.W, " ", l.spec.H, " ", l.spec.Corner, string(v))
	var parts []state.Part
	made := func() []state.Part {
		if parts == nil {
			parts = l.spec.Parts()
		}
		return parts
	}
	n := 1
	if l.spec.Kind == doc.Ribbon {
		n = len(made())
	}
	for i := range n {
		s := shape{key: f.Geometry.key(fmt.Sprint(content, i), func() *geom.Path { return made()[i].Path })}
		if n > 1 {
			s.shade = made()[i].Shade
		}
		l.shapes = append(l.shapes, s)
	}
}
