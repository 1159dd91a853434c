package doc

import (
	"slices"

	"capstan/core/geom"
)

// Blends are the blend modes of layers, those of W3C Compositing and Blending 1 that work on channels one by one, in the
// order of their codes in display lists. The first is also meant by an empty blend.
var Blends = []string{
	"normal", "multiply", "screen", "overlay", "darken", "lighten", "colour-dodge", "colour-burn", "hard-light", "soft-light",
	"difference", "exclusion",
}

// look checks what a layer is painted with.
func (c *checker) look(at string, l *Layer, s *Scene) {
	c.fill(at+".fill", l.Fill, s.Roles)
	if l.Blend != "" && !slices.Contains(Blends, l.Blend) {
		c.fail(at+".blend", "is %q; it must be one of %q", l.Blend, Blends)
	}
	c.number(at+".blur", l.Blur, 0, MaxEffect)
	c.number(at+".feather", l.Feather, 0, MaxEffect)
	if v := l.Shadow; v != nil {
		c.number(at+".shadow.x", v.X, -MaxShadow, MaxShadow)
		c.number(at+".shadow.y", v.Y, -MaxShadow, MaxShadow)
		c.number(at+".shadow.blur", v.Blur, 0, MaxEffect)
		c.ink(at+".shadow", v.Colour, v.Role, v.Tone, s.Roles)
	}
	if v := l.Glow; v != nil {
		c.number(at+".glow.blur", v.Blur, 0, MaxEffect)
		c.ink(at+".glow", v.Colour, v.Role, v.Tone, s.Roles)
	}
	c.adjust(at+".adjust", l.Adjust, s)
	if v := l.Through; v != nil && (v.Thread == "" || len(v.Thread) > 100 || v.Thread == l.Thread) {
		c.fail(at+".through", "must name another layer by its thread")
	}
	c.stroke(at+".stroke", l, s)
}

func (c *checker) stroke(at string, l *Layer, s *Scene) {
	if v := l.Stroke; v != nil {
		if !l.Is().Stroked && l.Kind != MarkerKind { // older markers may have one, which shows nothing
			c.fail(at, "belongs to shapes, paths and texts")
		}
		c.fill(at+".fill", v.Fill, s.Roles)
		c.number(at+".width", v.Width, 0, MaxSide)
		c.oneOf(at+".side", v.Side, "", Inside, Outside)
		c.oneOf(at+".cap", v.Cap, "", geom.ButtCap, geom.RoundCap, geom.SquareCap)
		c.oneOf(at+".join", v.Join, "", geom.MiterJoin, geom.RoundJoin, geom.BevelJoin)
		c.number(at+".miterLimit", v.MiterLimit, 0, 1000)
		c.number(at+".dashOffset", v.DashOffset, -MaxPlace, MaxPlace)
		if len(v.Dash) > MaxDashes {
			c.fail(at+".dash", "has %d lengths; a pattern has at most %d", len(v.Dash), MaxDashes)
		}
		for _, d := range v.Dash {
			c.number(at+".dash", d, 0, MaxPlace)
		}
		c.oneOf(at+".startHead", v.StartHead, geom.Heads...)
		c.oneOf(at+".endHead", v.EndHead, geom.Heads...)
		if v.Trim != nil && !(v.Trim[0] >= 0 && v.Trim[0] <= v.Trim[1] && v.Trim[1] <= 1) {
			c.fail(at+".trim", "is %v; it must be two shares from 0 to 1, the lower one first", *v.Trim)
		}
	}
}

func (c *checker) fill(at string, f Fill, roles map[string]string) {
	c.oneOf(at+".kind", f.Kind, NoFill, Solid, Linear, Radial, PictureFill, Texture)
	switch f.Kind {
	case Solid:
		c.ink(at, f.Colour, f.Role, f.Tone, roles)
	case PictureFill, Texture:
		c.known(at+".media", f.Media)
		c.number(at+".size", f.Size, 0, MaxPlace)
	}
	if !f.Graded() {
		return
	}
	g := f.Gradient
	at += ".gradient"
	if g == nil {
		c.fail(at, "is missing")
		return
	}
	for _, p := range [][2]float64{g.From, g.To, orZero(g.Focus)} {
		c.number(at, p[0], -MaxShares, MaxShares)
		c.number(at, p[1], -MaxShares, MaxShares)
	}
	if g.Ratio != 0 {
		c.number(at+".ratio", g.Ratio, 1.0/MaxShares, MaxShares)
	}
	if len(g.Stops) < 2 || len(g.Stops) > MaxStops {
		c.fail(at+".stops", "are %d; a gradient has 2 to %d", len(g.Stops), MaxStops)
	}
	last := 0.0
	for i, s := range g.Stops {
		at := c.at("%s.stops[%d]", at, i)
		c.number(at+".at", s.At, last, 1)
		c.ink(at, s.Colour, s.Role, s.Tone, roles)
		last = s.At
	}
}

func orZero(p *[2]float64) [2]float64 {
	if p == nil {
		return [2]float64{}
	}
	return *p
}

// ink checks a colour that may be a role.
func (c *checker) ink(at, colour, role string, tone int, roles map[string]string) {
	c.number(at+".tone", float64(tone), -MaxTone, MaxTone)
	if role != "" && colour == "" && roles[role] == "" {
		c.fail(at+".role", "is %q, a role this scene does not have, and there is no colour beside it", role)
	}
	if role == "" || colour != "" {
		c.colour(at+".colour", colour)
	}
}
