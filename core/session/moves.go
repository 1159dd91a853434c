package session

import (
	"encoding/json"
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/paint"
)

// readable returns the darker or lighter of two inks that reads best on a fill.
func readable(f doc.Fill) string {
	const dark, light = "#17403c", "#fdf6e3"
	ground := paint.White
	if c, err := paint.Parse(f.Colour); err == nil && f.Kind == doc.Solid {
		ground = c
	}
	a, _ := paint.Parse(dark)
	b, _ := paint.Parse(light)
	if paint.Contrast(a, ground) >= paint.Contrast(b, ground) {
		return dark
	}
	return light
}

func init() {
	intent("move.add", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Kind    string   `json:"kind"`
		Effect  string   `json:"effect"`
	}) (edit.Command, error) {
		var list []edit.Command
		for _, l := range s.layers(m, c.Threads) {
			mv, err := s.newMove(m, l, c.Kind, c.Effect)
			if err != nil {
				return nil, err
			}
			list = append(list, command("move.add", map[string]any{"layer": l.ID, "move": mv}))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return batch(list), nil
	})
	intent("path.draw", func(s *Session, m Moment, c *struct {
		Threads []string   `json:"threads"`
		From    [2]float64 `json:"from"` // page px
		To      [2]float64 `json:"to"`
	}) (edit.Command, error) {
		return s.drawPath(m, c.Threads, geom.Point{X: c.From[0], Y: c.From[1]}, geom.Point{X: c.To[0], Y: c.To[1]})
	})
	intent("path.reach", func(s *Session, _ Moment, c *struct {
		Move string  `json:"move"`
		X    float64 `json:"x"` // from its begin to its end, px
		Y    float64 `json:"y"`
	}) (edit.Command, error) {
		return s.reach(c.Move, geom.Point{X: c.X, Y: c.Y})
	})
	intent("move.set", func(s *Session, _ Moment, c *struct {
		Move  string          `json:"move"`
		Patch json.RawMessage `json:"patch"`
	}) (edit.Command, error) {
		s.remember(c.Move, c.Patch)
		return command("move.set", map[string]any{"set": []any{map[string]any{"id": c.Move, "patch": c.Patch}}}), nil
	})
	intent("move.delete", func(s *Session, _ Moment, c *struct {
		Move string `json:"move"`
	}) (edit.Command, error) {
		return command("move.delete", map[string]any{"ids": []string{c.Move}}), nil
	})
	intent("move.start", func(s *Session, m Moment, c *struct {
		Move string `json:"move"`
		When string `json:"when"`
		Of   string `json:"of"`
	}) (edit.Command, error) {
		return s.hang(c.Move, c.When, c.Of)
	})
	intent("bar", func(s *Session, _ Moment, c *struct {
		Move string `json:"move"`
		Part string `json:"part"` // whole, begin, end
		By   int64  `json:"by"`   // ms
	}) (edit.Command, error) {
		return s.dragBar(c.Move, c.Part, c.By)
	})
	intent("scene.add", func(s *Session, m Moment, c *struct{}) (edit.Command, error) {
		return command("scene.add", map[string]any{"id": s.id(), "index": s.sceneIndex(m) + 1, "name": edit.SceneName(s.doc)}), nil
	})
	for _, op := range []string{"scene.continue", "scene.duplicate"} {
		intent(op, func(s *Session, m Moment, c *struct{}) (edit.Command, error) {
			return command(op, map[string]any{"from": s.scene(m).ID, "id": s.id(), "seed": s.id(), "name": edit.SceneName(s.doc)}), nil
		})
	}
	intent("scene.transition", func(s *Session, _ Moment, c *struct {
		ID   string `json:"id"`
		Kind string `json:"kind"`
	}) (edit.Command, error) {
		i, sc := s.doc.Scene(c.ID)
		if sc == nil || i == 0 {
			return nil, fmt.Errorf("Nothing comes before the first scene.")
		}
		ms := sc.Transition.Duration
		if ms == 0 {
			ms = 700
		}
		t := map[string]any{"kind": c.Kind, "duration": ms}
		if c.Kind == doc.Cut {
			t = map[string]any{"kind": doc.Cut, "duration": 0}
		}
		return command("scene.set", map[string]any{"ids": []string{c.ID}, "patch": map[string]any{"transition": t}}), nil
	})
}

