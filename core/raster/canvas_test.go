package raster_test

import (
	"bytes"
	"fmt"
	"image"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// wild is a film of random layers with random looks and moves, over several scenes joined by every transition.
func wild(r *rand.Rand) *doc.Project {
	p := doc.NewProject("p", "p", 200, 120, "s0")
	n := 0
	id := func() string { n++; return fmt.Sprint("w-", n) }
	colour := func() string {
		if r.IntN(3) == 0 {
			return fmt.Sprintf("#%06x%02x", r.IntN(1<<24), r.IntN(256))
		}
		return fmt.Sprintf("#%06x", r.IntN(1<<24))
	}
	fill := func() doc.Fill {
		if r.IntN(4) > 0 {
			return doc.Fill{Kind: doc.Solid, Colour: colour()}
		}
		return doc.Fill{Kind: []string{doc.Linear, doc.Radial}[r.IntN(2)], Gradient: &doc.Gradient{
			From: [2]float64{r.Float64(), r.Float64()}, To: [2]float64{r.Float64(), r.Float64() + 0.1},
			Stops: []doc.Stop{{At: 0, Colour: colour()}, {At: r.Float64(), Colour: colour()}, {At: 1, Colour: colour()}},
		}}
	}
	var layer func(depth int) *doc.Layer
	layer = func(depth int) *doc.Layer {
		l := &doc.Layer{ID: id(), Kind: []string{doc.Rectangle, doc.Ellipse, doc.Group}[r.IntN(3)], Opacity: 1, Fill: fill()}
		l.Thread = fmt.Sprint("t", r.IntN(1<<20), l.ID)
		l.Place = doc.Place{X: r.Float64()*240 - 20, Y: r.Float64()*160 - 20, W: 2 + r.Float64()*60, H: 2 + r.Float64()*60, Turn: float64(r.IntN(4)) * r.Float64() * 90}
		if r.IntN(4) == 0 {
			l.Opacity = r.Float64()
		}
		if l.Kind == doc.Group {
			if depth > 1 {
				l.Kind = doc.Rectangle
			} else {
				l.Place.W, l.Place.H, l.Fill = 0, 0, doc.Fill{Kind: doc.NoFill}
				for range r.IntN(4) {
					k := layer(depth + 1)
					k.Place.X, k.Place.Y = r.Float64()*80-40, r.Float64()*80-40
					l.Children = append(l.Children, k)
				}
			}
		}
		if l.Kind != doc.Group && r.IntN(3) == 0 {
			l.Stroke = &doc.Stroke{Fill: fill(), Width: 1 + r.Float64()*8, Side: []string{"", doc.Inside, doc.Outside}[r.IntN(3)]}
		}
		switch r.IntN(9) {
		case 0:
			l.Blur = r.Float64() * 6
		case 1:
			l.Feather = r.Float64() * 12
		case 2:
			l.Shadow = &doc.Shadow{X: r.Float64()*20 - 10, Y: r.Float64() * 10, Blur: r.Float64() * 5, Colour: colour()}
		case 3:
			l.Blend = doc.Blends[r.IntN(len(doc.Blends))]
		}
		if r.IntN(3) == 0 {
			m := &doc.Move{ID: id(), Start: doc.Start{When: doc.AtTime, Offset: int64(r.IntN(300))}, Duration: 100 + int64(r.IntN(600))}
			switch r.IntN(5) {
			case 0:
				m.Kind, m.Effect = doc.Entrance, effect.Fade
			case 1:
				m.Kind, m.Effect, m.Params = doc.Entrance, effect.Wipe, effect.Params{"direction": r.Float64() * 360, "softness": r.Float64() * 20}
			case 2:
				m.Kind, m.Effect, m.Params = doc.Loop, effect.Spin, effect.Params{}
			case 3:
				m.Kind, m.Effect, m.Path = doc.MotionPath, doc.Along, &doc.PathParams{D: fmt.Sprintf("M0 0L%d %d", r.IntN(100)-50, r.IntN(80)-40)}
			default:
				m.Kind, m.Effect, m.Duration, m.Lasts, m.Params = doc.Loop, effect.Scroll, 0, doc.WholeScene, effect.Params{"speed": 40.0, "gap": 20.0}
			}
			l.Moves = append(l.Moves, m)
		}
		return l
	}
	p.Film.Scenes = nil
	for i := range 2 {
		s := doc.NewScene(fmt.Sprint("s", i), "s")
		s.Stay, s.Background = 500, fill()
		if i > 0 {
			s.Transition = doc.Transition{Kind: []string{doc.Crossfade, doc.Morph, effect.Wipe, effect.Push}[r.IntN(4)], Duration: 300}
		}
		for range 1 + r.IntN(7) {
			s.Layers = append(s.Layers, layer(0))
		}
		if i > 0 {
			// Some go on from the scene before.
			for k, l := range p.Film.Scenes[0].Layers {
				if k < len(s.Layers) && r.IntN(2) == 0 {
					s.Layers[k].Thread = l.Thread
				}
			}
		}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	return p
}

// What is painted by damage is what is painted whole, byte for byte, in 200 random films, forwards by uneven steps and back;
// and the tiles converted to YUV by damage are those converted whole.
func TestDamageIsTheWholePicture(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 42))
	partial, shares := 0, 0.0
	for film := range 200 {
		p := wild(r)
		if err := p.Validate(); err != nil {
			t.Fatal(film, err)
		}
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		player := f.Player()
		canvas := raster.NewCanvas(raster.NewPainter(f, nil), 200, 120)
		fresh := raster.NewPainter(f, nil)
		whole := image.NewRGBA(image.Rect(0, 0, 200, 120))
		yuv, want := make([]byte, 200*120*3/2), make([]byte, 200*120*3/2)
		at := int64(0)
		for range 24 {
			at += int64([]int{0, 33, 33, 33, 66, 100, -200}[r.IntN(7)])
			at = min(max(at, 0), f.Order.Length)
			list := player.At(motion.Millis(at), frame.View{Scale: 1})
			if err := canvas.Show(list); err != nil {
				t.Fatal(err)
			}
			if err := fresh.Paint(whole, list); err != nil {
				t.Fatal(err)
			}
			if !bytes.Equal(canvas.Image().Pix, whole.Pix) {
				for i := range whole.Pix {
					if whole.Pix[i] != canvas.Image().Pix[i] {
						t.Fatalf("film %d at %d ms: pixel %d, %d is %v by damage, %v painted whole", film, at, i/4%200, i/4/200, canvas.Image().Pix[i&^3:i&^3+4], whole.Pix[i&^3:i&^3+4])
					}
				}
			}
			raster.YUVTiles(yuv, canvas.Image(), canvas.Damage())
			if raster.YUV(want, whole); !bytes.Equal(yuv, want) {
				t.Fatalf("film %d at %d ms: YUV by damage differs", film, at)
			}
			if !canvas.Damage().Full() {
				partial++
			}
			shares += canvas.Damage().Share()
		}
	}
	if partial < 500 {
		t.Errorf("only %d of 4800 frames were painted in part", partial)
	}
	t.Logf("%.0f %% of all tiles were painted", shares/48)
}
