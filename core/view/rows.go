package view

import (
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Row is one thread in the timeline.
type Row struct {
	Film   string `json:"film,omitzero"` // the film it lives in; empty: the project's first
	Thread string `json:"thread"`
	Layer  string `json:"layer"` // id in the scene at the moment; empty where it is absent
	Name   string `json:"name"`
	Kind   string `json:"kind"`
	Tint   int    `json:"tint"`
	Depth  int    `json:"depth"`
	Group  bool   `json:"group"` // has rows inside
	Parent string `json:"parent"`
	Here   bool   `json:"here"`
	Locked bool   `json:"locked"`
	Hidden bool   `json:"hidden"`
	Mask   string `json:"mask"` // what it is to those it lies with
	Spans  []Span `json:"spans"`
	Bars   []Bar  `json:"bars"`

	Flights []Flight `json:"flights"`
}

// Span is where a thread lives: in a scene's stay, or as a strand through a morph. Times are ms of the film.
type Span struct {
	Scene  int    `json:"scene"`
	Begin  int64  `json:"begin"`
	End    int64  `json:"end"`
	Strand bool   `json:"strand"`
	Layer  string `json:"layer"`

	By     float64 `json:"by,omitzero"`     // degrees that a strand turns by
	Passes []int64 `json:"passes,omitzero"` // of a strand through a run of morphs: when it passes the scenes between, ms of the film
}

// Flight is a layer that comes in or goes out by a side of the page, with a morph.
type Flight struct {
	Scene int    `json:"scene"` // of the layer
	Begin int64  `json:"begin"` // ms of the film
	End   int64  `json:"end"`
	Layer string `json:"layer"`
	In    bool   `json:"in"`
	Side  string `json:"side"`
}

// Bar is a move in the timeline. Its outline is its motion. Times are ms of the film.
type Bar struct {
	Move    string `json:"move"`
	Layer   string `json:"layer"`
	Scene   int    `json:"scene"`
	Kind    string `json:"kind"`
	Name    string `json:"name"`
	Words   string `json:"words"`
	Begin   int64  `json:"begin"`
	End     int64  `json:"end"`
	Before  int64  `json:"before,omitzero"` // ms that it has gone on for at its begin here, since it began in a scene before
	Cut     int64  `json:"cut"`             // ms beyond the scene's end that are not played
	Whole   bool   `json:"whole"`
	Cycle   int64  `json:"cycle"`   // of loops: after this time the profile repeats
	Phase   int64  `json:"phase"`   // of loops: how far into the cycle they begin
	Of      string `json:"of"`      // the move it hangs on, if any
	When    string `json:"when"`    // begins or ends: which end of that
	EndOf   string `json:"endOf"`   // the move its live end hangs on, if any
	EndWhen string `json:"endWhen"` // begins or ends; scene-end
	Cue     string `json:"cue"`     // the cue it begins at, if any
	Run     string `json:"run"`     // the run of moves it is in, if any
	Unknown bool   `json:"unknown"` // its effect is one of a newer version: it plays as nothing
	Early   bool   `json:"early"`   // asked to begin before its scene's own transition
	Profile string `json:"profile"` // names the outline; ask Profile for it
	Lane    int    `json:"lane"`    // its place among the moves of its layer
	Ties    bool   `json:"ties"`    // its edge can be tied to another layer's

	Drivers []string `json:"drivers,omitzero"` // it is tied: the threads of the layers that drive it; its begin and end come from them
}

// Rows returns the threads of the film: those of the moment's scene in stacking order, front first, then the absent ones.
func (s *Views) Rows(m scope.Moment) []Row { return s.rows(m, true) }

// RowsHere is Rows without those of threads that are not in the moment's scene: in a film of many scenes they are most.
func (s *Views) RowsHere(m scope.Moment) []Row { return s.rows(m, false) }

func (s *Views) rows(m scope.Moment, all bool) []Row {
	p, o := s.Shown.Doc, s.Shown.Order
	here := s.SceneIndex(m)
	rows := []Row{}
	seen := map[string]int{}
	add := func(scene int, isHere bool) {
		var walk func(list []*doc.Layer, depth int, parent string)
		walk = func(list []*doc.Layer, depth int, parent string) {
			for i := len(list) - 1; i >= 0; i-- {
				l := list[i]
				if _, ok := seen[l.Thread]; !ok {
					r := Row{
						Film: s.FilmID, Thread: l.Thread, Name: l.Name, Kind: l.Kind, Tint: l.Tint, Depth: depth, Group: len(l.Children) > 0,
						Parent: parent, Here: isHere, Locked: l.Locked, Hidden: l.Hidden, Mask: l.Mask, Spans: []Span{}, Bars: []Bar{}, Flights: []Flight{},
					}
					if isHere {
						r.Layer = l.ID
					}
					seen[l.Thread] = len(rows)
					rows = append(rows, r)
				}
				walk(l.Children, depth+1, l.Thread)
			}
		}
		list := p.Film.Scenes[scene].Layers
		if i := slices.IndexFunc(list, func(l *doc.Layer) bool { return l.Is().Looks }); i >= 0 { // the view stands at the top
			list = append(slices.Delete(slices.Clone(list), i, i+1), list[i])
		}
		walk(list, 0, "")
	}
	add(here, true)
	for i := range p.Film.Shown() {
		if i != here && all {
			add(i, false)
		}
	}
	shown := p.Film.Shown()
	for i, sc := range shown {
		begin := o.Begin(i)
		t := s.Shown.Timing(i)
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			at, wanted := seen[l.Thread]
			if !wanted {
				return true
			}
			r := &rows[at]
			if v, ok := s.strandInto(i, l.Thread); ok && i == 0 {
				r.Spans = append(r.Spans, Span{0, o.Length - o.Closing, o.Length, true, l.ID, v.By, nil})
			} else if ok {
				r.Spans = append(r.Spans, Span{i, o.Starts[i], begin, true, l.ID, v.By, nil})
			}
			if o.Stays[i] > 0 || len(o.RunOf(i)) == 0 {
				r.Spans = append(r.Spans, Span{i, begin, begin + o.Stays[i], false, l.ID, 0, nil})
			}
			for _, into := range []int{i, i + 1} {
				if into >= len(shown) || shown[into].Transition.Threads[l.Thread].Wing == "" {
					continue
				}
				if v, ok := s.loneStrand(into, l.Thread); ok {
					r.Flights = append(r.Flights, Flight{i, o.Starts[into], o.Begin(into), l.ID, v.Alone == "in", v.Wing})
				}
			}
			for k, mv := range l.Moves {
				b := s.bar(sc, mv, t, begin, i, l)
				b.Lane = k
				r.Bars = append(r.Bars, b)
			}
			return true
		})
	}
	for i := range rows {
		rows[i].Spans = s.throughRuns(rows[i].Spans)
	}
	return rows
}

