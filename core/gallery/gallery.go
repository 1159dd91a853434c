// Package gallery shows what could be done: moves on the selected layer, and transitions between two scenes, each as a small film by itself. It
// changes nothing; what is chosen is asked for as always (move.add, move.effect, transition.set).
package gallery

import (
	"cmp"
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/fields"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/intent/moves"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Card is one thing that can be chosen.
type Card struct {
	At      int    `json:"at"` // its place among all cards
	Kind    string `json:"kind"`
	Effect  string `json:"effect"`
	Variant string `json:"variant"` // of the effect; empty: the plain one
	Words   string `json:"words"`   // under its heading
	Name    string `json:"name"`    // by itself
	Lasts   string `json:"lasts"`   // "0.60 s"; empty: it takes no time
	Length  int64  `json:"length"`  // ms of one showing of its small film
}

// Row holds cards that do one thing.
type Row struct {
	Heading string `json:"heading"`
	Cards   []Card `json:"cards"` // last used first
}

// View is what a gallery offers.
type View struct {
	Of     string     `json:"of"`     // what it is for: "Red kite", "3 layers"
	Rows   []Row      `json:"rows"`   // those without cards are left out
	First  int        `json:"first"`  // where something is sought: the card that fits best; -1: none does
	Region [4]float64 `json:"region"` // the part of the page that small films show: x y w h, px
	Behind string     `json:"behind"` // the layer that small films are laid over what lies behind; empty: they show whole pages
}

// Gallery is open for one thing.
type Gallery struct {
	desk   *intent.Desk
	view   View
	films  []*film // by the place of their cards
	before *frame.Film
}

// film is the small film of a card.
type film struct {
	card   Card
	make   func() *doc.Project
	finds  string // everyday words that it is looked for by
	player *frame.Player
	lead   int64 // ms of film time that a showing begins at
}

// Moves opens a gallery of moves for layers; where it is to find another one in place of a move, of that kind alone. nil: nothing is selected.
func Moves(s *intent.Desk, m scope.Moment, threads []string, replaces string) *Gallery {
	layers := s.Layers(m, threads)
	only := ""
	if mv, l, _ := s.Move(replaces); mv != nil {
		layers, only = []*doc.Layer{l}, mv.Kind
	}
	if len(layers) == 0 {
		return nil
	}
	g := &Gallery{desk: s, before: s.Film}
	l := layers[0]
	g.view.Of, g.view.Behind = l.Name, l.ID
	if len(layers) > 1 {
		g.view.Of = fmt.Sprintf("%d layers", len(layers))
	}
	g.view.Region = region(s, m, l)
	for _, h := range fields.Moves() {
		row := Row{Heading: h.Heading, Cards: []Card{}}
		for _, o := range h.Moves {
			if only != "" && (o.Kind != only || only == doc.MotionPath) {
				continue // a path keeps its line
			}
			v, err := moves.New(s, m, l, o.Kind, o.Effect, o.Variant)
			if err != nil {
				continue // it is nothing for this layer
			}
			c := Card{Kind: o.Kind, Effect: o.Effect, Variant: o.Variant, Words: o.Words, Name: o.Name}
			row.Cards = append(row.Cards, g.add(c, o.Finds, s, m, l, v))
		}
		if len(row.Cards) == 0 {
			continue
		}
		byUse(row.Cards, s.Used)
		g.view.Rows = append(g.view.Rows, row)
	}
	return g
}

// byUse puts what was used last first; the others stay as they are offered.
func byUse(cards []Card, used []string) {
	place := func(c Card) int {
		if i := slices.Index(used, moves.UsedKey(&doc.Move{Kind: c.Kind, Effect: c.Effect}, c.Variant)); i >= 0 {
			return i
		}
		return len(used)
	}
	slices.SortStableFunc(cards, func(a, b Card) int { return cmp.Compare(place(a), place(b)) })
}

// Around a move in its small film, in ms: before it and after it.
const (
	before = 200
	after  = 600
)

// longest is how long one showing lasts at most, ms.
const longest = 4000

// add adds a card for a move of a layer.
func (g *Gallery) add(c Card, finds string, s *intent.Desk, m scope.Moment, l *doc.Layer, v *doc.Move) Card {
	c.At, c.Lasts = len(g.films), lasts(v)
	mv := *v
	mv.Start, mv.End, mv.Until = doc.Start{When: doc.AtTime, Offset: before}, nil, ""
	if v.Change != nil && len(v.Change.To.Names()) == 0 { // it names nothing yet: this is what one may come to
		turn, scale, opacity := l.Place.Turn+20, 0.8, l.Opacity*0.6
		mv.Change = &doc.ChangeParams{To: doc.Becomes{Turn: &turn, Scale: &scale, Opacity: &opacity}}
	}
	length := v.Duration
	if v.Kind == doc.Loop {
		mv.Start.Offset = 0
		if length = s.Film.Cycle(s.SceneIndex(m), v, l.ID); length <= 0 {
			length = 2000
		}
		for n := length; length+n <= longest/2; {
			length += n
		}
		c.Length = min(length, longest)
	} else {
		c.Length = before + min(length, longest) + after
	}
	f := &film{card: c, finds: finds}
	f.make = func() *doc.Project { return standIn(s, m, l, &mv, c.Length) }
	g.films = append(g.films, f)
	return c
}

// lasts is how long a move takes, for people.
func lasts(v *doc.Move) string {
	switch {
	case v.Timeless():
		return ""
	case v.Kind == doc.Loop && v.Duration == 0:
		return "the scene"
	}
	return fmt.Sprintf("%.2f s", float64(v.Duration)/1000)
}

// standIn is a project of one scene without a ground, that shows one layer with one move and no other of its own.
func standIn(s *intent.Desk, m scope.Moment, l *doc.Layer, mv *doc.Move, length int64) *doc.Project {
	sc := s.Scene(m)
	own := *l
	own.Moves, own.Mask, own.Hidden = []*doc.Move{mv}, "", false
	if g := mv.Goes(); g != nil && g.Round != nil { // it rolls as it travels
		way := &geom.Path{}
		way.Move(geom.Point{X: -120})
		way.Line(geom.Point{X: 120})
		own.Moves = append(own.Moves, &doc.Move{
			ID: mv.ID + "-way", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime}, Duration: max(doc.MinDuration, length/2), Repeat: 2, Alternate: true,
			Path: &doc.PathParams{D: way.Data(), Rest: doc.Passes, Share: 0.5},
		})
	}
	if l.Is().Looks { // what is seen through it, at rest
		var all []*doc.Layer
		for _, k := range sc.Layers {
			still := *k
			if still.Moves = nil; k == l || k.ID == l.ID {
				still = own
			}
			all = append(all, &still)
		}
		p := *s.Doc
		p.Film.Scenes = []*doc.Scene{{ID: sc.ID, Name: sc.Name, Stay: max(length, doc.MinDuration), Roles: sc.Roles, Background: sc.Background, Transition: doc.Transition{Kind: doc.Cut}, Layers: all}}
		p.Film.Closing, p.Film.Loop = nil, mv.Kind == doc.Loop
		return &p
	}
	top := &own
	for g := parent(sc, l.ID); g != nil; g = parent(sc, g.ID) {
		outer := *g
		outer.Children, outer.Moves, outer.Mask, outer.Hidden = []*doc.Layer{top}, nil, "", false
		top = &outer
	}
	p := *s.Doc
	p.Film.Scenes = []*doc.Scene{{ID: sc.ID, Name: sc.Name, Stay: max(length, doc.MinDuration), Roles: sc.Roles, Background: doc.Fill{Kind: doc.NoFill}, Transition: doc.Transition{Kind: doc.Cut}, Layers: []*doc.Layer{top}}}
	p.Film.Closing, p.Film.Loop = nil, mv.Kind == doc.Loop
	return &p
}

