package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// everyEffect is a film with a scene for every effect, as an entrance or as a loop: on a turned rectangle, on a picture, on a text letter by letter and
// on a group part by part, where it goes by unit. The pages change by every effect of pages in turn. It returns what each scene is of.
func everyEffect(t *testing.T, files *media.Folder) (*doc.Project, []string) {
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	p := doc.NewProject("effects", "Effects", 320, 240, "e0")
	p.Film.Scenes, p.Media = nil, map[string]*doc.Media{sky: facts}
	var of []string
	pages := []doc.Transition{}
	for _, e := range effect.All() {
		if e.Pages != nil {
			pages = append(pages, doc.Transition{Kind: e.Name, Duration: 400}, doc.Transition{Kind: e.Name, Duration: 400, Params: effect.Params{"from": "outside", "softness": 30.0, "anticlockwise": true, "stand": "level", "shape": "diamond"}})
		}
	}
	scene := func(e *effect.Effect, kind string) {
		n := len(p.Film.Scenes)
		s := doc.NewScene(fmt.Sprint("e", n), e.Words+" "+kind)
		s.Stay, s.Background = 1000, doc.Fill{Kind: doc.Solid, Colour: []string{"#f3dca6", "#8ec6da"}[n%2]}
		if n > 0 {
			s.Transition = pages[n%len(pages)]
		}
		add := func(id string, l *doc.Layer, unit string) {
			l.ID, l.Opacity, l.Name = fmt.Sprint(id, n), 1, id
			l.Thread = "t-" + l.ID
			m := &doc.Move{
				ID: "m" + l.ID, Kind: kind, Effect: e.Name, Start: doc.Start{When: doc.AtTime}, Unit: unit, Overlap: 0.4, Seed: 9,
				Params: e.Fresh(e.Offer(kind, ""), effect.Setting{PageW: 320, PageH: 240}),
			}
			if e.Name == effect.Waver { // so much that it can be told
				m.Params = effect.Params{"by": 1.0}
			}
			switch g := m.Goes(); {
			case g == nil && !m.Timeless():
				m.Duration = 900
			case g != nil:
				m.Lasts = doc.WholeScene
				if g.Cycle == nil && !m.Runs() {
					m.Duration = 700
				}
			}
			l.Moves = []*doc.Move{m}
			if e.Goes != nil && e.Goes.Round != nil {
				l.Moves = append(l.Moves, &doc.Move{ID: "p" + l.ID, Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime}, Duration: 900, Path: &doc.PathParams{D: "M0 0L90 20"}})
			}
			s.Layers = append(s.Layers, l)
		}
		unit := func(of string) string {
			if kind == doc.Loop && e.Goes.ByUnit || kind != doc.Loop && e.Comes.ByUnit {
				return of
			}
			return ""
		}
		solid := func(c string) doc.Fill { return doc.Fill{Kind: doc.Solid, Colour: c} }
		if e.Goes == nil || !e.Goes.Parted || kind != doc.Loop {
			add("box", &doc.Layer{Kind: doc.Rectangle, Fill: solid("#d8573a"), Place: doc.Place{X: 60, Y: 30, W: 110, H: 70, Turn: 20}}, "")
			add("photo", &doc.Layer{Kind: doc.Picture, Fill: doc.Fill{Kind: doc.NoFill}, Corner: 12, Picture: &doc.PictureUse{Media: sky}, Place: doc.Place{X: 250, Y: 175, W: 110, H: 62, Turn: -8}}, "")
			add("words", &doc.Layer{Kind: doc.TextKind, Fill: solid("#17403c"), Place: doc.Place{X: 30, Y: 150},
				Text: &doc.Text{Align: doc.Left, LineHeight: 1, Runs: []doc.Run{{Text: "Kite day", Family: "Archivo", Weight: 700, Size: 40}}}}, unit(doc.ByLetter))
		}
		g := &doc.Layer{Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 190, Y: 40}}
		for i, c := range []string{"#e0a03a", "#3f7f86", "#fdf6e3"} {
			id := fmt.Sprint("part", i, "-", n)
			g.Children = append(g.Children, &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Ellipse, Opacity: 1, Fill: solid(c), Place: doc.Place{X: float64(30 * i), Y: float64(12 * i), W: 40, H: 50}})
		}
		add("group", g, unit(doc.ByPart))
		p.Film.Scenes = append(p.Film.Scenes, s)
		of = append(of, s.Name)
	}
	for _, e := range effect.All() {
		if e.Comes != nil {
			scene(e, doc.Entrance)
		}
		if e.Goes != nil {
			scene(e, doc.Loop)
		}
	}
	return p, of
}

// Every effect looks the same in page and file, as an entrance or loop at five times, and in the transitions of pages between (references.md: by
// item). That a tenth of a second shows is the control: each differs then, but for what is at once.
func TestEveryEffectLooksTheSameInPageAndFile(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	project, of := everyEffect(t, files)
	b := compileFor(t, project, files)
	p := sit(t, startStudio(t))
	p.bring(project, files)
	player := b.film.Player()
	file := func(ms float64) *image.RGBA {
		return b.paint(t, player.At(motion.Seconds(ms/1000), frame.View{Scale: 1}), color.RGBA{0, 0, 0, 255}, geom.Identity)
	}
	all := image.Rect(0, 0, 320, 240)
	alike := func(d difference) bool { return d.mean <= 1 && d.p999 <= 40 && d.max <= 90 }
	for i, name := range of {
		begin := float64(b.film.Order.Begin(i))
		told := false
		times := []float64{80, 300, 500, 700, 880}
		if i > 0 {
			times = append(times, -310, -170)
		}
		for _, ms := range times {
			page := p.pixels(0, begin+ms, false, 320, 240, "#000")
			if d := compare(page, file(begin+ms), all); !alike(d) {
				t.Errorf("%s %.0f ms in: mean %.2f, 99.9th percentile %.0f, worst %.0f", name, ms, d.mean, d.p999, d.max)
			}
			told = told || ms > 0 && !alike(compare(page, file(begin+ms+100), all))
		}
		if !told && !strings.Contains(name, "At once") {
			t.Errorf("%s: a tenth of a second late is not told", name)
		}
	}
}