// throughRuns makes one strand of those that a thread goes through in a run of morphs without a break.
func (s *Views) throughRuns(spans []Span) []Span {
	o := s.Shown.Order
	runOf := func(v Span) int {
		if run := o.RunOf(v.Scene); v.Strand && run != nil {
			return run[0]
		}
		return -1
	}
	out := spans[:0:0]
	for _, v := range spans {
		run := runOf(v)
		if run < 0 {
			out = append(out, v)
			continue
		}
		k := slices.IndexFunc(out, func(w Span) bool { return runOf(w) == run && (w.End == v.Begin || v.End == w.Begin) })
		switch {
		case k < 0:
			out = append(out, v)
		case out[k].End == v.Begin:
			out[k].Passes = append(slices.Clip(out[k].Passes), v.Begin)
			out[k].End, out[k].By = v.End, out[k].By+v.By
		default: // back to the first scene: it stands before the others
			w := out[k]
			w.Passes = append([]int64{v.End}, w.Passes...)
			w.Begin, w.By = v.Begin, w.By+v.By
			out[k] = w
		}
	}
	return out
}

// profile names the outline of a move, so that an interface may keep what it made of it; most moves share a few.
func (s *Views) profile(m *doc.Move, iv motion.Interval) string {
	key := fmt.Sprint(m.Kind, "/", m.Effect, "/", m.Easing, "/", m.Alternate, "/", m.Unit != "", "/", m.Lasts != "")
	g, c := m.Goes(), m.Comes()
	if g != nil && g.Bar != nil || c != nil && c.Bar != nil {
		key += fmt.Sprint("/", m.Params)
	}
	if m.Kind == doc.MotionPath || m.Kind == doc.Change {
		key += fmt.Sprintf("/%.4g", iv.Passes)
	}
	if s.profiles[key] == nil {
		n := 48
		if g != nil && g.Cycle != nil {
			n = 480 // what is shown in turn has upright edges
		}
		s.profiles[key] = motion.Profile(m, iv, n)
	}
	return key
}

