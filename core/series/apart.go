package series

import (
	"capstan/core/doc"
	"capstan/core/frame"
)

// ApartAt is a change by which the letters or parts of a layer lie from the beginning as they do when scene i ends, which nothing else in the
// document says; nil where they lie as they rest.
func ApartAt(film *frame.Film, i int, l *doc.Layer) *doc.Move {
	m, apart := film.EndApart(i, l.ID)
	if m == nil {
		return nil
	}
	return &doc.Move{
		ID: m.ID, Kind: doc.Change, Effect: doc.Becoming, Start: doc.Start{When: doc.AtTime}, Duration: doc.MinDuration, Easing: "step-start",
		Unit: m.Unit, Change: &doc.ChangeParams{To: doc.Becomes{Apart: &apart}},
	}
}

// lies reports whether a change says no more than how far apart letters or parts lie from the beginning.
func lies(m *doc.Move, begin int64) bool {
	if begin != 0 || !leaps(m) || m.Change.To.Apart == nil {
		return false
	}
	to := m.Change.To
	to.Apart = nil
	return to == doc.Becomes{}
}