func (s *Session) move(id string) (*doc.Move, *doc.Layer, int) {
	for i, sc := range s.doc.Film.Scenes {
		if m, l := sc.Move(id); m != nil {
			return m, l, i
		}
	}
	return nil, nil, -1
}

// remember keeps the last used duration and easing of an effect.
func (s *Session) remember(move string, patch json.RawMessage) {
	m, _, _ := s.move(move)
	var p struct {
		Duration *int64  `json:"duration"`
		Easing   *string `json:"easing"`
	}
	if m == nil || json.Unmarshal(patch, &p) != nil {
		return
	}
	key := m.Kind + "/" + m.Effect
	u := s.last[key]
	if p.Duration != nil && *p.Duration >= doc.MinDuration {
		u.Duration = *p.Duration
	}
	if p.Easing != nil {
		u.Easing = *p.Easing
	}
	s.last[key] = u
}

// newMove makes a move with its defaults (docs/motion.md, Defaults).
func (s *Session) newMove(m Moment, l *doc.Layer, kind, effect string) (*doc.Move, error) {
	v := &doc.Move{ID: s.id(), Kind: kind, Effect: effect, Start: doc.Start{When: doc.AtTime, Offset: s.begin(m)}}
	switch {
	case effect == doc.AtOnce && (kind == doc.Entrance || kind == doc.Exit):
	case kind == doc.Entrance && effect == doc.Fade:
		v.Duration = 600
	case kind == doc.Exit && effect == doc.Fade:
		v.Duration = 400
	case kind == doc.Loop && effect == doc.Spin:
		v.Duration, v.Lasts, v.Start.Offset = 4000, "scene", 0
		v.Spin = &doc.SpinParams{}
	case kind == doc.MotionPath:
		by := float64(s.doc.Film.Width) * 0.25
		v.Path = &doc.PathParams{Rest: doc.Departs}
		setLine(v, geom.Point{}, geom.Point{X: math.Round(by)}, s.doc.Film.Width)
	default:
		return nil, fmt.Errorf("Capstan has no %s %q yet.", kind, effect)
	}
	if u := s.last[kind+"/"+effect]; u.Duration > 0 && v.Duration > 0 {
		v.Duration = u.Duration
	}
	v.Easing = s.last[kind+"/"+effect].Easing
	if kind == doc.Exit {
		v.Start = doc.Start{When: doc.BeforeSceneEnd, Offset: v.Duration}
		if at := s.begin(m); at > 0 {
			v.Start = doc.Start{When: doc.AtTime, Offset: at}
		}
	}
	return v, nil
}

// setLine makes a straight path of a move and gives it the time it takes at 500 px/s at 1920 wide, within 1..6 s.
func setLine(v *doc.Move, a, b geom.Point, pageWidth int) {
	p := &geom.Path{}
	p.Move(a)
	p.Line(b)
	v.Effect, v.Path.D = doc.Along, p.Data()
	s := b.Sub(a).Len() / (500 * float64(pageWidth) / 1920)
	v.Duration = int64(math.Round(min(6, max(1, s))*10) * 100)
}

// drawPath gives layers a path drawn on the page: begun on the layer it departs from there; begun elsewhere, in the wings say, it
// arrives from there. Where a drag from elsewhere ends off the layer it moves along the drawn line all the same.
func (s *Session) drawPath(m Moment, chosen []string, from, to geom.Point) (edit.Command, error) {
	s.stand(m)
	i := s.sceneIndex(m)
	var list []edit.Command
	for _, l := range s.layers(m, chosen) {
		outer := s.shown.Ancestry(i, l.ID)
		inv, ok := outer.Inverse()
		if !ok {
			continue
		}
		box, _ := s.shown.Box(i, l.ID)
		rest := s.shown.RestMatrix(i, l.ID)
		a, b := inv.Apply(from), inv.Apply(to)
		v := &doc.Move{
			ID: s.id(), Kind: doc.MotionPath, Start: doc.Start{When: doc.AtTime, Offset: s.begin(m)}, Path: &doc.PathParams{Rest: doc.Departs},
		}
		onLayer := false
		if back, ok := rest.Inverse(); ok {
			onLayer = box.Contains(back.Apply(a))
		}
		if onLayer {
			setLine(v, geom.Point{}, b.Sub(a), s.doc.Film.Width)
		} else {
			v.Path.Rest = doc.Arrives
			setLine(v, a.Sub(rest.Apply(box.Centre())), geom.Point{}, s.doc.Film.Width)
		}
		v.Easing = s.last[v.Kind+"/"+v.Effect].Easing
		list = append(list, command("move.add", map[string]any{"layer": l.ID, "move": v}))
	}
	if len(list) == 0 {
		return nil, nil
	}
	return batch(list), nil
}

