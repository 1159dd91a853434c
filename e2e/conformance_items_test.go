package e2e

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// item is one thing to paint, alone in a scene of its own.
type item struct {
	name  string
	layer *doc.Layer
	flat  bool // has inner areas of one colour

	smooth   float64 // how far off what has no edge may be; 0: as the rest
	beyond   int     // px that it shows beyond its box
	curved   bool    // long curves, which Chromium flattens coarsely: the oracles hold them to librsvg
	edgeless bool    // covers all of its box, or has soft borders: a small shift does not show
	// Ways to get it wrong, which must be told; only says over which ground, empty for both.
	wrong map[string]func(*doc.Layer)
	only  string
}

func shapeItem(name, kind string, w, h, turn float64, more func(l *doc.Layer)) item {
	l := &doc.Layer{Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 160.3, Y: 120.7, W: w, H: h, Turn: turn}}
	if more != nil {
		more(l)
	}
	return item{name: name, layer: l, flat: kind != doc.Picture}
}

func conformanceItems(sky string) []item {
	text := func(words, family string, weight int, size, turn float64) item {
		return shapeItem(fmt.Sprintf("%s in %s %v px", words, family, size), doc.TextKind, 0, 0, turn, func(l *doc.Layer) {
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: family, Weight: weight, Size: size}}}
			l.Place.Y -= size / 2
		})
	}
	path := func(name, d string, turn float64) item {
		return shapeItem(name, doc.PathKind, 0, 0, turn, func(l *doc.Layer) { l.Path = d })
	}
	picture := func(name string, w, h, turn float64, more func(l *doc.Layer)) item {
		return shapeItem(name, doc.Picture, w, h, turn, func(l *doc.Layer) {
			l.Fill, l.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
			if more != nil {
				more(l)
			}
		})
	}
	list := []item{
		shapeItem("rectangle on odd numbers", doc.Rectangle, 121.37, 77.91, 0, nil),
		shapeItem("rectangle turned", doc.Rectangle, 140, 60, 33, nil),
		shapeItem("rounded rectangle", doc.Rectangle, 150, 90, 12, func(l *doc.Layer) { l.Corner = 22 }),
		shapeItem("see-through rectangle", doc.Rectangle, 120, 80, 0, func(l *doc.Layer) { l.Fill.Colour = "#3f7f8680" }),
		shapeItem("faint rectangle", doc.Rectangle, 120, 80, 5, func(l *doc.Layer) { l.Opacity = 0.27 }),
		shapeItem("ellipse", doc.Ellipse, 170.5, 90.25, 0, nil),
		shapeItem("ellipse turned", doc.Ellipse, 170, 50, 61, nil),
		shapeItem("ellipse turned a little", doc.Ellipse, 150, 100, 15, nil),
		shapeItem("small ellipse", doc.Ellipse, 5, 5, 0, nil),
		shapeItem("hairline", doc.Rectangle, 200, 0.6, 7, nil),
		edgeless(shapeItem("larger than the page", doc.Ellipse, 900, 700, 20, nil)),
		path("star with a hole", "M0 -90L26 -28L90 -28L38 14L56 80L0 40L-56 80L-38 14L-90 -28L-26 -28ZM-14 -10L-14 14L14 14L14 -10Z", 9),
		path("curves that cross themselves", "M-90 40C-60 -140 60 140 90 -40C60 120 -60 -120 -90 40Z", 0),
		text("Kite Day", "Shrikhand", 400, 64, 0),
		text("Fennel Quay", "Fredoka", 500, 41, -11),
		text("at ten o’clock", "Archivo", 400, 17, 0),
		picture("picture smaller", 214.7, 120.8, 0, nil),
		picture("picture turned", 180, 101, 27, nil),
		picture("picture larger", 2400, 1350, 0, nil),
		picture("part of a picture", 150, 90, 0, func(l *doc.Layer) { l.Picture.Crop = &doc.Crop{0.25, 0.1, 0.75, 0.6} }),
		picture("part of a picture, turned in its frame", 150, 90, 6, func(l *doc.Layer) {
			l.Picture.Crop, l.Picture.Turn = &doc.Crop{0.3, 0.2, 0.7, 0.6}, 25
		}),
		picture("faint picture", 150, 90, 14, func(l *doc.Layer) { l.Opacity = 0.5 }),
		wrongly(shapeItem("group that fades as a whole", doc.Group, 0, 0, 8, func(l *doc.Layer) { pair(l, 0.6) }), "", map[string]func(*doc.Layer){
			"its order exchanged": func(l *doc.Layer) { l.Children[0], l.Children[1] = l.Children[1], l.Children[0] },
			"each layer faded by itself": func(l *doc.Layer) {
				for _, c := range l.Children {
					c.Opacity = l.Opacity
				}
				l.Opacity = 1
			},
		}),
	}
	// Side by side: what one covers of a pixel on their edge adjoins what the other does.
	tiles := func(l *doc.Layer, each func(i int, c *doc.Layer)) {
		l.Fill, l.Place.X, l.Place.Y = doc.Fill{Kind: doc.NoFill}, 160.55, 120.15
		for i := range 6 {
			c := shapeItem("", doc.Rectangle, 52.3, 41.7, 0, nil).layer
			c.Place.X, c.Place.Y, c.Fill.Colour = float64(i%3-1)*52.3, (float64(i/3)-0.5)*41.7, []string{"#d8573a", "#17403c", "#f3dca6"}[(i+i/3)%3]
			each(i, c)
			l.Children = append(l.Children, c)
		}
	}
	list = append(list,
		shapeItem("tiles side by side", doc.Group, 0, 0, 0, func(l *doc.Layer) { tiles(l, func(int, *doc.Layer) {}) }),
		shapeItem("tiles side by side, turned and faint", doc.Group, 0, 0, 23, func(l *doc.Layer) {
			tiles(l, func(_ int, c *doc.Layer) { c.Opacity = 0.6 })
		}),
		shapeItem("tiles side by side, each turned its own way", doc.Group, 0, 0, 8, func(l *doc.Layer) {
			tiles(l, func(i int, c *doc.Layer) { c.Place.Turn = float64(i%2) * 180 })
		}),
		shapeItem("pictures side by side", doc.Group, 0, 0, 17, func(l *doc.Layer) {
			tiles(l, func(i int, c *doc.Layer) {
				c.Kind, c.Fill = doc.Picture, doc.Fill{Kind: doc.NoFill}
				c.Picture = &doc.PictureUse{Media: sky, Crop: &doc.Crop{float64(i%3) / 3, float64(i/3) / 2, float64(i%3+1) / 3, float64(i/3+1) / 2}}
			})
		}),
	)
	list = append(append(list, maskItems()...), gradientItems()...)
	list = append(list, strokeItems()...)
	list = append(append(list, blendItems()...), shapeItems()...)
	return append(list, effectItems(sky)...)
}

