package session

import (
	"errors"
	"slices"
	"strings"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/words"
)

var ways = map[string]combine.How{
	doc.MadeUnited: combine.Unite, doc.MadeCut: combine.CutAway, doc.MadeOverlap: combine.KeepOverlap, doc.MadeDropped: combine.DropOverlap,
}

// maxRegions is the most layers that breaking up makes at once.
const maxRegions = 300

// refit is how far, px, the outline of a stroke may lie off the many short lines it was drawn with.
const refit = 0.04

func init() {
	// Layers become one, which takes the look, thread, moves and place in the stack of the rearmost.
	intent("combine", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		How     string   `json:"how"` // unite, cut, overlap, drop
	}) (edit.Command, error) {
		how, ok := ways[c.How]
		if !ok {
			return nil, words.New("intent.unreadable", "combine", c.How)
		}
		list, areas, err := s.areas(m, c.Threads)
		if err != nil {
			return nil, err
		}
		p, err := combine.Areas(how, areas...)
		if err != nil {
			return nil, unclear(err)
		}
		if len(p.Verbs) == 0 {
			return nil, words.New("combine.nothing")
		}
		return command("layers.combine", map[string]any{"ids": ids(list), "how": c.How, "become": s.outlined(m, list[0], p)}), nil
	})
	// Every region that the layers divide each other into becomes a layer, with the look of the one in front there.
	intent("break", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		list, areas, err := s.areas(m, c.Threads)
		if err != nil {
			return nil, err
		}
		regions, err := combine.Regions(areas...)
		if err != nil {
			return nil, unclear(err)
		}
		if len(regions) == 0 {
			return nil, words.New("combine.nothing")
		}
		if len(regions) > maxRegions {
			return nil, words.New("combine.regions", len(regions), maxRegions)
		}
		sc := s.scene(m)
		rear := list[0]
		taken := map[string]int{}
		var made []*doc.Layer
		for _, g := range regions {
			front := list[g.In[len(g.In)-1]]
			look := lookSource(front)
			l := look.Clone()
			l.ID, l.Thread, l.Name, l.Tint, l.Hidden, l.Locked = s.id(), s.id(), front.Name, front.Tint, rear.Hidden, rear.Locked
			l.Kind, l.Path, l.Moves, l.Children, l.Text, l.Shape, l.Made, l.Corner = doc.PathKind, "", nil, nil, nil, nil, nil, 0
			if taken[l.Name]++; taken[l.Name] > 1 {
				l.Name = strings.TrimSpace(l.Name + " " + string(rune('0'+taken[l.Name]%10)))
			}
			mid := g.Path.Bounds().Centre()
			q := &geom.Path{}
			q.Append(g.Path, geom.Translate(mid.Mul(-1)))
			if v := l.Fill.Gradient; v != nil {
				if inv, ok := s.standing(m, rear).Inverse(); ok {
					box, _ := s.shown.Box(s.sceneIndex(m), look.ID)
					l.Fill.Gradient = held(v, box, g.Path.Bounds(), inv.Mul(s.standing(m, look)))
				}
			}
			at := geom.Rotate(rear.Place.Turn).ApplyVector(mid)
			l.Path, l.Place = q.Data(), doc.Place{X: rear.Place.X + at.X, Y: rear.Place.Y + at.Y, Turn: rear.Place.Turn}
			made = append(made, l)
		}
		parent, index := "", 0
		siblings := sc.Layers
		if _, p := sc.Layer(rear.ID); p != nil {
			parent, siblings = p.ID, p.Children
		}
		for i, l := range siblings {
			if l.ID == rear.ID {
				index = i
			}
		}
		return batch([]edit.Command{
			command("layer.add", map[string]any{"scene": sc.ID, "parent": parent, "index": index, "layers": made}),
			command("layer.delete", map[string]any{"ids": ids(list)}),
		}), nil
	})
	// Combined layers come back as they were.
	intent("apart", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []*doc.Layer
		for _, l := range s.layers(m, c.Threads) {
			if l.Made != nil {
				list = append(list, l)
			}
		}
		if len(list) == 0 {
			return nil, words.New("apart.nothing")
		}
		return command("layer.apart", map[string]any{"ids": ids(list), "seed": s.id()}), nil
	})
	// Texts, shapes and groups become drawn paths; they are kept inside.
	intent("outline", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range outermost(s.scene(m), s.layers(m, c.Threads)) {
			if l.Kind == doc.PathKind {
				continue
			}
			if err := combinable(l); err != nil {
				return nil, err
			}
			p := s.shown.Outline(s.sceneIndex(m), l.ID)
			if !s.shown.Encloses(s.sceneIndex(m), l.ID) {
				continue // a line: opening its points makes it a path
			}
			if l.Kind == doc.Group {
				var err error
				if p, err = combine.Areas(combine.Unite, combine.Area{Path: p}); err != nil {
					return nil, unclear(err)
				}
			}
			if len(p.Verbs) == 0 {
				continue
			}
			list = append(list, command("layers.combine", map[string]any{"ids": []string{l.ID}, "how": doc.MadeOutline, "become": s.outlined(m, l, p)}))
		}
		if len(list) == 0 {
			return nil, words.New("outline.nothing")
		}
		return batch(list), nil
	})
	// The stroke becomes an area: of a layer without a fill, the layer itself; else a new one in front of it.
	intent("outline.stroke", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range s.layers(m, c.Threads) {
			p, err := s.strokeArea(m, l)
			if err != nil {
				return nil, err
			}
			if p == nil {
				continue
			}
			if l.Fill.Kind == doc.NoFill && len(l.Children) == 0 {
				become := s.outlined(m, l, p)
				become["fill"], become["stroke"] = allOf(l.Stroke.Fill), nil
				list = append(list, command("layers.combine", map[string]any{"ids": []string{l.ID}, "how": doc.MadeStroke, "become": become}))
				continue
			}
			list = append(list, s.strokeLayer(m, l, p)...)
		}
		if len(list) == 0 {
			return nil, words.New("stroke.nothing")
		}
		return batch(list), nil
	})
}

