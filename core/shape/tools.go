package shape

import (
	"capstan/core/effect"
	"capstan/core/geom"
)

// ToolPart is an outline of a tool, in hundredths of its size about its tip, and its colour: a role of the scene, or a colour where that has none.
type ToolPart struct {
	Path   *geom.Path
	Role   string
	Tone   int
	Colour string
}

type part struct {
	d      string
	line   float64 // it is a line so wide; 0: it is filled
	role   string  // one of those that a scene begins with
	tone   int
	colour string
}

// Tools that follow the tip of what is drawn, drawn for Capstan. Those that are held lie along x, their tip at 0.
var (
	pencil = []part{
		{d: "M18 -6H84V6H18Z", role: "accent", colour: "#d8573a"},
		{d: "M18 -2.2H84V2.2H18Z", role: "accent", tone: 2, colour: "#e98a72"},
		{d: "M0 0L18 -6C16 -4 16 -3 18 -2C16 -1 16 1 18 2C16 3 16 4 18 6Z", role: "ground tone", tone: 1, colour: "#f0d8b0"},
		{d: "M0 0L6.5 -2.2L6.5 2.2Z", role: "words", colour: "#17403c"},
		{d: "M83 -6H90V6H83Z", role: "words", tone: 3, colour: "#7f9a97"},
		{d: "M90 -6H95C99 -6 101 -3 101 0C101 3 99 6 95 6H90Z", role: "accent tone", colour: "#e0a03a"},
	}
	brush = []part{
		{d: "M38 -4.5C55 -7 70 -3 100 -1.6C102 -1 102 1 100 1.6C70 3 55 7 38 4.5Z", role: "accent", colour: "#d8573a"},
		{d: "M23 -5H39V5H23Z", role: "words", tone: 3, colour: "#7f9a97"},
		{d: "M0 0C6 -3 12 -8 24 -5V5C12 8 6 3 0 0Z", role: "words", colour: "#17403c"},
	}
	chalk = []part{
		{d: "M0 0L5 -6H46C50 -4 50 4 46 6H3Z", role: "ground", tone: 2, colour: "#fdf6e3"},
		{d: "M2 3.2H48.6C48 4.6 47 5.6 46 6H3Z", role: "ground tone", colour: "#d9cbb0"},
		{d: "M0 0L5 -6H46C50 -4 50 4 46 6H3Z", line: 0.8, role: "words", colour: "#17403c"},
	}
	// A hand about a pencil that leans to the upper right, from the lower right.
	hand = []part{
		{d: "M58 20L112 70C120 78 110 96 98 92L34 46Z", role: "accent", tone: -1, colour: "#a83f27"},
		{d: "M56 14L72 30C64 40 54 48 44 50L30 38Z", role: "ground", tone: 2, colour: "#fdf6e3"},
		{d: "M22 -10C28 -24 44 -26 54 -18C68 -8 72 10 62 26C54 40 36 46 26 36C16 26 14 6 22 -10Z", role: "ground tone", colour: "#f0c9a8"},
		{d: "M22 -10C28 -24 44 -26 54 -18C68 -8 72 10 62 26C54 40 36 46 26 36C16 26 14 6 22 -10Z", line: 1.6, role: "words", colour: "#17403c"},
		{d: "M24 24C18 26 14 20 17 15M26 33C20 36 15 31 17 25", line: 1.6, role: "words", colour: "#17403c"},
	}
	// In front of the pencil: the first finger along it, and the thumb.
	fingers = []part{
		{d: "M48 -20C42 -30 30 -30 22 -24C17 -20 14 -15 12 -10C10 -5 16 -2 20 -6C25 -12 32 -16 38 -12Z", role: "ground tone", colour: "#f0c9a8"},
		{d: "M48 -20C42 -30 30 -30 22 -24C17 -20 14 -15 12 -10C10 -5 16 -2 20 -6C25 -12 32 -16 38 -12", line: 1.6, role: "words", colour: "#17403c"},
		{d: "M46 2C36 -4 26 -4 18 -1C12 1 13 8 19 8C25 8 32 8 38 14Z", role: "ground tone", colour: "#f0c9a8"},
		{d: "M46 2C36 -4 26 -4 18 -1C12 1 13 8 19 8C25 8 32 8 38 14", line: 1.6, role: "words", colour: "#17403c"},
	}
)

// lean is how far what is held is turned from lying to the right of its tip, in degrees.
const lean = -52

// Tool returns what follows a tip, back to front; nothing for a name that there is nothing of.
func Tool(name string) (parts []ToolPart) {
	add := func(list []part, m geom.Matrix) {
		for _, q := range list {
			p, err := geom.ParseData(q.d)
			if err != nil {
				continue // a test reads them all
			}
			if q.line > 0 {
				p = p.Stroke(geom.Pen{Width: q.line, Cap: geom.RoundCap, Join: geom.RoundJoin})
			}
			out := &geom.Path{}
			out.Append(p, m)
			parts = append(parts, ToolPart{out, q.role, q.tone, q.colour})
		}
	}
	held, side := geom.Rotate(lean), geom.Identity
	switch name {
	case effect.Pencil:
		add(pencil, held)
	case effect.Brush:
		add(brush, held)
	case effect.Chalk:
		add(chalk, held)
	case effect.LeftHand, effect.RightHand:
		if name == effect.LeftHand {
			side = geom.Scale(-1, 1)
		}
		add(hand, side)
		add(pencil, side.Mul(held))
		add(fingers, side)
	}
	return
}