// pair puts a rectangle and an ellipse that overlap into a group.
func pair(l *doc.Layer, opacity float64) {
	a := shapeItem("", doc.Rectangle, 90, 60, 0, nil).layer
	b := shapeItem("", doc.Ellipse, 90, 90, 0, func(l *doc.Layer) { l.Fill.Colour = "#17403c" }).layer
	a.Place.X, a.Place.Y, b.Place.X, b.Place.Y = -20, -10, 30, 20
	a.ID, a.Thread, b.ID, b.Thread = "ga", "ga", "gb", "gb"
	l.Fill, l.Opacity, l.Children = doc.Fill{Kind: doc.NoFill}, opacity, []*doc.Layer{a, b}
}

// maskItems are groups that show inside of one of their layers, or beside it: sharp, soft, of letters, and two at a time.
func maskItems() []item {
	masked := func(how string, more func(mask *doc.Layer)) func(*doc.Layer) {
		return func(l *doc.Layer) {
			pair(l, 1)
			l.Children[1].Mask = how
			if more != nil {
				more(l.Children[1])
			}
		}
	}
	wrong := map[string]func(*doc.Layer){
		"without its mask": func(l *doc.Layer) { l.Children[1].Hidden = true },
		"the mask the other way": func(l *doc.Layer) {
			l.Children[1].Mask = map[string]string{doc.Inside: doc.Outside, doc.Outside: doc.Inside}[l.Children[1].Mask]
		},
	}
	// The front one of two is seen through that behind it, which goes from dark to light, half clear.
	through := func(v doc.Through) func(*doc.Layer) {
		return func(l *doc.Layer) {
			pair(l, 1)
			l.Children[0], l.Children[1] = l.Children[1], l.Children[0]
			l.Children[0].Opacity = 0.8
			l.Children[0].Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0, 0}, To: [2]float64{1, 0}, Stops: []doc.Stop{{At: 0, Colour: "#0c2523"}, {At: 1, Colour: "#f3dca6"}}}}
			v.Thread = l.Children[0].Thread
			l.Children[1].Through = &v
		}
	}
	words := func(mask *doc.Layer) {
		mask.Kind, mask.Place = doc.TextKind, doc.Place{X: -20, Y: -34}
		mask.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kite", Family: "Shrikhand", Weight: 400, Size: 42}}}
	}
	return []item{
		wrongly(shapeItem("a mask shows what lies in it", doc.Group, 0, 0, 8, masked(doc.Inside, func(m *doc.Layer) { m.Kind, m.Place.Turn = doc.Rectangle, 25 })), "", wrong),
		wrongly(shapeItem("a mask punched out", doc.Group, 0, 0, 8, masked(doc.Outside, nil)), "", wrong),
		shapeItem("words punched out of a plate", doc.Group, 0, 0, 0, masked(doc.Outside, words)),
		shapeItem("a plate within words, faint", doc.Group, 0, 0, 5, func(l *doc.Layer) { masked(doc.Inside, words)(l); l.Opacity = 0.6 }),
		smooth(shapeItem("a mask with a soft border", doc.Group, 0, 0, 0, masked(doc.Inside, func(m *doc.Layer) { m.Feather = 16 })), 3, 0),
		wrongly(shapeItem("seen through a layer behind it", doc.Group, 0, 0, 8, through(doc.Through{})), "", map[string]func(*doc.Layer){
			"where it does not cover": func(l *doc.Layer) { l.Children[1].Through.Outside = true }, "whole": func(l *doc.Layer) { l.Children[1].Through = nil },
		}),
		wrongly(smooth(shapeItem("seen through another’s light", doc.Group, 0, 0, 8, through(doc.Through{Light: true})), 3, 0), "", map[string]func(*doc.Layer){
			"where it covers": func(l *doc.Layer) { l.Children[1].Through.Light = false },
		}),
		smooth(shapeItem("seen where another is not light", doc.Group, 0, 0, 8, through(doc.Through{Light: true, Outside: true})), 3, 0),
		shapeItem("a group within two masks", doc.Group, 0, 0, 12, func(l *doc.Layer) {
			masked(doc.Inside, nil)(l)
			third := shapeItem("", doc.Rectangle, 40, 140, 20, nil).layer
			third.ID, third.Thread, third.Place.X, third.Place.Y, third.Mask = "gc", "gc", 0, 0, doc.Outside
			l.Children = append(l.Children, third)
		}),
	}
}

