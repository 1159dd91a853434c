package e2e

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"math"
	"testing"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// list writes display lists that no document makes yet.
type list struct {
	codes   []uint32
	numbers []float64
}

func (l *list) op(codes ...uint32) *list {
	l.codes = append(l.codes, codes...)
	return l
}

func (l *list) num(v ...float64) *list {
	l.numbers = append(l.numbers, v...)
	return l
}

// shape adds an outline in one colour.
func (l *list) shape(p *geom.Path, r, g, b, a float64) *list {
	l.op(display.OpOutline, uint32(len(p.Verbs)))
	for _, v := range p.Verbs {
		l.op(uint32(v))
	}
	l.op(0).num(1, 0, 0, 1, 0, 0)
	for _, q := range p.Points {
		l.num(q.X, q.Y)
	}
	return l.num(r, g, b, a)
}

func rect(x, y, w, h float64) *geom.Path {
	return geom.Rectangle(geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + w, Y: y + h}}, 0)
}

func ellipse(x, y, w, h float64) *geom.Path {
	return geom.Ellipse(geom.BoxAt(geom.Point{X: x, Y: y}, w, h))
}

// board is a pattern whose parts can be told.
func (l *list) board(x, y, w, h float64) *list {
	l.shape(rect(x, y, w, h), 0.85, 0.34, 0.23, 1)
	for i := 0.0; i < 4; i++ {
		l.shape(rect(x+i*w/4, y+math.Mod(i, 2)*h/2, w/4, h/2), 0.25, 0.5, 0.53, 1)
	}
	return l.shape(ellipse(x+w/2, y+h/2, w/2, h/2), 0.95, 0.86, 0.65, 0.8)
}

func masked(outside uint32, feather float64) *list {
	l := (&list{}).op(display.OpMask, outside).num(40, 30, 240, 180, feather).board(40, 30, 240, 180).op(display.OpNext)
	return l.shape(ellipse(150, 120, 180, 130), 0, 0, 0, 1).op(display.OpEnd)
}

// veiled is a board under a veil: its terms, with the numbers of each after its matrix and opacity.
func veiled(terms []display.VeilTerm, numbers ...[]float64) *list {
	l := (&list{}).op(display.OpVeil, uint32(len(terms))).op(terms...).num(40, 30, 240, 180)
	for _, v := range numbers {
		m := geom.Rotate(12).About(geom.Point{X: 160, Y: 120})
		l.num(m.A, m.B, m.C, m.D, m.E, m.F, 0.9).num(v...)
	}
	return l.board(40, 30, 240, 180).op(display.OpEnd)
}

func one(t display.VeilTerm, v ...float64) *list { return veiled([]display.VeilTerm{t}, v) }

// turned is a board turned about an upright axis by degrees, seen from far px away: CSS Transforms 2, perspective().
func turned(deg, far, scale float64) *list {
	sin, cos := math.Sincos(deg * math.Pi / 180)
	// (x, y) on the board, about its middle: x' = x cos, z = -x sin; seen at 160 + x' far/(far - z).
	l := (&list{}).op(display.OpProject).num(0, 0, 320, 240, -100, -70, 200, 140)
	l.num(cos*far+160*sin, 0, 160*far, 120*sin, far, 120*far, sin, 0, far)
	return l.num(scale).board(-100, -70, 200, 140).op(display.OpEnd)
}

// tiled is a tile of w x h samples, covers in one colour or RGBA, laid over a part of the page and turned.
func tiled(w, h int, depth uint32, deg float64) *list {
	var bytes []byte
	for i := range w * h {
		x, y := float64(i%w)/float64(w), float64(i/w)/float64(h)
		a := 255 * (0.5 + 0.5*math.Sin(9*x+4*y))
		if depth == 4 {
			bytes = append(bytes, byte(a*x), byte(a*y), byte(a*(1-x)))
		}
		bytes = append(bytes, byte(a))
	}
	l := (&list{}).op(display.OpTile, uint32(w), uint32(h), depth)
	for len(bytes)%4 != 0 {
		bytes = append(bytes, 0)
	}
	for i := 0; i < len(bytes); i += 4 {
		l.op(uint32(bytes[i]) | uint32(bytes[i+1])<<8 | uint32(bytes[i+2])<<16 | uint32(bytes[i+3])<<24)
	}
	m := geom.Translate(geom.Point{X: 160, Y: 120}).Mul(geom.Rotate(deg))
	return l.num(m.A, m.B, m.C, m.D, m.E, m.F, -90, -60, 180, 120, 0.85, 0.34, 0.23, 0.8)
}

