package doc

import "slices"

// Uses reports whether layers show a picture, or are set in a font of the document's own.
func Uses(list []*Layer, hash string, media *Media) (is bool) {
	Walk(list, func(l, _ *Layer) bool {
		is = is || l.Fill.Media == hash || l.Stroke != nil && l.Stroke.Fill.Media == hash || l.Picture != nil && (l.Picture.Media == hash || l.Picture.Cut != nil && l.Picture.Cut.Mask == hash) ||
			l.Made != nil && Uses(l.Made.Of, hash, media) ||
			slices.ContainsFunc(l.Moves, func(v *Move) bool {
				return v.Change != nil && Uses([]*Layer{bare(l.After(&v.Change.To))}, hash, media)
			}) ||
			l.Text != nil && media.IsFont() && slices.ContainsFunc(l.Text.Runs, func(r Run) bool { return r.Family == media.Family })
		return !is
	})
	return
}

// Hears reports whether sounds are of a recording.
func Hears(list []*Sound, hash string) bool {
	return slices.ContainsFunc(list, func(s *Sound) bool { return s != nil && s.Media == hash })
}

// bare is a layer that was just made, by itself.
func bare(l *Layer) *Layer {
	l.Moves, l.Children, l.Made = nil, nil, nil
	return l
}
