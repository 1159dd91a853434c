package turns

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/intent/moves"
	"capstan/core/scope"
	"capstan/core/words"
)

// How long a scene takes to be drawn where nothing is said: at so many px a second, within bounds, in ms.
const (
	drawSpeed    = 900
	drawnAtLeast = 2000
	drawnAtMost  = 20000
)

var drawingAsked = intent.Table{
	// The border between a move and the one after it in a run of one after another: what one takes longer the other takes less.
	"run.border": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Move string `json:"move"`
		By   int64  `json:"by"` // ms
	}) (edit.Command, error) {
		a, _, i := s.Move(c.Move)
		if a == nil {
			return nil, words.New("move.gone")
		}
		sc := s.Doc.Film.Scenes[i]
		for _, r := range sc.Runs {
			k := slices.Index(r.Moves, c.Move)
			if r.When != doc.WhenEnds || k < 0 || k+1 >= len(r.Moves) {
				continue
			}
			b, _ := sc.Move(r.Moves[k+1])
			if a.Duration == 0 || b.Duration == 0 {
				break
			}
			by := max(doc.MinDuration-a.Duration, min(b.Duration-doc.MinDuration, c.By/10*10))
			if by == 0 {
				return nil, nil
			}
			return &edit.SetMoves{Set: []edit.Part{
				{ID: a.ID, Patch: edit.Fields{"duration": a.Duration + by}}, {ID: b.ID, Patch: edit.Fields{"duration": b.Duration - by}},
			}}, nil
		}
		return nil, words.New("run.border")
	}),
	// Layers are drawn one after another, each for its share of a total time. It takes the place of how they came in before.
	"moves.draw": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"` // in the order in which they are drawn; none: those of the scene, from the rearmost on
		Total   int64    `json:"total"`   // ms; 0: by how long their lines are
		Equal   bool     `json:"equal"`   // each takes as long, whatever its length
		Ground  bool     `json:"ground"`  // with what fills the page at the back
		Pointer string   `json:"pointer"` // what draws them; empty: as a draw-on was last given
	}) (edit.Command, error) {
		return draw(s, m, c.Threads, c.Total, c.Equal, c.Ground, c.Pointer)
	}),
	// One layer goes round an axis, and the next comes as it goes on: the two sides of a sign.
	"moves.turnOver": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"` // that which goes, and that which comes
		Level   bool     `json:"level"`   // about a level axis instead of an upright one
	}) (edit.Command, error) {
		layers := s.Layers(m, c.Threads)
		if len(layers) != 2 || layers[0] == layers[1] {
			return nil, words.New("turns.over")
		}
		name, params := moves.Sides(c.Level)
		at := s.StartAt(m)
		out, err := moves.New(s, m, layers[0], doc.Exit, name, "")
		if err != nil {
			return nil, err
		}
		in, err := moves.New(s, m, layers[1], doc.Entrance, name, "")
		if err != nil {
			return nil, err
		}
		out.Params, in.Params = params, params.Clone()
		out.Duration, out.Easing, out.Start = in.Duration, "ease-in", doc.Start{When: doc.AtTime, Offset: at}
		in.Easing, in.Start = "ease-out", doc.Start{When: doc.WhenEnds, Of: out.ID}
		return edit.All(&edit.AddMove{Layer: layers[0].ID, Move: out}, &edit.AddMove{Layer: layers[1].ID, Move: in}), nil
	}),
}

func draw(s *intent.Desk, m scope.Moment, threads []string, total int64, equal, ground bool, pointer string) (edit.Command, error) {
	i := s.SceneIndex(m)
	layers := s.Layers(m, threads)
	if len(threads) == 0 {
		layers = s.Scene(m).Layers
	}
	name := moves.Drawing()
	var list []*doc.Layer
	var lengths []float64
	sum := 0.0
	for _, l := range layers {
		box, _ := s.Film.Box(i, l.ID)
		if l.Hidden || l.Is().Looks || l.Mask != "" || !ground && scope.Groundable(l, nil) && covers(s, s.Film.RestMatrix(i, l.ID).ApplyBox(box)) {
			continue
		}
		length := s.Film.Lines(i, l.ID)
		list, lengths, sum = append(list, l), append(lengths, length), sum+length
	}
	if len(list) == 0 {
		return nil, words.New("turns.draw")
	}
	if total <= 0 {
		total = int64(min(drawnAtMost, max(drawnAtLeast, 1000*sum/drawSpeed)))
		if sc := s.Scene(m); !sc.AutoStay && sc.Stay > 0 { // it is seen, and stands a moment
			left := sc.Stay - s.StartAt(m)
			total = max(int64(len(list))*doc.MinDuration, min(total, left*8/10))
		}
	}
	var all []edit.Command
	before := ""
	run := &edit.MakeRun{Scene: s.Scene(m).ID, ID: s.NewID(), When: doc.WhenEnds}
	for k, l := range list {
		v, err := moves.New(s, m, l, doc.Entrance, name, "")
		if err != nil {
			return nil, err
		}
		share := 1 / float64(len(list))
		if !equal && sum > 0 {
			share = lengths[k] / sum
		}
		v.Duration = max(doc.MinDuration, int64(math.Round(float64(total)*share/10))*10)
		v.Start = doc.Start{When: doc.AtTime, Offset: s.StartAt(m)}
		if before != "" {
			v.Start = doc.Start{When: doc.WhenEnds, Of: before}
		}
		if pointer != "" {
			v.Params = v.Params.Clone()
			v.Params["pointer"] = pointer
		}
		before = v.ID
		run.Moves = append(run.Moves, v.ID)
		all = append(all, gone(l, func(v *doc.Move) bool { return v.Kind == doc.Entrance })...)
		all = append(all, &edit.AddMove{Layer: l.ID, Move: v})
	}
	if len(run.Moves) > 1 {
		run.Gaps = make([]int64, len(run.Moves)-1)
		all = append(all, run)
	}
	return edit.All(all...), nil
}
