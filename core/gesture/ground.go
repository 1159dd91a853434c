package gesture

import "capstan/core/doc"

// grounds are the layers that cover the page and are dragged, or seen through the view that is: where they would bare it is said meanwhile.
func (s *Drags) grounds(b *begun) (list []*doc.Layer) {
	covers := func(l *doc.Layer) bool {
		return l.Is().Grounds && l.Mask == "" && !l.Hidden && s.Shown.Covers(b.scene, l.ID)
	}
	for i := range b.grips {
		l := b.grips[i].layer
		if l.Is().Looks {
			list = nil
			for _, k := range s.Scene(b.moment).Layers {
				if covers(k) {
					list = append(list, k)
				}
			}
			return list
		}
		if covers(l) {
			list = append(list, l)
		}
	}
	return list
}

// bared says how much of the page shows on the way of what is dragged, and when; nothing where one of several grounds covers it all along.
func (s *Drags) bared() (said string) {
	for _, l := range s.ground {
		if said = s.Shows(s.scene, l); said == "" {
			return ""
		}
	}
	return said
}
