package doc

import "cmp"

func (c *checker) layer(at string, l *Layer, s *Scene, moves map[string]*Move, on hooks) {
	c.id(at+".id", l.ID)
	if c.fine[l] && len(s.Roles) == 0 {
		for i, m := range l.Moves {
			at := c.at("%s.moves[%d]", at, i)
			c.id(at+".id", m.ID)
			c.hangs(at, m, moves, on)
		}
		return
	}
	if !c.head(at, l, s) {
		return
	}
	c.most(at+".moves", len(l.Moves), MaxMoves)
	for i, m := range l.Moves {
		at := c.at("%s.moves[%d]", at, i)
		if m == nil {
			c.fail(at, "is empty")
			return
		}
		c.move(at, m, moves, on)
		if m.Kind == Change {
			c.becomes(at, m, l, s)
		}
		c.cycles(at, m, len(l.Children))
	}
}

// head checks a layer's own fields, and says whether there is sense in looking on.
func (c *checker) head(at string, l *Layer, s *Scene) bool { return c.headIn(at, l, s, 0) }

// headIn is head for a layer that others were made of, depth times over.
func (c *checker) headIn(at string, l *Layer, s *Scene, depth int) bool {
	if l.Thread == "" || len(l.Thread) > 40 {
		c.fail(at+".thread", "must be 1 to 40 characters long")
	}
	c.name(at+".name", l.Name)
	if l.Is().Unbuilt != "" || l.Inset != nil {
		c.fail(at+".kind", "%s", cmp.Or(l.Is().Unbuilt, insetKind.Unbuilt))
	}
	c.oneOf(at+".kind", l.Kind, built...)
	c.number(at+".place.x", l.Place.X, -MaxPlace, MaxPlace)
	c.number(at+".place.y", l.Place.Y, -MaxPlace, MaxPlace)
	c.number(at+".place.w", l.Place.W, 0, MaxPlace)
	c.number(at+".place.h", l.Place.H, 0, MaxPlace)
	c.number(at+".place.turn", l.Place.Turn, -MaxPlace, MaxPlace)
	c.number(at+".opacity", l.Opacity, 0, 1)
	c.number(at+".corner", l.Corner, 0, MaxPlace)
	c.number(at+".depth", l.Depth, 0, MaxDepthAway)
	if len([]rune(l.Column)) > MaxColumn {
		c.fail(at+".column", "has more than %d characters", MaxColumn)
	}
	c.number(at+".tint", float64(l.Tint), 0, 7)
	if l.Mask != "" {
		c.oneOf(at+".mask", l.Mask, Inside, Outside)
	}
	c.look(at, l, s)
	c.shape(at+".shape", l)
	c.made(at+".made", l, s, depth)
	if l.Kind != Group && len(l.Children) > 0 {
		c.fail(at+".children", "belong to groups only")
	}
	kind := l.Is()
	if kind.check != nil && !kind.check(c, at, l) {
		return false
	}
	return true
}

// built are the names of the kinds that can be shown.
var built = func() (names []string) {
	for _, k := range Kinds {
		if k.Unbuilt == "" {
			names = append(names, k.Name)
		}
	}
	return
}()