func parent(sc *doc.Scene, id string) *doc.Layer {
	_, p := sc.Layer(id)
	return p
}

// aspect is how high small films are against their width.
const aspect = 0.64

// region is the part of the page about a layer at rest.
func region(s *intent.Desk, m scope.Moment, l *doc.Layer) [4]float64 {
	i := s.SceneIndex(m)
	box, _ := s.Film.Box(i, l.ID)
	b := s.Film.Ancestry(i, l.ID).Mul(s.Film.RestMatrix(i, l.ID)).ApplyBox(box)
	page := geom.Point{X: float64(s.Doc.Film.Width), Y: float64(s.Doc.Film.Height)}
	w := max(b.W()*1.5, b.H()*1.5/aspect, page.X*0.2)
	w = min(w, max(page.X, page.Y/aspect)*1.1)
	// On the page, where that has room.
	within := func(middle, size, page float64) float64 {
		if size >= page {
			return page/2 - size/2
		}
		return min(max(middle-size/2, 0), page-size)
	}
	c := b.Centre()
	return [4]float64{within(c.X, w, page.X), within(c.Y, w*aspect, page.Y), w, w * aspect}
}

// pageKind is the kind of a card for a transition.
const pageKind = "transition"

// Pages opens a gallery of the transitions into a scene; nil where there is none before it.
func Pages(s *intent.Desk, i int) *Gallery {
	shown := s.Doc.Film.Shown()
	if i <= 0 || i >= len(shown) {
		return nil
	}
	g := &Gallery{desk: s, before: s.Film}
	a, b := shown[i-1], shown[i]
	g.view.Of = fmt.Sprintf("into “%s”", b.Name)
	w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
	wide := max(w, h/aspect)
	g.view.Region = [4]float64{w/2 - wide/2, h/2 - wide*aspect/2, wide, wide * aspect}
	row := Row{Heading: "Transitions", Cards: []Card{}}
	for _, page := range fields.Pages() {
		t := doc.Transition{Kind: page.Kind, Duration: 700}
		lasts := "0.70 s"
		if page.Kind == doc.Cut {
			t.Duration, lasts = 0, ""
		}
		c := Card{At: len(g.films), Kind: pageKind, Effect: page.Kind, Words: page.Words, Name: page.Words, Lasts: lasts, Length: before + t.Duration + after}
		f := &film{card: c}
		f.make = func() *doc.Project {
			p := *s.Doc
			next := *b
			next.Transition = t
			p.Film.Scenes, p.Film.Closing, p.Film.Loop = []*doc.Scene{a, &next}, nil, false
			return &p
		}
		g.films = append(g.films, f)
		row.Cards = append(row.Cards, c)
	}
	g.view.Rows = []Row{row}
	return g
}

// Frame is the small film of a card at a time of its showing, ms, seen as v says; nil for a card that there is none of.
func (g *Gallery) Frame(card int, ms float64, v frame.View) *frame.List {
	if card < 0 || card >= len(g.films) {
		return nil
	}
	f := g.films[card]
	if f.player == nil {
		made, err := frame.Compile(f.make(), frame.Assets{Fonts: &g.desk.Fonts}, g.before)
		if err != nil {
			return nil // nothing of it can be shown
		}
		f.player = made.Player()
		if f.card.Kind == pageKind {
			f.lead = made.Order.Stays[0] - before
		}
	}
	ms = min(max(ms, 0), float64(f.card.Length)) + float64(f.lead)
	return f.player.At(motion.Seconds(ms/1000), v)
}

// Outline returns an outline that a frame of the gallery names.
func (g *Gallery) Outline(key uint32) *geom.Path {
	for _, f := range g.films {
		if f.player != nil {
			if p := f.player.Film().Geometry.Path(key); p != nil {
				return p
			}
		}
	}
	return nil
}