func edgeless(it item) item {
	it.edgeless = true
	return it
}

func smooth(it item, limit float64, beyond int) item {
	it.smooth, it.beyond, it.flat, it.edgeless = limit, beyond, false, true
	return it
}

func wrongly(it item, only string, wrong map[string]func(*doc.Layer)) item {
	it.wrong, it.only = wrong, only
	return it
}

func stops(list ...any) (out []doc.Stop) {
	for i := 0; i < len(list); i += 2 {
		out = append(out, doc.Stop{At: list[i].(float64), Colour: list[i+1].(string)})
	}
	return
}

func gradientItems() []item {
	graded := func(name, kind, shape string, w, h, turn float64, g doc.Gradient, more func(*doc.Layer)) item {
		return smooth(shapeItem(name, shape, w, h, turn, func(l *doc.Layer) {
			l.Fill = doc.Fill{Kind: kind, Gradient: &g}
			if more != nil {
				more(l)
			}
		}), 2, 0)
	}
	across := func(s []doc.Stop) doc.Gradient {
		return doc.Gradient{From: [2]float64{0, 0.5}, To: [2]float64{1, 0.5}, Stops: s}
	}
	round := func(s []doc.Stop) doc.Gradient {
		return doc.Gradient{From: [2]float64{0.5, 0.5}, To: [2]float64{1, 0.5}, Stops: s}
	}
	focused := round(stops(0.0, "#f3dca6", 0.5, "#d8573a", 1.0, "#17403c"))
	focused.Focus = &[2]float64{0.3, 0.35}
	rim := round(stops(0.0, "#ffffff", 1.0, "#17403c"))
	rim.Focus = &[2]float64{0, 0.5}
	clear := stops(0.0, "#d8573aff", 1.0, "#1f6fff00")
	return []item{
		graded("linear gradient", doc.Linear, doc.Rectangle, 200, 120, 0, across(stops(0.0, "#d8573a", 1.0, "#17403c")), nil),
		graded("linear gradient turned", doc.Linear, doc.Rectangle, 200, 90, 31, across(stops(0.0, "#f3dca6", 0.4, "#3f7f86", 1.0, "#0c2523")), nil),
		graded("slanting gradient", doc.Linear, doc.Ellipse, 190, 150, 0, doc.Gradient{From: [2]float64{0.1, 0.1}, To: [2]float64{0.8, 1.2}, Stops: stops(0.0, "#f3dca6", 1.0, "#d8573a")}, nil),
		wrongly(graded("gradient to clear", doc.Linear, doc.Rectangle, 220, 130, 0, across(clear), nil), "#000", map[string]func(*doc.Layer){
			"a premultiplied gradient": func(l *doc.Layer) { l.Fill.Gradient.Stops = premultipliedStops(clear) },
		}),
		graded("see-through gradient", doc.Linear, doc.Ellipse, 200, 140, 0, across(stops(0.0, "#d8573a40", 1.0, "#17403cc0")), func(l *doc.Layer) { l.Opacity = 0.7 }),
		graded("hard stops", doc.Linear, doc.Rectangle, 200, 120, 0, across(stops(0.0, "#d8573a", 0.25, "#d8573a", 0.25, "#f3dca6", 0.6, "#f3dca6", 0.6, "#17403c", 1.0, "#17403c")), nil),
		graded("stops within the line", doc.Linear, doc.Rectangle, 200, 120, 0, across(stops(0.3, "#d8573a", 0.7, "#17403c")), nil),
		graded("gradient without extent", doc.Linear, doc.Rectangle, 100, 80, 0, doc.Gradient{From: [2]float64{0.5, 0.5}, To: [2]float64{0.5, 0.5}, Stops: stops(0.0, "#d8573a", 1.0, "#17403c")}, nil),
		graded("radial gradient", doc.Radial, doc.Rectangle, 200, 150, 0, round(stops(0.0, "#f3dca6", 1.0, "#17403c")), nil),
		graded("radial gradient turned", doc.Radial, doc.Ellipse, 220, 120, 40, round(stops(0.0, "#ffffff", 0.3, "#e0a03a", 1.0, "#17403c00")), nil),
		graded("radial gradient with a focus", doc.Radial, doc.Ellipse, 200, 150, 0, focused, nil),
		graded("radial gradient with a focus on its rim", doc.Radial, doc.Rectangle, 180, 150, 0, rim, nil),
		graded("words with a gradient", doc.Linear, doc.TextKind, 0, 0, -7, across(stops(0.0, "#d8573a", 1.0, "#3f7f86")), func(l *doc.Layer) {
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kites", Family: "Shrikhand", Weight: 400, Size: 80}}}
			l.Place.Y -= 40
		}),
	}
}