func init() {
	// Layers become a picture that the server has painted of them, at rest, where it lies on the page.
	intent("merge", func(s *Session, m Moment, c *struct {
		Threads []string   `json:"threads"`
		Hash    string     `json:"hash"`
		Media   *doc.Media `json:"media"`
		Box     [4]float64 `json:"box"` // left, top, width, height: page px
	}) (edit.Command, error) {
		list := s.inOrder(m, c.Threads)
		if len(list) == 0 || c.Media == nil {
			return nil, words.New("merge.nothing")
		}
		outer := s.shown.Ancestry(s.sceneIndex(m), list[0].ID)
		inv, ok := outer.Inverse()
		if !ok {
			return nil, words.New("combine.flat", list[0].Name)
		}
		at := inv.Apply(geom.Point{X: c.Box[0] + c.Box[2]/2, Y: c.Box[1] + c.Box[3]/2})
		become := map[string]any{
			"kind": doc.Picture, "picture": map[string]any{"media": c.Hash}, "path": nil, "text": nil, "shape": nil, "corner": nil,
			"fill": allOf(doc.Fill{Kind: doc.NoFill}), "stroke": nil, "opacity": 1, "blend": nil, "blur": nil, "feather": nil, "shadow": nil, "glow": nil,
			"place": map[string]any{"x": at.X, "y": at.Y, "w": c.Box[2], "h": c.Box[3], "turn": -geom.AngleOf(outer), "flipX": nil, "flipY": nil, "pivot": nil},
		}
		return batch([]edit.Command{
			command("media.add", map[string]any{"hash": c.Hash, "media": c.Media}),
			command("layers.combine", map[string]any{"ids": ids(list), "how": doc.MadePicture, "become": become}),
		}), nil
	})
}

