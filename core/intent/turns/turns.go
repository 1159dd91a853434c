// Package turns is what is asked of many moves at once: layers that take turns, that are there for a while, that all come in, that run as a band.
package turns

import (
	"cmp"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/intent/moves"
	"capstan/core/intent/texts"
	"capstan/core/scope"
	"capstan/core/words"
)

// Asked is all of it, by name.
var Asked = intent.Join(drawingAsked, turnsAsked)

var turnsAsked = intent.Table{
	// Layers are there from one time to another: at once in, at once out. It takes the place of what did so before.
	"moves.only": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		From    int64    `json:"from"` // ms on the scene's clock; at 0 or before it is there from the begin on
		To      int64    `json:"to"`   // at the scene's end or later it stays
	}) (edit.Command, error) {
		if c.To < c.From+doc.MinDuration {
			return nil, words.New("turns.only")
		}
		stay := s.Film.Timing(s.SceneIndex(m)).Stay
		var list []edit.Command
		for _, l := range s.Layers(m, c.Threads) {
			list = append(list, gone(l, func(v *doc.Move) bool { return v.Timeless() })...)
			if c.From > 0 {
				list = append(list, &edit.AddMove{Layer: l.ID, Move: moves.Sudden(s, doc.Entrance, c.From)})
			}
			if c.To < stay {
				list = append(list, &edit.AddMove{Layer: l.ID, Move: moves.Sudden(s, doc.Exit, c.To)})
			}
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.All(list...), nil
	}),
	// Layers take turns, or the lines of one text: each comes, stays as long as it takes to read, goes, then the next.
	"moves.inTurn": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"` // in the order in which they come
		In      string   `json:"in"`      // the effect of their entrances; empty: that of the last entrance that was added
		Out     string   `json:"out"`     // of their exits; empty: likewise
	}) (edit.Command, error) {
		layers := s.Layers(m, c.Threads)
		t := turn{s: s, m: m, in: cmp.Or(c.In, s.LastOf[doc.Entrance], moves.First(doc.Entrance)), out: cmp.Or(c.Out, s.LastOf[doc.Exit], moves.First(doc.Exit))}
		if len(layers) == 1 && layers[0].Kind == doc.TextKind {
			return t.lines(layers[0])
		}
		if len(layers) < 2 {
			return nil, words.New("turns.few")
		}
		var list []edit.Command
		for _, l := range layers {
			list = append(list, gone(l, func(v *doc.Move) bool { return v.Kind == doc.Entrance || v.Kind == doc.Exit })...)
			in, out, err := t.next(l)
			if err != nil {
				return nil, err
			}
			list = append(list, &edit.AddMove{Layer: l.ID, Move: in}, &edit.AddMove{Layer: l.ID, Move: out})
		}
		return edit.All(list...), nil
	}),
	// Layers of the scene that have no entrance get the last one that was added, from the rearmost on, a little apart. Its ground is there.
	"moves.bringIn": intent.Of(func(s *intent.Desk, m scope.Moment, _ *struct{}) (edit.Command, error) {
		const apart = 150
		var list []edit.Command
		at := s.StartAt(m)
		i := s.SceneIndex(m)
		for _, l := range s.Scene(m).Layers {
			entered := false
			for _, v := range l.Moves {
				entered = entered || v.Kind == doc.Entrance
			}
			box, _ := s.Film.Box(i, l.ID)
			if entered || l.Hidden || l.Is().Looks || l.Mask != "" || scope.Groundable(l, nil) && covers(s, s.Film.RestMatrix(i, l.ID).ApplyBox(box)) {
				continue
			}
			v, err := moves.New(s, m, l, doc.Entrance, cmp.Or(s.LastOf[doc.Entrance], moves.First(doc.Entrance)), "")
			if err != nil {
				return nil, err
			}
			v.Start = doc.Start{When: doc.AtTime, Offset: at}
			at += apart
			list = append(list, &edit.AddMove{Layer: l.ID, Move: v})
		}
		if len(list) == 0 {
			return nil, words.New("turns.all-in")
		}
		return edit.All(list...), nil
	}),
	// A text becomes a strip that runs across the page at an angle, on its plate.
	"text.band": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Thread string  `json:"thread"`
		Angle  float64 `json:"angle"` // degrees, clockwise
	}) (edit.Command, error) {
		return band(s, m, c.Thread, c.Angle)
	}),
}