// The areas that doors, iris and clock uncover are those of SMIL's barnDoorWipe, irisWipe, ellipseWipe and clockWipe (SMIL 3.0, 12.8), drawn as
// SVG by Chromium, pixel by pixel within what an edge may differ by.
func TestFrontsUncoverTheShapesOfSMIL(t *testing.T) {
	p := sit(t, startStudio(t))
	const w, h = 320.0, 240.0
	cx, cy := w/2, h/2
	path := func(format string, v ...any) string { return fmt.Sprintf(format, v...) }
	sector := func(start, sweep float64) string {
		at := func(deg float64) (x, y float64) {
			a := (deg - 90) * math.Pi / 180
			return cx + 400*math.Cos(a), cy + 400*math.Sin(a)
		}
		d := path("M%v %v", cx, cy)
		for k := 0.0; k <= 32; k++ { // a fan that goes beyond the box
			x, y := at(start + sweep*k/32)
			d += path("L%v %v", x, y)
		}
		return d + "Z"
	}
	for _, c := range []struct {
		effect string
		params effect.Params
		shape  func(share float64) string // what is uncovered, as path data
	}{
		{effect.BarnDoors, nil, func(q float64) string { return path("M%v 0H%vV%vH%vZ", cx-q*cx, cx+q*cx, h, cx-q*cx) }},
		{effect.BarnDoors, effect.Params{"stand": "level"}, func(q float64) string { return path("M0 %vV%vH%vV%vZ", cy-q*cy, cy+q*cy, w, cy-q*cy) }},
		{effect.BarnDoors, effect.Params{"from": "outside"}, func(q float64) string {
			return path("M0 0H%vV%vH0ZM%v 0H%vV%vH%vZ", q*cx, h, w-q*cx, w, h, w-q*cx)
		}},
		{effect.Iris, effect.Params{"shape": "rectangle"}, func(q float64) string {
			return path("M%v %vH%vV%vH%vZ", cx-q*cx, cy-q*cy, cx+q*cx, cy+q*cy, cx-q*cx)
		}},
		{effect.Iris, effect.Params{"shape": "diamond"}, func(q float64) string {
			return path("M%v %vL%v %vL%v %vL%v %vZ", cx-q*w, cy, cx, cy-q*h, cx+q*w, cy, cx, cy+q*h)
		}},
		{effect.Iris, nil, func(q float64) string {
			rx, ry := q*cx*math.Sqrt2, q*cy*math.Sqrt2
			return path("M%v %vA%v %v 0 1 1 %v %vA%v %v 0 1 1 %v %vZ", cx-rx, cy, rx, ry, cx+rx, cy, rx, ry, cx-rx, cy)
		}},
		{effect.Clock, nil, func(q float64) string { return sector(0, 360*q) }},
		{effect.Clock, effect.Params{"start": 90.0, "anticlockwise": true}, func(q float64) string { return sector(90, -360*q) }},
	} {
		project := doc.NewProject("p", "Fronts", int(w), int(h), "s")
		project.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
		project.Film.Scenes[0].Layers = []*doc.Layer{{
			ID: "a", Thread: "a", Name: "a", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: w / 2, Y: h / 2, W: w, H: h},
			Moves: []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: c.effect, Params: c.params, Easing: "linear", Duration: 1000, Start: doc.Start{When: doc.AtTime}}},
		}}
		b := compileFor(t, project, media.NewFolder(t.TempDir()))
		for _, share := range []float64{0, 0.25, 0.5, 0.75, 1} {
			ours := b.paint(t, b.film.Player().At(motion.Millis(int64(share*1000)), frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity)
			data := browser.Eval[[]int](t, p.ctx, fmt.Sprintf(`(async () => {
				const img = new Image()
				img.src = 'data:image/svg+xml,' + encodeURIComponent(%q)
				await img.decode()
				const c = new OffscreenCanvas(320, 240).getContext('2d')
				c.drawImage(img, 0, 0)
				return [...c.getImageData(0, 0, 320, 240).data].filter((_, i) => i %% 4 === 0)
			})()`, fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" width="320" height="240"><rect width="320" height="240" fill="#fff"/><path d="%s"/></svg>`, c.shape(share))))
			off, sum := 0, 0
			for i, v := range data {
				d := int(ours.Pix[4*i]) - v
				sum += d
				if max(d, -d) > 70 {
					off++
				}
			}
			// Edges are antialiased by either in its own way: next to no pixel is wrong, and all come to less than 0.2 % of the area.
			if off > 4 || math.Abs(float64(sum)/255) > 0.002*w*h {
				t.Errorf("%s %v at %v: %d pixels differ, the areas by %.1f px", c.effect, c.params, share, off, float64(sum)/255)
			}
		}
	}
}