// premultipliedStops is a gradient that would be right if colours were premultiplied before they are interpolated.
func premultipliedStops(s []doc.Stop) (out []doc.Stop) {
	var a, b [4]int
	fmt.Sscanf(s[0].Colour, "#%02x%02x%02x%02x", &a[0], &a[1], &a[2], &a[3])
	fmt.Sscanf(s[1].Colour, "#%02x%02x%02x%02x", &b[0], &b[1], &b[2], &b[3])
	for i := 0; i <= 24; i++ {
		t := float64(i) / 24
		alpha := float64(a[3])*(1-t) + float64(b[3])*t
		c := [4]int{3: int(math.Round(alpha))}
		for k := 0; k < 3 && alpha > 0; k++ {
			c[k] = int(math.Round((float64(a[k]*a[3])*(1-t) + float64(b[k]*b[3])*t) / alpha))
		}
		out = append(out, doc.Stop{At: t, Colour: fmt.Sprintf("#%02x%02x%02x%02x", c[0], c[1], c[2], c[3])})
	}
	return
}

func strokeItems() []item {
	stroked := func(name, kind string, w, h, turn float64, s doc.Stroke, more func(*doc.Layer)) item {
		if s.Fill.Kind == "" {
			s.Fill = doc.Fill{Kind: doc.Solid, Colour: "#0c2523"}
		}
		it := shapeItem(name, kind, w, h, turn, func(l *doc.Layer) {
			l.Fill.Colour, l.Stroke = "#e0a03a", &s
			if more != nil {
				more(l)
			}
		})
		it.beyond = int(s.Width*3) + 2
		return it
	}
	open := func(d string) func(*doc.Layer) {
		return func(l *doc.Layer) { l.Path, l.Fill = d, doc.Fill{Kind: doc.NoFill} }
	}
	zigzag, wave := "M-80 30L-30 -50L10 40L60 -40L80 30", "M-90 20C-40 -90 10 110 40 -20S"
	wave = wave[:len(wave)-1] + "C55 -70 80 -70 95 -20"
	// Chromium flattens curves so coarsely that pixels at the top of an ellipse lack up to a quarter of their cover (0.34 px of
	// an exact 0.34 came out as 0.21, 0.24 as none). Where a cover counts twice, straight edges keep that out of the measure.
	inside := stroked("stroke inside", doc.Rectangle, 150, 100, 15, doc.Stroke{Width: 14, Side: doc.Inside}, nil)
	return []item{
		stroked("stroke", doc.Rectangle, 130, 80, 0, doc.Stroke{Width: 9}, nil),
		stroked("stroke with round joins", doc.Rectangle, 130, 80, 21, doc.Stroke{Width: 18, Join: geom.RoundJoin}, nil),
		stroked("stroke with bevels", doc.Rectangle, 130, 80, 21, doc.Stroke{Width: 18, Join: geom.BevelJoin}, nil),
		stroked("hair stroke", doc.Ellipse, 170, 110, 0, doc.Stroke{Width: 0.7}, nil),
		wrongly(inside, "#fff", map[string]func(*doc.Layer){"its stroke outside": func(l *doc.Layer) { l.Stroke.Side = doc.Outside }}),
		stroked("stroke outside", doc.Rectangle, 150, 100, 15, doc.Stroke{Width: 14, Side: doc.Outside}, nil),
		stroked("see-through stroke", doc.Rectangle, 130, 80, 0, doc.Stroke{Width: 20, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c80"}}, nil),
		stroked("faint with a stroke", doc.Rectangle, 130, 80, 9, doc.Stroke{Width: 20}, func(l *doc.Layer) { l.Opacity = 0.4 }),
		stroked("miters within their limit", doc.PathKind, 0, 0, 0, doc.Stroke{Width: 12, MiterLimit: 10}, open(zigzag)),
		stroked("miters beyond their limit", doc.PathKind, 0, 0, 0, doc.Stroke{Width: 12, MiterLimit: 1.2}, open(zigzag)),
		stroked("round caps", doc.PathKind, 0, 0, 4, doc.Stroke{Width: 22, Cap: geom.RoundCap, Join: geom.RoundJoin}, open(wave)),
		stroked("square caps", doc.PathKind, 0, 0, 4, doc.Stroke{Width: 22, Cap: geom.SquareCap}, open("M-70 0L70 20")),
		stroked("dashes", doc.PathKind, 0, 0, 0, doc.Stroke{Width: 8, Dash: []float64{18, 7}, DashOffset: 5}, open(wave)),
		stroked("dots", doc.PathKind, 0, 0, 0, doc.Stroke{Width: 9, Dash: []float64{0, 16}, Cap: geom.RoundCap}, open(wave)),
		stroked("dashes round a rectangle", doc.Rectangle, 150, 90, 0, doc.Stroke{Width: 5, Dash: []float64{12, 6, 3}}, nil),
		smooth(stroked("stroke with a gradient", doc.Ellipse, 150, 110, 0, doc.Stroke{Width: 24, Fill: doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{To: [2]float64{1, 1}, Stops: stops(0.0, "#d8573a", 1.0, "#17403c")}}}, nil), 2, 20),
		stroked("a tight bend", doc.PathKind, 0, 0, 0, doc.Stroke{Width: 40}, open("M-60 40C-20 -70 20 -70 60 40")),
		stroked("words with a stroke", doc.TextKind, 0, 0, 0, doc.Stroke{Width: 3, Join: geom.RoundJoin}, func(l *doc.Layer) {
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Quay", Family: "Fredoka", Weight: 600, Size: 90}}}
			l.Place.Y -= 50
		}),
	}
}

func blendItems() (out []item) {
	for i, name := range doc.Blends {
		it := shapeItem("blend "+name, doc.Group, 0, 0, 0, func(l *doc.Layer) {
			pair(l, 1)
			l.Children[0].Fill.Colour = "#c86e3c"
			l.Children[1].Fill.Colour, l.Children[1].Blend = "#3f9f86c0", name
		})
		if i > 0 {
			wrong := func(l *doc.Layer) { l.Children[1].Blend = "" }
			it = wrongly(it, map[bool]string{true: "#fff"}[name == "multiply" || name == "darken" || name == "colour-burn"], map[string]func(*doc.Layer){"no blend": wrong})
		}
		out = append(out, it)
	}
	return
}

// shapeItems are all kinds of shapes as they are first drawn, with a stroke on some, and lines with heads.
func shapeItems() (out []item) {
	for i, kind := range doc.Shapes {
		it := shapeItem("shape "+kind, kind, 150, 110, float64(7*i), func(l *doc.Layer) {
			v := shape.Default(kind)
			l.Shape, l.Corner = &v, float64(i%3)*6
			if kind == doc.Line {
				l.Place.H, l.Fill = 0, doc.Fill{Kind: doc.NoFill}
				l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Width: 9, StartHead: "dot", EndHead: "triangle"}
			} else if i%4 == 1 {
				l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 5}
			}
		})
		it.curved = kind == doc.Ring || kind == doc.Heart || kind == doc.Cloud
		out = append(out, it)
	}
	for _, head := range []string{"open", "bar"} {
		out = append(out, shapeItem("head "+head, doc.Sector, 160, 120, 0, func(l *doc.Layer) {
			l.Shape, l.Fill = &doc.Shape{Start: -150, Sweep: 200, Open: true}, doc.Fill{Kind: doc.NoFill}
			l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"}, Width: 7, StartHead: head, EndHead: head}
		}))
	}
	return
}

