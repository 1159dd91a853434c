package moves

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// CopiedMoves are moves to paste on other layers: the sets of one or more layers, with when each began.
type CopiedMoves struct {
	Sets   [][]*doc.Move    `json:"sets"`
	Begins map[string]int64 `json:"begins"` // ms on their scene's clock
}

// CopyMoves returns the named moves by layer, or, with none named, all of the selected layers.
func CopyMoves(s *intent.Desk, m scope.Moment, threads, moves []string) CopiedMoves {
	out := CopiedMoves{Sets: [][]*doc.Move{}, Begins: map[string]int64{}}
	for i, sc := range s.Shown.Doc.Film.Scenes {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			var set []*doc.Move
			for _, mv := range l.Moves {
				named := slices.Contains(moves, mv.ID)
				if len(moves) == 0 {
					named = i == s.SceneIndex(m) && slices.Contains(threads, l.Thread)
				}
				if named {
					set = append(set, mv.Clone())
					out.Begins[mv.ID] = s.Shown.Timing(i).Moves[mv.ID].Begin
				}
			}
			if len(set) > 0 {
				out.Sets = append(out.Sets, set)
			}
			return true
		})
	}
	return out
}

var transferAsked = intent.Table{
	"moves.paste": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		CopiedMoves
		Threads []string `json:"threads"`
		Step    int64    `json:"step"` // ms each further layer begins later; 0 keeps the offsets
	}) (edit.Command, error) {
		return pasteMoves(s, m, c.CopiedMoves, c.Threads, c.Step)
	}),
	"moves.clear": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var gone []string
		for _, l := range s.Layers(m, c.Threads) {
			for _, mv := range l.Moves {
				gone = append(gone, mv.ID)
			}
		}
		if len(gone) == 0 {
			return nil, nil
		}
		return &edit.DeleteMoves{IDs: gone}, nil
	}),
	"moves.delete": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string `json:"moves"`
	}) (edit.Command, error) {
		if len(c.Moves) == 0 {
			return nil, nil
		}
		return &edit.DeleteMoves{IDs: c.Moves}, nil
	}),
	"moves.mirror": changing(opposite, "moves.directionless"),
	"moves.turn": changing(func(m *doc.Move) edit.Fields {
		kind := map[string]string{doc.Entrance: doc.Exit, doc.Exit: doc.Entrance}[m.Kind]
		if kind == "" {
			return nil
		}
		return edit.Fields{"kind": kind, "back": nil}
	}, "moves.unturned"),
}

// changing asks for a change of each of the named moves, where there is something to change; else it says why not.
func changing(patch func(*doc.Move) edit.Fields, otherwise string) intent.Ask {
	return intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string `json:"moves"`
	}) (edit.Command, error) {
		list, err := bars(s, c.Moves)
		if err != nil {
			return nil, err
		}
		var set []edit.Part
		for _, b := range list {
			if p := patch(b.move); p != nil {
				set = append(set, edit.Part{ID: b.move.ID, Patch: p})
			}
		}
		if len(set) == 0 {
			return nil, words.New(otherwise)
		}
		return &edit.SetMoves{Set: set}, nil
	})
}

// opposite returns the change that sends a move the other way; nil when it has no way.
func opposite(m *doc.Move) edit.Fields {
	switch e := m.Does(); {
	case e != nil:
		full, out := m.Full(), edit.Fields{}
		for i := range e.Params {
			if q := &e.Params[i]; q.Mirror != nil {
				out[q.Name] = q.Mirror(full[q.Name])
			}
		}
		if len(out) > 0 {
			return edit.Fields{"params": out}
		}
	case m.Path != nil:
		p, err := geom.ParseData(m.Path.D)
		if err != nil || len(p.Points) < 2 {
			return nil
		}
		// About the rest pose, along the way it mostly goes: a bow stays a bow.
		ms := geom.NewMeasure(p)
		a, _ := ms.At(0)
		b, _ := ms.At(1)
		rest, _ := ms.At(m.Path.RestShare())
		k := geom.Scale(-1, 1)
		if d := b.Sub(a); math.Abs(d.Y) > math.Abs(d.X) {
			k = geom.Scale(1, -1)
		}
		out := &geom.Path{}
		out.Append(p, k.About(rest))
		return edit.Fields{"path": edit.Fields{"d": out.Data()}}
	}
	return nil
}