// Masks with soft and hard borders, and perspective: what no document asks for yet is painted alike in page and file all the same.
func TestListsArePaintedAlike(t *testing.T) {
	project := plain()
	b := compileFor(t, project, nil)
	p := sit(t, startStudio(t))
	p.bring(project, media.NewFolder(t.TempDir()))
	for name, c := range map[string]struct {
		list, wrong *list
		it          item
		mean        float64
	}{
		"a mask":                    {masked(0, 0), masked(1, 0), item{}, 1.5},
		"a mask from outside":       {masked(1, 0), masked(0, 0), item{}, 1.5},
		"a mask with a soft border": {masked(0, 40), masked(0, 0), item{smooth: 4}, 1.5},
		"a soft mask from outside":  {masked(1, 25), masked(1, 0), item{smooth: 4}, 1.5},
		"doors":                     {one(display.VeilDoors, 1, 0, 160, 70, 0, 0), one(display.VeilDoors, 1, 0, 160, 70, 0, 1), item{}, 1.5},
		"soft doors":                {one(display.VeilDoors, 0, 1, 120, 60, 50, 0), one(display.VeilDoors, 0, 1, 120, 60, 0, 0), item{smooth: 4}, 1.5},
		"doors that barely open":    {one(display.VeilDoors, 0, 1, 120, 10, 40, 0), one(display.VeilDoors, 0, 1, 120, 30, 40, 0), item{smooth: 4}, 1.5},
		"a box":                     {one(display.VeilBox, 160, 120, 120, 90, 90, 50, 0, 0), one(display.VeilDiamond, 160, 120, 120, 90, 90, 50, 0, 0), item{}, 1.5},
		"a soft box, closing":       {one(display.VeilBox, 160, 120, 120, 90, 90, 50, 30, 1), one(display.VeilBox, 160, 120, 120, 90, 90, 50, 30, 0), item{smooth: 4}, 1.5},
		"a diamond":                 {one(display.VeilDiamond, 150, 110, 120, 90, 90, 60, 0, 0), one(display.VeilDiamond, 150, 110, 120, 90, 90, 70, 0, 0), item{}, 1.5},
		"an ellipse":                {one(display.VeilEllipse, 160, 120, 120, 60, 60, 50, 0, 0), one(display.VeilEllipse, 160, 120, 90, 60, 60, 50, 0, 0), item{}, 1.5},
		"a soft ellipse":            {one(display.VeilEllipse, 160, 120, 120, 60, 60, 70, 50, 0), one(display.VeilEllipse, 160, 120, 120, 60, 60, 70, 5, 0), item{smooth: 4}, 1.5},
		"a sector":                  {one(display.VeilSector, 160, 120, 20, 130, 0), one(display.VeilSector, 160, 120, 20, -130, 0), item{}, 1.5},
		"most of a turn":            {one(display.VeilSector, 160, 120, -40, 290, 0), one(display.VeilSector, 160, 120, -40, 290, 1), item{}, 1.5},
		"grains":                    {one(display.VeilNoise, 7, 9, 0, 0.4, 0.05, 0), one(display.VeilNoise, 8, 9, 0, 0.4, 0.05, 0), item{}, 1.5},
		"a front of noise":          {one(display.VeilNoise, 7, 40, 1, 0.5, 0.3, 0), one(display.VeilNoise, 7, 40, 1, 0.6, 0.3, 0), item{smooth: 4}, 1.5},
		"three in one": {veiled([]display.VeilTerm{display.VeilHalf, display.VeilEllipse, display.VeilOver, display.VeilSector, display.VeilTimes}, []float64{1, 0, 120, 20, 0}, []float64{220, 120, 60, 60, 60, 50, 10, 0}, []float64{160, 120, 0, 240, 0}),
			veiled([]display.VeilTerm{display.VeilHalf, display.VeilEllipse, display.VeilTimes, display.VeilSector, display.VeilOver}, []float64{1, 0, 120, 20, 0}, []float64{220, 120, 60, 60, 60, 50, 10, 0}, []float64{160, 120, 0, 240, 0}), item{}, 1.5},
		"covers":                   {tiled(37, 23, 1, 0), tiled(37, 23, 1, 2), item{smooth: 4}, 1.5},
		"a tile of colours":        {tiled(30, 20, 4, 14), tiled(30, 20, 4, 16), item{smooth: 4}, 1.5},
		"a little perspective":     {turned(20, 700, 1), turned(32, 700, 1), item{}, 3},
		"much perspective":         {turned(55, 300, 1), turned(50, 300, 1), item{}, 3},
		"perspective, few samples": {turned(-35, 500, 0.5), turned(-35, 900, 0.5), item{}, 3},
	} {
		for _, g := range []struct {
			css    string
			colour color.RGBA
		}{{"#000", color.RGBA{0, 0, 0, 255}}, {"#fff", color.RGBA{255, 255, 255, 255}}} {
			page := p.listed(c.list, 320, 240, g.css)
			paint := func(l *list) *image.RGBA {
				return b.paint(t, &frame.List{Width: 320, Height: 240, Codes: l.codes, Numbers: l.numbers}, g.colour, geom.Identity)
			}
			file := paint(c.list)
			ok := func(d difference) bool {
				if c.mean > 1.5 { // perspective is held to its mean
					return d.mean <= c.mean
				}
				return d.ok(c.it)
			}
			box := image.Rect(30, 20, 290, 220)
			if d := compare(page, file, box); !ok(d) {
				t.Errorf("%s over %s: mean %.2f, 99.9th percentile %.0f, worst %.0f, smooth %.0f", name, g.css, d.mean, d.p999, d.max, d.smooth)
				keepPair(t, name+" "+g.css, page, file)
			}
			if d := compare(page, paint(c.wrong), box); ok(d) {
				t.Errorf("%s over %s, wrong on purpose, passes: mean %.2f", name, g.css, d.mean)
			}
		}
	}
}

func (p *person) listed(l *list, w, h int, ground string) *image.RGBA {
	p.t.Helper()
	codes, _ := json.Marshal(l.codes)
	numbers, _ := json.Marshal(l.numbers)
	raw := browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`capstanProbe.listed(%s, %s, %d, %d, %q)`, codes, numbers, w, h, ground))
	data, err := base64.StdEncoding.DecodeString(raw)
	if err != nil {
		p.t.Fatal(err)
	}
	return &image.RGBA{Pix: data, Stride: 4 * w, Rect: image.Rect(0, 0, w, h)}
}