func effectItems(sky string) []item {
	effect := func(name, kind string, w, h, turn float64, beyond int, more func(*doc.Layer)) item {
		return smooth(shapeItem(name, kind, w, h, turn, more), 4, beyond)
	}
	picture := func(l *doc.Layer) { l.Fill, l.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky} }
	dark := &doc.Shadow{X: 9, Y: 12, Blur: 6, Colour: "#00000080"}
	return []item{
		effect("a little blurred", doc.Rectangle, 120, 80, 12, 6, func(l *doc.Layer) { l.Blur = 0.8 }),
		wrongly(effect("blurred", doc.Rectangle, 120, 80, 12, 14, func(l *doc.Layer) { l.Blur = 4 }), "", map[string]func(*doc.Layer){
			"a blur of half the strength": func(l *doc.Layer) { l.Blur = 2 },
		}),
		effect("much blurred", doc.Ellipse, 140, 100, 0, 60, func(l *doc.Layer) { l.Blur = 19.5 }),
		effect("blurred picture", doc.Picture, 160, 90, 0, 14, func(l *doc.Layer) { picture(l); l.Blur = 3 }),
		effect("blurred across the page's edge", doc.Rectangle, 300, 300, 0, 0, func(l *doc.Layer) { l.Place.X, l.Place.Y, l.Blur = 20, 20, 12 }),
		wrongly(effect("feathered", doc.Rectangle, 160, 110, 0, 2, func(l *doc.Layer) { l.Feather = 24 }), "", map[string]func(*doc.Layer){
			"its feather missing": func(l *doc.Layer) { l.Feather = 0 },
		}),
		effect("feathered picture", doc.Picture, 200, 120, 17, 2, func(l *doc.Layer) { picture(l); l.Feather = 15 }),
		effect("feathered and larger than the page", doc.Picture, 500, 380, 0, 2, func(l *doc.Layer) { picture(l); l.Feather = 60 }),
		wrongly(effect("shadow", doc.Rectangle, 110, 70, 0, 24, func(l *doc.Layer) { l.Shadow = dark }), "#fff", map[string]func(*doc.Layer){
			"its shadow missing": func(l *doc.Layer) { l.Shadow = nil },
		}),
		wrongly(effect("glow", doc.Star, 110, 110, 0, 30, func(l *doc.Layer) { l.Glow = &doc.Glow{Blur: 7, Colour: "#f3dca6"} }), "#000", map[string]func(*doc.Layer){
			"its glow missing": func(l *doc.Layer) { l.Glow = nil },
		}),
		effect("glow and shadow", doc.Ellipse, 110, 80, 0, 50, func(l *doc.Layer) {
			l.Glow, l.Shadow, l.Opacity = &doc.Glow{Blur: 5, Colour: "#f3dca6"}, dark, 0.8
		}),
		wrongly(effect("texture", doc.Ellipse, 180, 130, 0, 2, func(l *doc.Layer) { l.Fill = doc.Fill{Kind: doc.Texture, Media: sky, Size: 70} }), "", map[string]func(*doc.Layer){
			"larger tiles": func(l *doc.Layer) { l.Fill.Size = 90 },
		}),
		effect("turned texture", doc.Rectangle, 160, 120, 23, 2, func(l *doc.Layer) { l.Fill = doc.Fill{Kind: doc.Texture, Media: sky, Size: 53.5} }),
		effect("picture in all its numbers", doc.Picture, 200, 120, 8, 2, func(l *doc.Layer) {
			picture(l)
			l.Adjust = &doc.Adjust{Brightness: 0.1, Contrast: 0.3, Saturation: -0.4, Hue: 40, Warmth: 0.5}
		}),
		effect("picture beyond what can be shown", doc.Picture, 200, 120, 0, 2, func(l *doc.Layer) { picture(l); l.Adjust = &doc.Adjust{Brightness: 0.8, Contrast: 0.9} }),
		effect("sharpened picture", doc.Picture, 200, 120, 0, 4, func(l *doc.Layer) { picture(l); l.Adjust = &doc.Adjust{Sharpness: 1} }),
		effect("picture from one tone to another", doc.Picture, 200, 120, 21, 2, func(l *doc.Layer) {
			picture(l)
			l.Adjust = &doc.Adjust{Toned: &doc.Toned{Amount: 0.8, Tones: []doc.Tone{{Colour: "#17403c"}, {Colour: "#f3dca6"}}}}
		}),
		effect("half-clear group of one tone, with a shadow", doc.Group, 0, 0, 8, 3, func(l *doc.Layer) {
			pair(l, 0.7)
			l.Children[1].Opacity = 0.5
			l.Shadow = &doc.Shadow{X: 5, Y: 7, Blur: 4, Colour: "#00000080"}
			l.Adjust = &doc.Adjust{Toned: &doc.Toned{Amount: 1, Tones: []doc.Tone{{Colour: "#3f7f86"}}}}
		}),
		effect("picture as a fill", doc.Star, 170, 150, 12, 2, func(l *doc.Layer) { l.Fill = doc.Fill{Kind: doc.PictureFill, Media: sky} }),
		effect("hard shadow by parts of a pixel", doc.Ellipse, 110, 70, 0, 20, func(l *doc.Layer) { l.Shadow = &doc.Shadow{X: 7.25, Y: -4.5, Colour: "#3f7f86"} }),
		effect("shadow of a turned shape", doc.Rectangle, 110, 70, 45, 24, func(l *doc.Layer) { l.Shadow = dark }),
		effect("shadow of see-through words", doc.TextKind, 0, 0, 0, 30, func(l *doc.Layer) {
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kites", Family: "Archivo", Weight: 700, Size: 70}}}
			l.Place.Y, l.Fill.Colour, l.Shadow = 80, "#d8573a90", &doc.Shadow{X: 4, Y: 6, Blur: 3, Colour: "#0c2523c0"}
		}),
		effect("blurred group in a group with a shadow", doc.Group, 0, 0, 0, 30, func(l *doc.Layer) {
			g := shapeItem("", doc.Group, 0, 0, 14, func(l *doc.Layer) { pair(l, 0.9) }).layer
			g.ID, g.Thread, g.Place.X, g.Place.Y, g.Blur = "gg", "gg", 0, 0, 3
			l.Fill, l.Opacity, l.Shadow, l.Children = doc.Fill{Kind: doc.NoFill}, 0.8, dark, []*doc.Layer{g}
		}),
		effect("faint, blended, feathered and with a shadow", doc.Ellipse, 150, 110, 0, 30, func(l *doc.Layer) {
			l.Opacity, l.Blend, l.Feather, l.Shadow = 0.8, "multiply", 10, dark
		}),
	}
}