// Profile returns the outline a bar names: heights 0..1 at equal steps from its begin to its end.
func (s *Views) Profile(key string) []float64 { return s.profiles[key] }

func (s *Views) bar(sc *doc.Scene, mv *doc.Move, t *motion.Timing, begin int64, scene int, l *doc.Layer) Bar {
	iv := t.Moves[mv.ID]
	b := Bar{
		Move: mv.ID, Layer: l.ID, Scene: scene, Kind: mv.Kind, Name: motion.Name(mv), Words: told(sc, l, mv, t),
		Begin: begin + iv.Begin, End: begin + iv.End, Whole: iv.Whole,
		Cut: max(0, iv.End-max(t.Stay, iv.Begin)),
	}
	if mv.Start.When == doc.WhenBegins || mv.Start.When == doc.WhenEnds {
		b.Of, b.When = mv.Start.Of, mv.Start.When
	}
	if mv.Start.When == doc.AtCue {
		b.Cue = mv.Start.Of
	}
	if mv.End != nil {
		b.EndOf, b.EndWhen = mv.End.Of, mv.End.When
	}
	for _, r := range sc.Runs {
		if slices.Contains(r.Moves, mv.ID) {
			b.Run = r.ID
		}
	}
	b.Early, b.Unknown = iv.Early, mv.Kind != doc.MotionPath && mv.Kind != doc.Change && mv.Does() == nil
	if at, ok := s.Shown.Lasting(scene, l.Thread, mv.ID); ok {
		b.Begin, b.End, b.Cut, b.Whole = begin+at.Begin, begin+at.End, 0, true
	}
	b.Phase = s.Shown.Phase(scene, mv.ID, l.ID)
	b.Cycle, b.Profile = s.Shown.Cycle(scene, mv, l.ID), s.profile(mv, iv)
	if gone := begin - s.Shown.Order.Into[scene] - b.Begin; mv.Begun > 0 && gone > 0 && mv.Lasts != doc.WholeThread {
		b.Begin, b.End = b.Begin+gone, max(b.End, b.Begin+gone)
		if b.Cycle > 0 {
			b.Phase = (b.Phase + gone) % b.Cycle
		} else {
			b.Before = gone
		}
	}
	b.Ties = mv.Comes() != nil && mv.Comes().Ties != nil
	if curve, ok := s.Shown.TieCurve(scene, l.ID, mv.ID); ok {
		b.Drivers, b.Begin, b.End, b.Cut, b.Early = mv.Ties().Layers(), begin+curve.Begin, begin+curve.End, 0, false
		b.Of, b.When, b.Cue, b.EndOf, b.EndWhen = "", "", "", "", ""
		b.Profile = fmt.Sprintf("tie/%.3v", curve.Shares)
		s.profiles[b.Profile] = curve.Shares
	}
	return b
}