// inOrder returns chosen layers from the rearmost on, without those inside others.
func (s *Session) inOrder(m Moment, threads []string) (list []*doc.Layer) {
	chosen := outermost(s.scene(m), s.layers(m, threads))
	doc.Walk(s.scene(m).Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(chosen, l) {
			list = append(list, l)
			return false
		}
		return true
	})
	return
}

// areas returns layers from the rearmost on, and what they cover where they stand, in the axes of the rearmost without its
// mirroring.
func (s *Session) areas(m Moment, threads []string) ([]*doc.Layer, []combine.Area, error) {
	list := s.inOrder(m, threads)
	if len(list) < 2 {
		return nil, nil, words.New("combine.two")
	}
	inv, ok := s.standing(m, list[0]).Inverse()
	if !ok {
		return nil, nil, words.New("combine.flat", list[0].Name)
	}
	var areas []combine.Area
	for _, l := range list {
		if err := combinable(l); err != nil {
			return nil, nil, err
		}
		p := &geom.Path{}
		p.Append(s.shown.Outline(s.sceneIndex(m), l.ID), inv.Mul(s.standing(m, l)))
		areas = append(areas, combine.Area{Path: p})
	}
	return list, areas, nil
}

func combinable(l *doc.Layer) error {
	switch l.Kind {
	case doc.Picture, doc.InsetKind, doc.MarkerKind:
		return words.New("combine.kind", l.Name)
	}
	return nil
}

func unclear(err error) error {
	if errors.Is(err, combine.ErrTooMuch) {
		return words.New("combine.much")
	}
	return words.New("combine.unclear")
}

// standing is the map from a layer's own axes, without its mirroring, to the page: as the moment shows it, or at rest.
func (s *Session) standing(m Moment, l *doc.Layer) geom.Matrix {
	s.stand(m)
	i := s.sceneIndex(m)
	own, _, ok := s.player.Axes(l.ID)
	if !ok {
		own = s.shown.Ancestry(i, l.ID).Mul(s.shown.RestMatrix(i, l.ID))
	}
	x, y := 1.0, 1.0
	if l.Place.FlipX {
		x = -1
	}
	if l.Place.FlipY {
		y = -1
	}
	_, pivot := s.shown.Box(i, l.ID)
	return own.Mul(geom.Scale(x, y).About(pivot))
}

// outlined returns what a layer's fields become when it shows a path in its own axes: its gradients stay where they are, and so
// does the point its moves turn it about.
func (s *Session) outlined(m Moment, l *doc.Layer, p *geom.Path) map[string]any {
	box, pivot := s.shown.Box(s.sceneIndex(m), l.ID)
	place := map[string]any{"w": 0, "h": 0, "flipX": false, "flipY": false}
	if len(l.Moves) > 0 {
		place["pivot"] = [2]float64{pivot.X, pivot.Y}
	}
	become := map[string]any{"kind": doc.PathKind, "path": p.Data(), "text": nil, "shape": nil, "corner": 0, "place": place}
	look := lookSource(l)
	if look != l {
		become["fill"], become["stroke"] = allOf(look.Fill), nil
		if look.Stroke != nil {
			become["stroke"] = look.Stroke
		}
	}
	if !s.shown.Encloses(s.sceneIndex(m), l.ID) && l.Stroke != nil {
		become["fill"], become["stroke"] = allOf(l.Stroke.Fill), nil
	} else if g := look.Fill.Gradient; g != nil && look == l {
		become["fill"] = map[string]any{"gradient": held(g, box, p.Bounds(), geom.Identity)}
	}
	return become
}

// lookSource returns the layer whose look stands for a layer: of a group, which has none, the rearmost in it.
func lookSource(l *doc.Layer) *doc.Layer {
	for l.Kind == doc.Group && len(l.Children) > 0 {
		l = l.Children[0]
	}
	return l
}

