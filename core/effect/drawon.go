package effect

import "math"

// DrawOn is drawn: its lines by their length, one after another, then what they enclose is filled. A pencil, a hand or a layer may follow the tip.
const DrawOn = "draw-on"

var _ = add(Effect{
	Name: DrawOn, Words: "Draw on", Rank: 66,
	Finds: "draw write sketch pencil hand trace handwriting outline paint signature pen scribble",
	Params: []Param{
		num("line", "Line", "Width of the line of what has none of its own", "px", 4, 0.5, 500).digits(1, 1),
		share("fill", "Fills for", "Share of the time in which it is filled", 0.25, 0, 90),
		choice("order", "Drawn", "Order in which its layers are drawn", Option{Words: "as they lie"}, Option{Value: "front", Words: "from the front"},
			Option{Value: "left", Words: "from the left"}, Option{Value: "top", Words: "from above"}),
		choice("equal", "Time", "How its layers share the time", Option{Words: "by their length"}, Option{Value: true, Words: "equally"}),
		choice("pointer", "By", "What draws it", Option{Words: "nothing seen"}, Option{Value: Pencil, Words: "a pencil"}, Option{Value: Brush, Words: "a brush"},
			Option{Value: Chalk, Words: "a piece of chalk"}, Option{Value: RightHand, Words: "a right hand"}, Option{Value: LeftHand, Words: "a left hand"},
			Option{Value: byLayer, Words: "a layer"}),
		Param{Name: "layer", Control: Layer, Words: "Which", Label: "Layer that draws it", Times: 1, Needs: "pointer", NeedsIs: byLayer},
		num("size", "Size", "Size of what draws it", "px", 200, 4, 8000).needs("pointer").first(func(s Setting) any { return math.Round(s.PageH*0.022) * 10 }),
		num("swing", "Swings by", "How far it turns as it goes", "°", 10, 0, 180).needs("pointer"),
	},
	Comes: &Comes{
		Says: [2]string{"is drawn", "is drawn backwards"}, ByUnit: true, Still: true, Seeded: true,
		Lasts: func(s Setting) int64 { return int64(min(4000, max(800, 1000*s.Lines/900))) },
		Pen:   pen,
		Rule: func(of Of) func(Moment) Shown {
			with := pen(of.Params)
			with.Seed = of.Seed
			return func(at Moment) Shown {
				return Shown{Opacity: 1, Drawn: Drawn{Pen: &with, P: clamp(at.P)}, Away: at.X <= 0}
			}
		},
	},
})

// What follows the tip of what is drawn; each is drawn by package frame.
const (
	Pencil    = "pencil"
	Brush     = "brush"
	Chalk     = "chalk"
	RightHand = "hand"
	LeftHand  = "left hand"
	byLayer   = "layer"
)

// Pen is how something is drawn.
type Pen struct {
	Line    float64 // px: the width of lines that it has none of its own for
	Fill    float64 // share of the time in which it is filled, 0..0.9
	Order   string  // of the layers of a group: "" as they lie, front, left, top
	Equal   bool    // each layer of a group takes as long as the others, whatever its length
	Pointer string  // what follows the tip; empty: nothing does
	Layer   string  // the layer that does, by its thread; empty: none does
	Size    float64 // px, of what follows
	Swing   float64 // degrees that it turns by at most, as it goes to and fro
	Seed    int64   // of how pictures are uncovered
}

// Drawn is how far something is drawn; the zero Drawn is all there.
type Drawn struct {
	Pen *Pen    // nil: it is not drawn
	P   float64 // 0..1
}

// Shares returns how much of the lines is drawn, and how much of the filling shows: the lines in the first 1-f of the way, the filling in the rest. What
// has nothing to fill is drawn all the way.
func (d Drawn) Shares(fills bool) (lines, fill float64) {
	f := d.Pen.Fill
	if !fills {
		f = 0
	}
	if d.P >= 1 {
		return 1, 1
	}
	if lines = clamp(d.P / (1 - f)); f > 0 {
		fill = clamp((d.P - (1 - f)) / f)
	}
	return
}

// Toward is d on its way to o, at a share, where both are of one thing.
func (d Drawn) Toward(o Drawn, share float64) Drawn {
	a, b := d.P, o.P
	if d.Pen == nil {
		a, d.Pen = 1, o.Pen
	}
	if o.Pen == nil {
		b = 1
	}
	d.P = clamp(a + (b-a)*share)
	return d
}

func pen(p Params) Pen {
	out := Pen{
		Line: p.Number("line"), Fill: min(0.9, p.Number("fill")), Order: p.Word("order"), Equal: p.Is("equal"), Pointer: p.Word("pointer"),
		Size: p.Number("size"), Swing: p.Number("swing"),
	}
	if out.Pointer == byLayer {
		out.Pointer, out.Layer = "", p.Word("layer")
	}
	return out
}