// pasteMoves gives copied moves to layers: those of one layer to each, those of several to as many, one by one. Hitches inside the
// set hang on the copies; those outside stay where their target is in this scene, else become times.
func pasteMoves(s *intent.Desk, m scope.Moment, c CopiedMoves, chosen []string, step int64) (edit.Command, error) {
	layers := s.Layers(m, chosen)
	if len(c.Sets) == 0 || len(layers) == 0 {
		return nil, words.New("moves.unpasted")
	}
	sc := s.Scene(m)
	var out []edit.Command
	give := func(sets [][]*doc.Move, to []*doc.Layer, late int64) {
		ids := map[string]string{}
		for _, set := range sets {
			for _, mv := range set {
				ids[mv.ID] = s.NewID()
			}
		}
		for k, set := range sets {
			for _, mv := range set {
				n := mv.Clone()
				n.ID, n.Continues = ids[mv.ID], ""
				rehung(n, mv, sc, ids, c.Begins[mv.ID], late)
				if n.Unit != "" && !slices.Contains(to[k].Is().Units, n.Unit) {
					n.Unit = "" // this layer has no such units
				}
				out = append(out, &edit.AddMove{Layer: to[k].ID, Move: n})
			}
		}
	}
	if len(c.Sets) == len(layers) && len(layers) > 1 {
		give(c.Sets, layers, 0)
		return edit.All(out...), nil
	}
	for k, l := range layers {
		set := c.Sets[k%len(c.Sets)]
		give([][]*doc.Move{set}, []*doc.Layer{l}, int64(k)*step)
	}
	return edit.All(out...), nil
}

// rehung hangs the copy n of a move on copies of what the original hung on, or on that itself where it is in the scene; else it
// begins at its resolved time. What does not hang on another copy begins late ms later.
func rehung(n, was *doc.Move, sc *doc.Scene, ids map[string]string, begin, late int64) {
	here := func(id string) bool { m, _ := sc.Move(id); return m != nil }
	switch n.Start.When {
	case doc.WhenBegins, doc.WhenEnds:
		if id, ok := ids[was.Start.Of]; ok {
			n.Start.Of = id
			late = 0
		} else if here(was.Start.Of) {
			n.Start.Offset += late
		} else {
			n.Start = doc.Start{When: doc.AtTime, Offset: begin + late}
		}
	case doc.WhenHeard, doc.WhenSilent:
		if sc.Holds(was.Start) {
			n.Start.Offset += late
		} else {
			n.Start = doc.Start{When: doc.AtTime, Offset: begin + late}
		}
	case doc.AtCue:
		if slices.ContainsFunc(sc.Cues, func(q doc.Cue) bool { return q.ID == was.Start.Of }) {
			n.Start.Offset += late
		} else {
			n.Start = doc.Start{When: doc.AtTime, Offset: begin + late}
		}
	case doc.BeforeSceneEnd:
		n.Start.Offset -= late
	default:
		n.Start.Offset += late
	}
	if n.End != nil && n.End.When != doc.BeforeSceneEnd {
		if id, ok := ids[was.End.Of]; ok {
			n.End.Of = id
		} else if !here(was.End.Of) {
			if !n.End.Stretches {
				n.Start = doc.Start{When: doc.AtTime, Offset: begin + late}
			}
			n.End = nil
		}
	}
	n.Rename(func(id string) string {
		if copied, ok := ids[id]; ok {
			return copied
		}
		return id
	})
	if n.Until != "" {
		if id, ok := ids[was.Until]; ok {
			n.Until = id
		} else if !here(was.Until) {
			n.Until = ""
		}
	}
}
