package doc

// Through says by which layer another is masked: it is seen as far as that covers, or is light, wherever that moves. A layer that is not in the scene, or hidden,
// masks nothing; one that is not there yet, or no more, covers nothing.
type Through struct {
	Thread  string `json:"thread"`
	Light   bool   `json:"light,omitzero"`   // as far as it is light, not only as far as it covers
	Outside bool   `json:"outside,omitzero"` // as far as it does not
}

// RenameThreads gives the layers that a layer and its moves name the names that to says. Moves and what it is seen through are its own.
func (l *Layer) RenameThreads(to func(thread string) string) {
	if l.Through != nil {
		l.Through.Thread = to(l.Through.Thread)
	}
	for _, m := range l.Moves {
		m.RenameThreads(to)
	}
}

// MaxThrough bounds how many layers are painted once more each time others are seen through them, in a scene.
const MaxThrough = 4000

// through checks what layers of a scene are seen through: none through what is seen through another itself, and not more than can be painted.
func (c *checker) through(at string, s *Scene) {
	var list []*Layer
	Walk(s.Layers, func(l, _ *Layer) bool {
		if l != nil && l.Through != nil {
			list = append(list, l)
		}
		return l != nil
	})
	painted := 0
	for _, l := range list {
		o := s.Thread(l.Through.Thread)
		if o == nil {
			continue
		}
		Walk([]*Layer{o}, func(k, _ *Layer) bool {
			if painted++; k.Through != nil && k != l {
				c.fail(at+".layers", "has “%s” seen through “%s”, which is seen through another layer itself", l.Name, o.Name)
			}
			return true
		})
	}
	if painted > MaxThrough {
		c.fail(at+".layers", "has more layers seen through others than can be painted (%d; at most %d)", painted, MaxThrough)
	}
}
