package scenes

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var acrossAsked = intent.Table{
	// Along the scenes that follow, layers stand a step further in each: from where they are in this scene.
	"shift.by": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		DX      float64  `json:"dx"` // px
		DY      float64  `json:"dy"`
		Turn    float64  `json:"turn"`    // degrees
		Size    float64  `json:"size"`    // factor; 0 is 1
		Opacity float64  `json:"opacity"` // added
		Hue     float64  `json:"hue"`     // degrees
		Light   float64  `json:"light"`   // -1..1
	}) (edit.Command, error) {
		if c.Size == 0 {
			c.Size = 1
		}
		if c.Size < 0.01 || c.Size > 100 {
			return nil, words.New("intent.unreadable", "shift.by", c.Size)
		}
		i := s.SceneIndex(m)
		var out []edit.Command
		for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, c.Threads)) {
			box, _ := s.Shown.Box(i, l.ID)
			by := doc.Step{X: c.DX, Y: c.DY, Turn: c.Turn, Size: c.Size, Opacity: c.Opacity, Hue: c.Hue, Light: c.Light}
			if by.Size == 1 {
				by.Size = 0
			}
			run := []string{s.Scene(m).ID}
			for later, sc := range s.Doc.Film.After(i) {
				n, k := i+1+later, sc.Thread(l.Thread)
				if k == nil {
					break // the run of scenes ends
				}
				run = append(run, sc.ID)
				step := float64(n - i)
				x, y := l.Place.X+step*c.DX, l.Place.Y+step*c.DY
				if now, _ := s.Shown.Box(n, k.ID); c.Size != 1 && now.W() > 0 && now.H() > 0 {
					f := math.Pow(c.Size, step)
					out = append(out, edit.Scaled(k, box.W()*f/now.W(), box.H()*f/now.H(), x, y, s.Grows))
				}
				patch := edit.Fields{"place": edit.Fields{"x": x, "y": y, "turn": l.Place.Turn + step*c.Turn}}
				if c.Opacity != 0 {
					patch["opacity"] = min(max(l.Opacity+step*c.Opacity, 0), 1)
				}
				if c.Hue != 0 || c.Light != 0 {
					f := edit.Hued(l.Fill, by, step, s.Scene(m))
					if fill, other := edit.Differing(&doc.Layer{Fill: k.Fill}, &doc.Layer{Fill: f})["fill"]; other {
						patch["fill"] = fill
					}
				}
				out = append(out, &edit.SetLayers{Set: []edit.Part{{ID: k.ID, Patch: patch}}})
			}
			if len(run) > 1 {
				if by == (doc.Step{}) {
					run = run[:0] // it goes on by nothing: what was noted is forgotten
				}
				out = append(out, &edit.KeepShift{ID: s.NewID(), Thread: l.Thread, Scenes: run, Step: by})
			}
		}
		if len(out) == 0 {
			return nil, words.New("shift.none")
		}
		return edit.All(out...), nil
	}),
	// Layers look, and lie, in all scenes in which their threads live as they do here; words are those of each scene.
	"thread.same": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var out []edit.Command
		for _, l := range s.Layers(m, c.Threads) {
			for _, sc := range s.Doc.Film.Shown() {
				k := sc.Thread(l.Thread)
				if k == nil || k == l || k.Kind != l.Kind {
					continue
				}
				patch := edit.Fields{}
				for name, v := range edit.Differing(bare(k), bare(l)) {
					if slices.Contains(carried, name) && name != "text" {
						patch[name] = v
					}
				}
				if len(patch) > 0 {
					out = append(out, &edit.SetLayers{Set: []edit.Part{{ID: k.ID, Patch: patch}}})
				}
			}
		}
		if len(out) == 0 {
			return nil, nil
		}
		return edit.All(out...), nil
	}),
	// A layer, as it is here but without its moves, in every scene that does not have it: the thread goes through all of them. Where the next
	// scene has it, moves that are the same there get the numbers they have here.
	"carry.all": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Next    bool     `json:"next"` // to the next scene alone
	}) (edit.Command, error) {
		var commands []edit.Command
		for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, c.Threads)) {
			for n, sc := range s.Doc.Film.Shown() {
				if c.Next && n != s.SceneIndex(m)+1 {
					continue
				}
				if there := sc.Thread(l.Thread); there != nil {
					if c.Next {
						commands = append(commands, sameNumbers(l, there)...)
					}
					continue
				}
				k := l.Clone()
				doc.Walk([]*doc.Layer{k}, func(l, _ *doc.Layer) bool {
					l.ID, l.Moves = s.NewID(), nil
					return true
				})
				commands = append(commands, &edit.AddLayers{Scene: sc.ID, Layers: []*doc.Layer{k}})
			}
		}
		if len(commands) == 0 {
			return nil, nil
		}
		return edit.All(commands...), nil
	}),
}

// bare is a layer without what it does and holds.
func bare(l *doc.Layer) *doc.Layer {
	k := *l
	k.Moves, k.Children = nil, nil
	return &k
}

// ownFields are the fields of a move that say when it is or what it hangs on; they are not carried.
var ownFields = []string{"id", "kind", "effect", "start", "end", "until", "continues"}

// sameNumbers returns the commands that give the moves of a later layer of a thread the numbers of the same moves of an earlier one: the first
// of a kind and effect those of the first.
func sameNumbers(l, later *doc.Layer) []edit.Command {
	var out []edit.Command
	taken := map[string]bool{}
	for _, m := range l.Moves {
		for _, k := range later.Moves {
			if k.Kind != m.Kind || k.Effect != m.Effect || taken[k.ID] {
				continue
			}
			taken[k.ID] = true
			patch := edit.Differing(k, m)
			for _, f := range ownFields {
				delete(patch, f)
			}
			if len(patch) > 0 {
				out = append(out, edit.SetMove(k.ID, patch))
			}
			break
		}
	}
	return out
}
