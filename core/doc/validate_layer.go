package doc

func (c *checker) layer(at string, l *Layer, s *Scene, moves map[string]*Move, cues map[string]bool) {
	c.id(at+".id", l.ID)
	if c.fine[l] && len(s.Roles) == 0 {
		for i, m := range l.Moves {
			at := c.at("%s.moves[%d]", at, i)
			c.id(at+".id", m.ID)
			c.hangs(at, m, moves, cues)
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
		c.move(at, m, moves, cues)
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
	if l.Kind == InsetKind || l.Inset != nil {
		c.fail(at+".kind", "is an inset, which this Capstan cannot show yet")
	}
	c.oneOf(at+".kind", l.Kind, append([]string{Group, PathKind, TextKind, Picture, MarkerKind}, Shapes...)...)
	c.number(at+".place.x", l.Place.X, -MaxPlace, MaxPlace)
	c.number(at+".place.y", l.Place.Y, -MaxPlace, MaxPlace)
	c.number(at+".place.w", l.Place.W, 0, MaxPlace)
	c.number(at+".place.h", l.Place.H, 0, MaxPlace)
	c.number(at+".place.turn", l.Place.Turn, -MaxPlace, MaxPlace)
	c.number(at+".opacity", l.Opacity, 0, 1)
	c.number(at+".corner", l.Corner, 0, MaxPlace)
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
	switch l.Kind {
	case TextKind:
		if l.Text == nil {
			c.fail(at+".text", "is missing")
			return false
		}
		c.text(at+".text", l.Text)
	case Picture:
		if l.Picture == nil {
			c.fail(at+".picture", "is missing")
			return false
		}
		c.known(at+".picture.media", l.Picture.Media)
	case MarkerKind:
		if l.Marker == nil {
			c.fail(at+".marker", "is missing")
			return false
		}
		c.oneOf(at+".marker.style", l.Marker.Style, Dots, Bars, Count)
	case PathKind:
		if err := checkPath(l.Path); err != nil {
			c.fail(at+".path", "cannot be read: %v", err)
		}
	}
	return true
}

func (c *checker) text(at string, t *Text) {
	c.oneOf(at+".align", t.Align, Left, Centre, Right, Justified)
	if len(t.Runs) == 0 {
		c.fail(at+".runs", "is empty; a text has at least one run")
	}
	if len([]rune(t.String())) > MaxText {
		c.fail(at+".runs", "hold more than %d characters", MaxText)
	}
	c.number(at+".lineHeight", t.LineHeight, 0, 10)
	c.number(at+".letterSpacing", t.LetterSpacing, -1000, 1000)
	c.oneOf(at+".room", t.Room, "", FixedRoom, FitRoom)
	c.oneOf(at+".stand", t.Stand, "", Middle, Bottom)
	if t.Room != "" && !t.Wrap {
		c.fail(at+".room", "is for texts that wrap")
	}
	if r := t.Ring; r != nil {
		c.number(at+".ring.radius", r.Radius, 1, MaxPlace)
		c.number(at+".ring.start", r.Start, -MaxPlace, MaxPlace)
		c.number(at+".ring.share", r.Share, 0, 1)
	}
	if v := t.Plate; v != nil {
		c.colour(at+".plate.colour", v.Colour)
		c.number(at+".plate.tone", float64(v.Tone), -MaxTone, MaxTone)
		c.number(at+".plate.padding", v.Padding, 0, MaxPlace)
		c.number(at+".plate.corner", v.Corner, 0, MaxPlace)
	}
	for i, r := range t.Runs {
		at := c.at("%s.runs[%d]", at, i)
		if r.Family == "" {
			c.fail(at+".family", "is missing")
		}
		c.number(at+".weight", float64(r.Weight), 1, 1000)
		c.number(at+".size", r.Size, 1, 4000)
		c.oneOf(at+".case", r.Case, "", UpperCase, LowerCase, TitleCase)
		c.oneOf(at+".raise", r.Raise, "", Super, Sub)
		if r.Colour != "" {
			c.colour(at+".colour", r.Colour)
		}
	}
}