// held returns a gradient that lies where it lay when its box becomes another, in axes that m leads to.
func held(g *doc.Gradient, from, to geom.Box, m geom.Matrix) *doc.Gradient {
	if !(to.W() > 0 && to.H() > 0) {
		return g
	}
	at := func(v [2]float64) [2]float64 {
		q := m.Apply(geom.Point{X: from.Min.X + v[0]*from.W(), Y: from.Min.Y + v[1]*from.H()}).Sub(to.Min)
		return [2]float64{q.X / to.W(), q.Y / to.H()}
	}
	c := *g
	c.From, c.To = at(g.From), at(g.To)
	if g.Focus != nil {
		f := at(*g.Focus)
		c.Focus = &f
	}
	return &c
}

// strokeArea returns what a layer's stroke covers, with as few curves as keep to it; nil where it has none.
func (s *Session) strokeArea(m Moment, l *doc.Layer) (*geom.Path, error) {
	i := s.sceneIndex(m)
	p := s.shown.StrokeOutline(i, l.ID)
	if len(p.Verbs) == 0 {
		return nil, nil
	}
	how, areas := combine.Unite, []combine.Area{{Path: p}}
	switch l.Stroke.Side {
	case doc.Inside:
		how, areas = combine.KeepOverlap, append(areas, combine.Area{Path: s.shown.Outline(i, l.ID)})
	case doc.Outside:
		how, areas = combine.CutAway, append(areas, combine.Area{Path: s.shown.Outline(i, l.ID)})
	}
	out, err := combine.Areas(how, areas...)
	if err != nil {
		return nil, unclear(err)
	}
	return pen.Path(pen.Refit(pen.Contours(out), refit)), nil
}

// strokeLayer returns the commands that take a layer's stroke off and lay it in front of it as a layer of its own.
func (s *Session) strokeLayer(m Moment, l *doc.Layer, p *geom.Path) []edit.Command {
	sc := s.scene(m)
	k := s.newLayer(sc, l.Name+" line", doc.PathKind)
	k.Fill, k.Path, k.Opacity, k.Tint, k.Hidden, k.Locked = l.Stroke.Fill, p.Data(), l.Opacity, l.Tint, l.Hidden, l.Locked
	k.Place = doc.Place{X: l.Place.X, Y: l.Place.Y, Turn: l.Place.Turn}
	parent, siblings, index := "", sc.Layers, 0
	if _, g := sc.Layer(l.ID); g != nil {
		parent, siblings = g.ID, g.Children
	}
	for i, o := range siblings {
		if o.ID == l.ID {
			index = i + 1
		}
	}
	return []edit.Command{
		command("layer.set", map[string]any{"set": []map[string]any{{"id": l.ID, "patch": map[string]any{"stroke": nil}}}}),
		command("layer.add", map[string]any{"scene": sc.ID, "parent": parent, "index": index, "layers": []*doc.Layer{k}}),
	}
}

// Combining is what is known of combining layers before it is done.
type Combining struct {
	Drops    string `json:"drops"`    // the layers whose moves are lost, as a list in words; empty: none
	Outlines string `json:"outlines"` // of all of them on the page, as path data
}

// CombiningView tells of combining layers in a way: one of those of combine, or break.
func (s *Session) CombiningView(m Moment, threads []string, how string) Combining {
	p := &geom.Path{}
	for _, l := range outermost(s.scene(m), s.layers(m, threads)) {
		p.Append(s.shown.Outline(s.sceneIndex(m), l.ID), s.standing(m, l))
	}
	return Combining{s.droppedMoves(m, threads, how), p.Data()}
}

func (s *Session) droppedMoves(m Moment, threads []string, how string) string {
	var names []string
	for i, l := range s.inOrder(m, threads) {
		n := 0
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			if k != l || i > 0 || how == "break" {
				n += len(k.Moves)
			}
			return true
		})
		if n > 0 {
			names = append(names, "“"+l.Name+"”")
		}
	}
	return strings.Join(names, ", ")
}
