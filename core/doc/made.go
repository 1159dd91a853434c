package doc

// Ways in which a layer was made of others.
const (
	MadeUnited  = "unite"
	MadeCut     = "cut"
	MadeOverlap = "overlap"
	MadeDropped = "drop"
	MadeOutline = "outline" // the outline of a text, a shape or a group
	MadeStroke  = "stroke"  // the outline of its stroke
	MadePicture = "picture" // painted into a picture
	MadeSplit   = "split"   // a text in letters, words or lines: a group
)

// MaxKept is the most layers one layer may be made of.
const MaxKept = 500

// Made keeps what a layer was made of, so that it can be taken apart again. The layers do not show and are not found; they keep
// their ids for when they come back, unless these are taken by then.
type Made struct {
	How string   `json:"how"`
	Of  []*Layer `json:"of"` // from the rearmost, without moves; their places are in the axes of the layer that keeps them
}

func (m *Made) clone() *Made {
	if m == nil {
		return nil
	}
	c := &Made{How: m.How}
	for _, l := range m.Of {
		c.Of = append(c.Of, l.Clone())
	}
	return c
}

// same reports whether both are of layers that are the same.
func (m *Made) same(o *Made) bool {
	if m == nil || o == nil || m == o {
		return m == o
	}
	return m.How == o.How && sameKept(m.Of, o.Of)
}

func sameKept(a, b []*Layer) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		x, y := *a[i], *b[i]
		x.Children, y.Children = nil, nil
		if !sameLayer(&x, &y) || !sameKept(a[i].Children, b[i].Children) {
			return false
		}
	}
	return true
}

// made checks the layers that one was made of.
func (c *checker) made(at string, l *Layer, s *Scene, depth int) {
	if l.Made == nil {
		return
	}
	if may := l.Is().mayBeMade; may == nil || !may(l.Made.How) {
		c.fail(at, "belongs to paths, pictures and texts that were split")
		return
	}
	c.oneOf(at+".how", l.Made.How, MadeUnited, MadeCut, MadeOverlap, MadeDropped, MadeOutline, MadeStroke, MadePicture, MadeSplit)
	n := 0
	c.kept(at+".of", l.Made.Of, s, depth, &n)
	if n == 0 || n > MaxKept {
		c.fail(at+".of", "holds %d layers; it must be 1 to %d", n, MaxKept)
	}
}

func (c *checker) kept(at string, list []*Layer, s *Scene, depth int, n *int) {
	if depth > MaxDepth {
		c.fail(at, "is nested deeper than %d", MaxDepth)
		return
	}
	for i, k := range list {
		at := c.at("%s[%d]", at, i)
		if *n++; k == nil || *n > MaxKept {
			c.fail(at, "is empty or one too many")
			return
		}
		if len(k.ID) < 1 || len(k.ID) > 40 {
			c.fail(at+".id", "must be 1 to 40 characters long")
		}
		if len(k.Moves) > 0 {
			c.fail(at+".moves", "are not kept")
		}
		if !c.headIn(at, k, s, depth+1) {
			return
		}
		c.kept(at+".children", k.Children, s, depth+1, n)
	}
}
