package arrange

import (
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var addingAsked = intent.Table{
	"add.text": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		At   *[2]float64 `json:"at"`
		Text string      `json:"text"`

		Behind string `json:"behind"` // the colour that lies behind the words, as it is seen; absent: the scene's background
	}) (edit.Command, error) {
		sc := s.Scene(m)
		l := s.NewLayer(sc, "Text", doc.TextKind)
		size := math.Round(float64(min(s.Doc.Film.Width, s.Doc.Film.Height)) / 11)
		words := c.Text
		if words == "" {
			words = "Text"
		}
		l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 600, Size: size}}}
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: ink.Readable(ink.Painted(sc))}
		if c.Behind != "" {
			l.Fill.Colour = ink.Readable(doc.Fill{Kind: doc.Solid, Colour: c.Behind})
		}
		at := s.Centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y - size*0.6}
		return s.AddCommand(sc, l), nil
	}),
	"add.picture": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Hash  string      `json:"hash"`
		Media *doc.Media  `json:"media"`
		At    *[2]float64 `json:"at"`
	}) (edit.Command, error) {
		if c.Media == nil {
			return nil, words.New("picture.none")
		}
		sc := s.Scene(m)
		base := strings.TrimSpace(strings.TrimSuffix(c.Media.Name, extension(c.Media.Name)))
		if base == "" {
			base = "Picture"
		}
		l := s.NewLayer(sc, base, doc.Picture)
		l.Picture = &doc.PictureUse{Media: c.Hash}
		w, h := float64(c.Media.Width), float64(c.Media.Height)
		k := min(1, landed*float64(s.Doc.Film.Width)/w, landed*float64(s.Doc.Film.Height)/h)
		at := s.Centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y, W: w * k, H: h * k}
		return edit.All(
			&edit.AddMedia{Hash: c.Hash, Media: c.Media}, s.AddCommand(sc, l),
		), nil
	}),
	// What an SVG became: a group, with the pictures that it had in it.
	"add.drawing": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Layer *doc.Layer            `json:"layer"`
		Media map[string]*doc.Media `json:"media"`
		At    *[2]float64           `json:"at"`
	}) (edit.Command, error) {
		if c.Layer == nil {
			return nil, words.New("drawing.none")
		}
		at := s.Centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		c.Layer.Place.X, c.Layer.Place.Y = at.X, at.Y
		// What has the colour of a role of the scene, or a tone of it, is of that role from now on.
		roles := ink.Follows(s.Scene(m).Roles)
		ink.Within(c.Layer, func(k ink.Ink) { roles(k) })
		var all []edit.Command
		for hash, m := range c.Media {
			all = append(all, &edit.AddMedia{Hash: hash, Media: m})
		}
		return edit.All(append(all, s.AddCommand(s.Scene(m), c.Layer))...), nil
	}),
}

// landed is how much of the page a new picture takes at most.
const landed = 0.8

func extension(name string) string {
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		return name[i:]
	}
	return ""
}
