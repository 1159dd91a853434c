package joining

import (
	"errors"
	"fmt"
	"strings"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var ways = map[string]combine.How{
	doc.MadeUnited: combine.Unite, doc.MadeCut: combine.CutAway, doc.MadeOverlap: combine.KeepOverlap, doc.MadeDropped: combine.DropOverlap,
}

// maxRegions is the most layers that breaking up makes at once.
const maxRegions = 300

var combiningAsked = intent.Table{
	// Layers become one, which takes the look, thread, moves and place in the stack of the rearmost.
	"combine": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		How     string   `json:"how"` // unite, cut, overlap, drop
	}) (edit.Command, error) {
		how, ok := ways[c.How]
		if !ok {
			return nil, words.New("intent.unreadable", "combine", c.How)
		}
		list, areas, err := areas(s, m, c.Threads)
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
		return &edit.CombineLayers{IDs: scope.IDs(list), How: c.How, Become: outlined(s, m, list[0], p)}, nil
	}),
	// Every region that the layers divide each other into becomes a layer, with the look of the one in front there.
	"break": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		list, areas, err := areas(s, m, c.Threads)
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
		sc := s.Scene(m)
		rear := list[0]
		taken := map[string]int{}
		var made []*doc.Layer
		for _, g := range regions {
			front := list[g.In[len(g.In)-1]]
			look := lookSource(front)
			l := look.Clone()
			l.ID, l.Thread, l.Name, l.Tint, l.Hidden, l.Locked = s.NewID(), s.NewID(), front.Name, front.Tint, rear.Hidden, rear.Locked
			l.Kind, l.Path, l.Moves, l.Children, l.Text, l.Shape, l.Made, l.Corner = doc.PathKind, "", nil, nil, nil, nil, nil, 0
			if taken[l.Name]++; taken[l.Name] > 1 {
				l.Name = fmt.Sprint(l.Name, " ", taken[l.Name])
			}
			mid := g.Path.Bounds().Centre()
			q := &geom.Path{}
			q.Append(g.Path, geom.Translate(mid.Mul(-1)))
			if v := l.Fill.Gradient; v != nil {
				if inv, ok := s.Standing(m, rear).Inverse(); ok {
					box, _ := s.Shown.Box(s.SceneIndex(m), look.ID)
					l.Fill.Gradient = edit.Held(v, box, g.Path.Bounds(), inv.Mul(s.Standing(m, look)))
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
		return edit.All(
			&edit.AddLayers{Scene: sc.ID, Parent: parent, Index: &index, Layers: made},
			&edit.DeleteLayers{IDs: scope.IDs(list)},
		), nil
	}),
	// Combined layers come back as they were.
	"apart": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var list []*doc.Layer
		for _, l := range s.Layers(m, c.Threads) {
			if l.Made != nil {
				list = append(list, l)
			}
		}
		if len(list) == 0 {
			return nil, words.New("apart.nothing")
		}
		return &edit.TakeApart{IDs: scope.IDs(list), Seed: s.NewID()}, nil
	}),
}

// areas returns layers from the rearmost on, and what they cover where they stand, in the axes of the rearmost without its
// mirroring.
func areas(s *intent.Desk, m scope.Moment, threads []string) ([]*doc.Layer, []combine.Area, error) {
	list := s.InOrder(m, threads)
	if len(list) < 2 {
		return nil, nil, words.New("combine.two")
	}
	inv, ok := s.Standing(m, list[0]).Inverse()
	if !ok {
		return nil, nil, words.New("combine.flat", list[0].Name)
	}
	var areas []combine.Area
	for _, l := range list {
		if !l.Is().Joins {
			return nil, nil, words.New("combine.kind", l.Name)
		}
		own, err := s.Shown.Outline(s.SceneIndex(m), l.ID)
		if err != nil {
			return nil, nil, unclear(err)
		}
		p := &geom.Path{}
		p.Append(own, inv.Mul(s.Standing(m, l)))
		areas = append(areas, combine.Area{Path: p})
	}
	return list, areas, nil
}

func unclear(err error) error {
	if errors.Is(err, combine.ErrTooMuch) {
		return words.New("combine.much")
	}
	return words.New("combine.unclear")
}

// heavyPoints are so many that combining them takes the page more than about half a second.
const heavyPoints = 6000

// Combining is what is known of combining layers before it is done.
type Combining struct {
	Drops    string `json:"drops"`    // the layers whose moves are lost, as a list in words; empty: none
	Outlines string `json:"outlines"` // of all of them on the page, as path data
	Heavy    bool   `json:"heavy"`    // so many points that working it out takes a moment
}

// CombiningView tells of combining layers in a way: one of those of combine, or break.
func CombiningView(s *intent.Desk, m scope.Moment, threads []string, how string) Combining {
	p := &geom.Path{}
	for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, threads)) {
		if own, err := s.Shown.Outline(s.SceneIndex(m), l.ID); err == nil { // combining says why it cannot be told
			p.Append(own, s.Standing(m, l))
		}
	}
	return Combining{droppedMoves(s, m, threads, how), p.Data(), len(p.Points) > heavyPoints}
}

func droppedMoves(s *intent.Desk, m scope.Moment, threads []string, how string) string {
	var names []string
	for i, l := range s.InOrder(m, threads) {
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