// reach puts the end of a path that is not the rest pose where the typed distance says. The path is scaled and turned with
// it, so a bend stays a bend.
func (s *Session) reach(id string, to geom.Point) (edit.Command, error) {
	m, _, _ := s.move(id)
	if m == nil || m.Path == nil {
		return nil, fmt.Errorf("That path is no longer there.")
	}
	p, err := geom.ParseData(m.Path.D)
	if err != nil || len(p.Points) < 2 {
		return nil, fmt.Errorf("That path cannot be read.")
	}
	a, b := p.Points[0], p.Points[len(p.Points)-1]
	was := b.Sub(a)
	out := &geom.Path{}
	if was.Len() < 1e-9 {
		out.Move(geom.Point{})
		out.Line(to)
	} else {
		k := to.Len() / was.Len()
		turn := (math.Atan2(to.Y, to.X) - math.Atan2(was.Y, was.X)) * 180 / math.Pi
		rest := a
		if m.Path.Rest == doc.Arrives {
			rest = b
		}
		out.Append(p, geom.Rotate(turn).Mul(geom.Scale(k, k)).About(rest))
	}
	return command("move.set", map[string]any{"set": []any{map[string]any{"id": id, "patch": map[string]any{"path": map[string]any{"d": out.Data()}}}}}), nil
}

// hang hangs a move's start on something else, at the time it starts now.
func (s *Session) hang(id, when, of string) (edit.Command, error) {
	m, _, i := s.move(id)
	if m == nil {
		return nil, fmt.Errorf("That move is no longer there.")
	}
	t := s.film.Timing(i)
	now := t.Moves[id].Begin
	start := map[string]any{"when": when, "of": of}
	switch when {
	case doc.AtTime:
		start["of"], start["offset"] = nil, now
	case doc.BeforeSceneEnd:
		start["of"], start["offset"] = nil, max(0, t.Stay-now)
	case doc.WhenBegins, doc.WhenEnds:
		start["offset"] = 0
	default:
		return nil, fmt.Errorf("A move cannot start like that.")
	}
	return command("move.set", map[string]any{"set": []any{map[string]any{"id": id, "patch": map[string]any{"start": start}}}}), nil
}

// dragBar moves a bar or one of its ends by a time. What it hangs on stays; only the offset and the duration change.
func (s *Session) dragBar(id, part string, by int64) (edit.Command, error) {
	m, _, i := s.move(id)
	if m == nil {
		return nil, fmt.Errorf("That move is no longer there.")
	}
	iv := s.film.Timing(i).Moves[id]
	into := s.film.Order.Into[i]
	sign := int64(1)
	if m.Start.When == doc.BeforeSceneEnd {
		sign = -1
	}
	passes := iv.Passes
	if passes <= 0 {
		passes = 1
	}
	pass := func(length int64) int64 { return max(doc.MinDuration, int64(math.Round(float64(length)/passes))) }
	patch := map[string]any{}
	switch part {
	case "whole":
		by = max(by, -into-iv.Begin)
		patch["start"] = map[string]any{"offset": m.Start.Offset + sign*by}
	case "begin":
		by = min(max(by, -into-iv.Begin), iv.End-iv.Begin-doc.MinDuration)
		patch["start"] = map[string]any{"offset": m.Start.Offset + sign*by}
		if m.Lasts == "" {
			patch["duration"] = pass(iv.End - iv.Begin - by)
		}
	case "end":
		if iv.Whole || m.Lasts == "scene" {
			patch["lasts"] = nil
			patch["repeat"] = math.Max(0.01, math.Round(float64(iv.End-iv.Begin+by)/float64(max(iv.Pass, 1))*100)/100)
		} else {
			patch["duration"] = pass(iv.End - iv.Begin + by)
		}
	default:
		return nil, fmt.Errorf("A bar has no part %q.", part)
	}
	raw, err := json.Marshal(patch)
	if err != nil {
		return nil, err
	}
	s.remember(id, raw)
	return command("move.set", map[string]any{"set": []any{map[string]any{"id": id, "patch": patch}}}), nil
}
