package session

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/words"
)

// nameFor proposes a layer name that the scene does not have yet.
func nameFor(sc *doc.Scene, base string) string {
	taken := map[string]bool{}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { taken[l.Name] = true; return true })
	if !taken[base] {
		return base
	}
	for n := 2; ; n++ {
		if name := fmt.Sprintf("%s %d", base, n); !taken[name] {
			return name
		}
	}
}

// numbered splits a name into what it is and the number behind it, 0 where there is none.
func numbered(name string) (base string, n int) {
	base = strings.TrimRight(name, "0123456789")
	if n, err := strconv.Atoi(name[len(base):]); err == nil && strings.HasSuffix(base, " ") && strings.TrimSpace(base) != "" {
		return strings.TrimSpace(base), n
	}
	return name, 0
}

// tintFor picks the tint that fewest layers of the scene have.
func tintFor(sc *doc.Scene) int {
	var used [8]int
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { used[l.Tint&7]++; return true })
	best := 0
	for i, n := range used {
		if n < used[best] {
			best = i
		}
	}
	return best
}

// shapeFills are what new shapes are filled with, in turn.
var shapeFills = []string{"#d8573a", "#e0a03a", "#3f7f86", "#17403c", "#f3dca6"}

func (s *Session) newLayer(sc *doc.Scene, name, kind string) *doc.Layer {
	return &doc.Layer{
		ID: s.id(), Thread: s.id(), Name: nameFor(sc, name), Kind: kind, Opacity: 1, Tint: tintFor(sc),
		Fill: doc.Fill{Kind: doc.NoFill},
	}
}

func (s *Session) addCommand(sc *doc.Scene, l *doc.Layer) edit.Command {
	return &edit.AddLayers{Scene: sc.ID, Layers: []*doc.Layer{l}}
}

func (s *Session) centre() geom.Point {
	f := s.doc.Film
	return geom.Point{X: float64(f.Width) / 2, Y: float64(f.Height) / 2}
}

var addingAsked = table{
	"add.text": of(func(s *Session, m Moment, c *struct {
		At   *[2]float64 `json:"at"`
		Text string      `json:"text"`

		Behind string `json:"behind"` // the colour that lies behind the words, as it is seen; absent: the scene's background
	}) (edit.Command, error) {
		sc := s.scene(m)
		l := s.newLayer(sc, "Text", doc.TextKind)
		size := math.Round(float64(min(s.doc.Film.Width, s.doc.Film.Height)) / 11)
		words := c.Text
		if words == "" {
			words = "Text"
		}
		l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 600, Size: size}}}
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: readable(painted(sc))}
		if c.Behind != "" {
			l.Fill.Colour = readable(doc.Fill{Kind: doc.Solid, Colour: c.Behind})
		}
		at := s.centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y - size*0.6}
		return s.addCommand(sc, l), nil
	}),
	"add.picture": of(func(s *Session, m Moment, c *struct {
		Hash  string      `json:"hash"`
		Media *doc.Media  `json:"media"`
		At    *[2]float64 `json:"at"`
	}) (edit.Command, error) {
		if c.Media == nil {
			return nil, words.New("picture.none")
		}
		sc := s.scene(m)
		base := strings.TrimSpace(strings.TrimSuffix(c.Media.Name, extension(c.Media.Name)))
		if base == "" {
			base = "Picture"
		}
		l := s.newLayer(sc, base, doc.Picture)
		l.Picture = &doc.PictureUse{Media: c.Hash}
		w, h := float64(c.Media.Width), float64(c.Media.Height)
		k := min(1, float64(s.doc.Film.Width)/w, float64(s.doc.Film.Height)/h)
		at := s.centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y, W: w * k, H: h * k}
		return edit.All(
			&edit.AddMedia{Hash: c.Hash, Media: c.Media}, s.addCommand(sc, l),
		), nil
	}),
}

func extension(name string) string {
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		return name[i:]
	}
	return ""
}