// gone are the commands that take away moves of a layer.
func gone(l *doc.Layer, which func(*doc.Move) bool) []edit.Command {
	var ids []string
	for _, v := range l.Moves {
		if which(v) {
			ids = append(ids, v.ID)
		}
	}
	if len(ids) == 0 {
		return nil
	}
	return []edit.Command{&edit.DeleteMoves{IDs: ids}}
}

func covers(s *intent.Desk, b geom.Box) bool {
	return b.Min.X <= 0 && b.Min.Y <= 0 && b.Max.X >= float64(s.Doc.Film.Width) && b.Max.Y >= float64(s.Doc.Film.Height)
}

// turn gives layers their turns, one after another.
type turn struct {
	s       *intent.Desk
	m       scope.Moment
	in, out string
	before  string // the exit of the one before
}

// reading is how long it takes to read a layer, ms: half a second, and a third for each word (docs/motion.md, section 1); of what holds none, two
// seconds.
func reading(l *doc.Layer) int64 {
	n := 0
	doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
		if k.Text != nil {
			n += len(strings.Fields(k.Text.String()))
		}
		return true
	})
	if n == 0 {
		return 2000
	}
	return int64(math.Round(float64(n)*1000/3)) + 500
}

// next returns how the next layer comes and goes.
func (t *turn) next(l *doc.Layer) (in, out *doc.Move, err error) {
	if in, err = moves.New(t.s, t.m, l, doc.Entrance, t.in, ""); err != nil {
		return
	}
	if out, err = moves.New(t.s, t.m, l, doc.Exit, t.out, ""); err != nil {
		return
	}
	in.Start = doc.Start{When: doc.AtTime, Offset: t.s.StartAt(t.m)}
	if t.before != "" {
		in.Start = doc.Start{When: doc.WhenEnds, Of: t.before}
	}
	out.Start = doc.Start{When: doc.WhenEnds, Of: in.ID, Offset: reading(l)}
	t.before = out.ID
	return
}

// lines lets the lines of a text take turns where its first one stands. The text becomes a group of them.
func (t *turn) lines(l *doc.Layer) (edit.Command, error) {
	split, parts := texts.Split(t.s, l, doc.ByLine)
	if split == nil {
		return nil, words.New("turns.few")
	}
	top := math.Inf(1)
	for _, k := range parts {
		if k.Kind == doc.TextKind {
			top = min(top, k.Place.Y)
		}
	}
	for _, k := range parts {
		if k.Kind != doc.TextKind {
			continue
		}
		k.Place.Y = top
		in, out, err := t.next(k)
		if err != nil {
			return nil, err
		}
		k.Moves = []*doc.Move{in, out}
	}
	return split, nil
}

// band is the command by which a text runs across the page: over its middle, turned, as a scroll without a gap between plates.
func band(s *intent.Desk, m scope.Moment, thread string, angle float64) (edit.Command, error) {
	layers := s.Layers(m, []string{thread})
	if len(layers) != 1 || layers[0].Kind != doc.TextKind || layers[0].Text.Ring != nil {
		return nil, words.New("turns.band")
	}
	l := layers[0]
	box, _ := s.Film.Box(s.SceneIndex(m), l.ID)
	high := box.H()
	plate := l.Text.Plate
	if plate == nil {
		plate = &doc.Plate{Colour: "#17403c", Padding: math.Round(high / 3), Whole: true}
		if l.Text.Runs[0].Colour == plate.Colour || l.Fill.Colour == plate.Colour {
			plate.Colour = "#fdf6e3"
		}
	}
	v := *plate
	v.Corner, v.Whole = 0, true
	page := geom.Point{X: float64(s.Doc.Film.Width) / 2, Y: float64(s.Doc.Film.Height) / 2}
	at := page.Sub(geom.Rotate(angle).ApplyVector(box.Centre()))
	move := moves.Band(s, 2*v.Padding)
	list := gone(l, func(v *doc.Move) bool { return v.Effect == move.Effect })
	list = append(list,
		&edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: edit.Fields{
			"text": edit.Fields{"plate": &v}, "place": edit.Fields{"x": at.X, "y": at.Y, "turn": angle},
		}}}},
		&edit.AddMove{Layer: l.ID, Move: move})
	return edit.All(list...), nil
}
