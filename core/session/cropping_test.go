package session_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/session"
)

func pictured(t *testing.T, place doc.Place) *session.Session {
	l := shapeOf("a", doc.Picture, 0, 0, 10, 10)
	l.Place, l.Picture, l.Fill = place, &doc.PictureUse{Media: strings.Repeat("a", 64)}, doc.Fill{Kind: doc.NoFill}
	p := with(l)
	p.Media = map[string]*doc.Media{strings.Repeat("a", 64): {Name: "x.png", Type: "image/png", Width: 400, Height: 200}}
	return open(t, p)
}

// seen is where a point of a picture's file, in shares of it, lies on the page, and what part of it is seen.
func seen(t *testing.T, s *session.Session, u, v float64) (geom.Point, doc.Crop) {
	l := thread(t, s, 0, "a")
	crop := l.Picture.Cropped()
	box, _ := s.Film.Box(0, l.ID)
	at := geom.Point{X: box.Min.X + (u-crop[0])/(crop[2]-crop[0])*box.W(), Y: box.Min.Y + (v-crop[1])/(crop[3]-crop[1])*box.H()}
	return s.Film.RestMatrix(0, l.ID).Apply(at), crop
}

// Cut off at its sides, a picture stays where it is, whichever way it is turned and flipped, and whatever it turns about; cut to a ratio it has that;
// filling its frame, the frame stays. More than all of it cannot be cut off.
func TestPicturesAreCropped(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 1))
	for i := range 16 {
		place := doc.Place{X: 160, Y: 120, W: 100 + 200*r.Float64(), H: 60 + 100*r.Float64(), Turn: 360 * r.Float64(), FlipX: i%2 == 0, FlipY: i%3 == 0}
		if i%4 == 0 {
			place.Pivot = &[2]float64{20, -10}
			place.FlipX, place.FlipY = false, false
		}
		s := pictured(t, place)
		for range 4 {
			u, v := r.Float64(), r.Float64()
			was, _ := seen(t, s, u, v)
			side := []string{"left", "top", "right", "bottom"}[r.IntN(4)]
			want(t, s, rest, "crop.sides", fmt.Sprintf(`{"threads":["a"],%q:%.3f}`, side, r.Float64()*0.45))
			if is, crop := seen(t, s, u, v); is.Sub(was).Len() > 0.05 {
				t.Fatalf("%d: cut at the %s to %v, a point goes from %v to %v", i, side, crop, was, is)
			}
		}
	}
	s := pictured(t, doc.Place{X: 160, Y: 120, W: 200, H: 100})
	want(t, s, rest, "crop.ratio", `{"threads":["a"],"across":1,"down":1}`)
	if l := thread(t, s, 0, "a"); l.Place.W != 100 || l.Place.H != 100 || *l.Picture.Crop != (doc.Crop{0.25, 0, 0.75, 1}) {
		t.Errorf("square it is %+v, %v", l.Place, *l.Picture.Crop)
	}
	want(t, s, rest, "crop.ratio", `{"threads":["a"]}`)
	if l := thread(t, s, 0, "a"); l.Place.W != 200 || l.Place.H != 100 || l.Picture.Crop != nil {
		t.Errorf("whole again it is %+v, %v", l.Place, l.Picture.Crop)
	}
	// As CSS has object-fit: cover with object-position: 50% 50%: a frame as high as wide shows the middle half of a picture twice as wide as high.
	square := edit.PlaceOf(thread(t, s, 0, "a").ID, edit.Fields{"w": 100.0, "h": 100.0})
	if _, err := s.Apply(&edit.SetLayers{Set: []edit.Part{square}}); err != nil {
		t.Fatal(err)
	}
	want(t, s, rest, "crop.fill", `{"threads":["a"]}`)
	if l := thread(t, s, 0, "a"); l.Place.W != 100 || l.Place.H != 100 || *l.Picture.Crop != (doc.Crop{0.25, 0, 0.75, 1}) {
		t.Errorf("filled it is %+v, %v", l.Place, l.Picture.Crop)
	}
	for _, args := range []string{`{"threads":["a"],"left":1}`, `{"threads":["a"],"left":-0.1}`, `{"threads":["a"],"top":0.6,"bottom":0.6}`} {
		refused(t, s, "leaves something", "crop.sides", args)
	}
}

// Through a morph a picture moves evenly within its frame, from the one crop to the other.
func TestCropsMorph(t *testing.T) {
	s := pictured(t, doc.Place{X: 160, Y: 120, W: 200, H: 100})
	want(t, s, scope.Moment{Rest: true}, "scene.continue", `{}`)
	l := s.Document().Film.Scenes[1].Layers[0]
	want(t, s, scope.Moment{Rest: true, Scene: 1}, "crop.sides", fmt.Sprintf(`{"threads":[%q],"left":0.5}`, l.Thread))
	f := s.Film
	pl := f.Player()
	last := -1.0
	for k := range 40 {
		at := motion.Millis(f.Order.Stays[0] + int64(k)*f.Order.Into[1]/39)
		list := pl.At(at, frame.View{Scale: 1})
		n := list.Numbers[len(list.Numbers)-16:] // what comes after the box it paints in is there for the last primitive, the picture
		left := -1.0
		for i := range n {
			if i+3 < len(n) && n[i+1] == 0 && n[i+2] == 1 && n[i+3] == 1 && n[i] >= 0 && n[i] <= 0.5 {
				left = n[i]
			}
		}
		if left < last || k == 0 && left != 0 || k == 39 && math.Abs(left-0.5) > 1e-6 || k > 0 && left-last > 0.06 {
			t.Fatalf("at step %d %v of it is cut off, after %v: %v", k, left, last, n)
		}
		last = left
	}
}
