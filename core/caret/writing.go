// Package caret is a text while its words are edited on the page: where carets and selected letters stand, and where keys and presses lead.
package caret

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/text"
)

// Writer tells of one text at a time. It belongs to one goroutine.
type Writer struct {
	*scope.Scope
	written written
}

// Writing is what a text shows while its words are edited on the page, in page px.
type Writing struct {
	Caret  [2][2]float64   `json:"caret"`  // the line of the caret, from its top to its foot
	Marked [][4][2]float64 `json:"marked"` // outlines of the letters that are selected
	Frame  [4][2]float64   `json:"frame"`  // the corners of its box
}

// written is the text whose words are edited, with where its letters are.
type written struct {
	layer *doc.Layer
	cells *text.Cells
	page  geom.Matrix // from its own axes
	goal  geom.Point  // where the caret wants to be along the lines, when it goes up and down
	from  int         // where it was when goal was noted
}

// writing returns the cells of a text of the moment's scene, worked out again when the text has changed; nil without such a text.
func (s *Writer) writing(m scope.Moment, thread string) *written {
	l := s.Scene(m).Thread(thread)
	if l == nil || l.Kind != doc.TextKind {
		return nil
	}
	i := s.SceneIndex(m)
	w := &s.written
	if w.layer != l {
		*w = written{layer: l, cells: text.CellsOf(&s.Fonts, l.Text, text.RoomOf(&l.Place)), from: -1}
	}
	w.page = s.Shown.Ancestry(i, l.ID).Mul(s.Shown.RestMatrix(i, l.ID))
	return w
}

// WritingView returns what is shown of a caret at one place of a text and of what is selected from another one to it; nil when there is no such text.
// Places count characters.
func (s *Writer) WritingView(m scope.Moment, thread string, anchor, caret int) *Writing {
	w := s.writing(m, thread)
	if w == nil {
		return nil
	}
	on := func(p geom.Point) [2]float64 {
		p = w.page.Apply(p)
		return [2]float64{p.X, p.Y}
	}
	top, foot := w.cells.Caret(caret)
	v := &Writing{Caret: [2][2]float64{on(top), on(foot)}, Marked: [][4][2]float64{}}
	for _, q := range w.cells.Stretch(min(anchor, caret), max(anchor, caret)) {
		v.Marked = append(v.Marked, [4][2]float64{on(q[0]), on(q[1]), on(q[2]), on(q[3])})
	}
	box, _ := s.Shown.Box(s.SceneIndex(m), w.layer.ID)
	for k, c := range box.Corners() {
		v.Frame[k] = on(c)
	}
	return v
}

// Units that a press among the words selects.
const (
	LetterUnit = "letter"
	WordUnit   = "word"
	LineUnit   = "line"
)

// WritingAt returns the stretch of a text that a press at a page point selects: nothing but the place there, the word, or the line.
// Further than slack, page px, from its box it selects nothing; it returns nil.
func (s *Writer) WritingAt(m scope.Moment, thread string, q geom.Point, unit string, slack float64) []int {
	w := s.writing(m, thread)
	if w == nil {
		return nil
	}
	inv, ok := w.page.Inverse()
	if !ok {
		return nil
	}
	own := inv.Apply(q)
	if box, _ := s.Shown.Box(s.SceneIndex(m), w.layer.ID); !box.Grow(slack / max(w.page.MaxScale(), 1e-9)).Contains(own) {
		return nil
	}
	at := w.cells.Nearest(own)
	switch unit {
	case WordUnit:
		from, to := text.WordAt([]rune(w.layer.Text.String()), at)
		return []int{from, to}
	case LineUnit:
		from, to := w.cells.LineOf(at)
		return []int{from, to}
	}
	return []int{at, at}
}

// WritingStep returns where a caret goes from a place: up, down, to the begin or the end of its line. Up and down keep to where it
// was across the lines before the first of such steps.
func (s *Writer) WritingStep(m scope.Moment, thread string, at int, to string) int {
	w := s.writing(m, thread)
	if w == nil {
		return at
	}
	from, end := w.cells.LineOf(at)
	switch to {
	case "begin":
		return from
	case "end":
		return end
	}
	top, foot := w.cells.Caret(at)
	if w.from != at {
		w.goal = top.Lerp(foot, 0.5)
	}
	by := 1
	if to == "up" {
		by = -1
	}
	w.from = w.cells.Across(at, by, w.goal)
	return w.from
}

// ForgetWriting has the cells of the text that is written worked out again.
func (s *Writer) ForgetWriting() { s.written = written{} }
