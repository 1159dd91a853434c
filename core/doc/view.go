package doc

// ViewKind is the kind of layers that say what part of the page a scene shows: the page’s whole width shows what lies in the layer’s place, turned
// as that is. A scene has one at most, beside its other layers; nothing is painted of it, and its moves are those of the view.
const ViewKind = "view"

// MaxDepthAway is how many times as far away a layer is at most as the page.
const MaxDepthAway = 1000

// Away is how many times as far away a layer is as the page.
func (l *Layer) Away() float64 {
	if l.Depth <= 0 {
		return 1
	}
	return l.Depth
}

// MaxZoom is how many times as large a view shows the page at most, and how many times as small.
const MaxZoom = 64

var viewKind = &Kind{
	Name: ViewKind, Words: "View", Keeps: true, Scaled: true, Looks: true,
	check: func(c *checker, at string, l *Layer) bool {
		if l.Place.W < 1 || l.Place.H < 1 {
			c.fail(at+".place", "is no part of the page: a view is at least 1 px wide and high")
		}
		if l.Mask != "" || l.Place.FlipX || l.Place.FlipY {
			c.fail(at, "is a view: it can be neither a mask nor mirrored")
		}
		return true
	},
}

// View returns the layer that says what part of the page the scene shows, nil where it shows all of it. One that is hidden does not count.
func (s *Scene) View() *Layer {
	for _, l := range s.Layers {
		if l.Kind == ViewKind && !l.Hidden {
			return l
		}
	}
	return nil
}

// views checks that a scene has one view at most, and none in a group; page is how wide that is.
func (c *checker) views(at string, s *Scene) {
	n := 0
	Walk(s.Layers, func(l, parent *Layer) bool {
		if l != nil && l.Kind == ViewKind {
			if n++; n > 1 || parent != nil {
				c.fail(at+".layers", "have a view that is not the scene’s only one, or lies in a group")
			}
			if w := float64(c.width); w > 0 && (l.Place.W*MaxZoom < w-1e-6 || l.Place.W > w*MaxZoom+1e-6) {
				c.fail(at+".layers", "have a view that shows the page more than %d times as large, or as small", MaxZoom)
			}
		}
		return l != nil
	})
}
