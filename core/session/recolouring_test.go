package session_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/ink"
	"capstan/core/paint"
)

// coloured is a group of layers in a few colours, one from a role, one in a change.
func coloured() *doc.Project {
	g := shapeOf("g", doc.Group, 0, 0, 0, 0)
	g.Fill = doc.Fill{Kind: doc.NoFill}
	a, b, c := shapeOf("a", doc.Rectangle, 10, 10, 20, 20), shapeOf("b", doc.Ellipse, 40, 10, 20, 20), shapeOf("c", doc.Star, 70, 10, 20, 20)
	b.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0, 0}, To: [2]float64{1, 0}, Stops: []doc.Stop{{At: 0, Colour: "#d8573a"}, {At: 1, Colour: "#17403c"}}}}
	c.Fill = doc.Fill{Kind: doc.Solid, Colour: "#8ec6da", Role: "ground"}
	a.Moves = []*doc.Move{{ID: "m", Kind: doc.Change, Effect: doc.Becoming, Start: doc.Start{When: doc.AtTime}, Duration: 500, Change: &doc.ChangeParams{To: doc.Becomes{Fill: &doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}}}}}
	g.Children = []*doc.Layer{a, b, c}
	p := with(g)
	p.Film.Scenes[0].Roles = map[string]string{"ground": "#8ec6da", "accent": "#d8573a"}
	return p
}

func codes(l *doc.Layer, sc *doc.Scene) (list []string) {
	ink.Within(l, func(k ink.Ink) { list = append(list, fmt.Sprintf("%s %s%+d", ink.Resolved(k, sc), *k.Role, *k.Tone)) })
	return
}

// A colour changes wherever it is in a group, gradients and changes too, and nowhere else; bound to a role it follows that. Mapped onto roles every
// colour becomes the tone nearest in OKLab.
func TestGroupsAreRecoloured(t *testing.T) {
	s := open(t, coloured())
	all := func() []string {
		return codes(s.Document().Film.Scenes[0].Layers[0], s.Document().Film.Scenes[0])
	}
	want1(t, s, "recolour.one", `{"threads":["g"],"from":{"colour":"#d8573a"},"to":{"colour":"#d8573a","role":"accent","tone":-2}}`)
	accent, _ := paint.Parse("#d8573a")
	tone := accent.Tone(-2).String() + " accent-2"
	if is := fmt.Sprint(all()); is != fmt.Sprint([]string{tone, tone, tone, "#17403c +0", "#8ec6da ground+0"}) {
		t.Errorf("one changed, they are %s", is)
	}
	s = open(t, coloured())
	want1(t, s, "recolour.nearest", `{"threads":["g"],"roles":true}`)
	sc := s.Document().Film.Scenes[0]
	for i, from := range []string{"#d8573a", "#d8573a", "#d8573a", "#17403c", "#8ec6da"} {
		c, _ := paint.Parse(from)
		best := math.Inf(1)
		for _, role := range sc.Roles {
			r, _ := paint.Parse(role)
			for k := -5; k <= 5; k++ {
				best = min(best, paint.Apart(c, r.Tone(k)))
			}
		}
		var is string
		fmt.Sscan(all()[i], &is)
		if v, _ := paint.Parse(is); paint.Apart(c, v) > best+0.004 { // codes are whole bytes
			t.Errorf("%s became %s, %.4f away, and %.4f is the nearest", from, all()[i], paint.Apart(c, v), best)
		}
	}
}

// Hue goes round, lightness adds up, chroma multiplies, as far as sRGB has it; greys have no hue to turn, and see-through colours stay so.
func TestColoursAreShifted(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 3))
	for range 300 {
		c := paint.Colour{R: 0.2 + 0.6*r.Float64(), G: 0.2 + 0.6*r.Float64(), B: 0.2 + 0.6*r.Float64(), A: r.Float64()}
		hue, light := 720*r.Float64()-360, 0.1*(r.Float64()-0.5)
		v, w := c.Lab(), c.Shifted(hue, light, -0.5).Lab()
		turned := math.Remainder(math.Atan2(w.B, w.A)*180/math.Pi-math.Atan2(v.B, v.A)*180/math.Pi-hue, 360)
		chroma := math.Hypot(v.A, v.B)
		if chroma > 0.02 && (math.Abs(turned) > 0.5 || math.Hypot(w.A, w.B) > chroma/2+1e-3) || math.Abs(w.L-v.L-light) > 2e-3 || w.Alpha != c.A {
			t.Fatalf("%+v by %.0f° and %.3f is %+v: turned by %.2f° more", c, hue, light, w, turned)
		}
	}
	grey := paint.Colour{R: 0.5, G: 0.5, B: 0.5, A: 1}
	if v := grey.Shifted(90, 0, 1); paint.Apart(v, grey) > 1e-3 {
		t.Errorf("a grey becomes %s", v)
	}
}

// What a drawing has in the colour of a role, or of a tone of one, follows that role when it comes in; all else stays as it is.
func TestDrawingsFollowTheRolesTheyAreDrawnIn(t *testing.T) {
	s := open(t, coloured())
	accent, _ := paint.Parse("#d8573a")
	want1(t, s, "add.drawing", fmt.Sprintf(`{"layer":{"id":"d","thread":"d","name":"Drawing","kind":"group","opacity":1,"fill":{"kind":"none"},"place":{"x":0,"y":0},"children":[
		{"id":"d1","thread":"d1","name":"Sail","kind":"path","path":"M0 0L9 0 9 9Z","opacity":1,"place":{"x":0,"y":0},"fill":{"kind":"colour","colour":"#d8573a"},"stroke":{"width":2,"fill":{"kind":"colour","colour":"%s"}}},
		{"id":"d2","thread":"d2","name":"Mast","kind":"path","path":"M0 0L9 0 9 9Z","opacity":1,"place":{"x":0,"y":0},"fill":{"kind":"colour","colour":"#123456"}}]}}`, accent.Tone(2)))
	sc := s.Document().Film.Scenes[0]
	if is, want := fmt.Sprint(codes(sc.Layers[1], sc)), fmt.Sprintf("[#d8573a accent+0 %s accent+2 #123456 +0]", accent.Tone(2)); is != want {
		t.Errorf("its colours are %s, not %s", is, want)
	}
}
