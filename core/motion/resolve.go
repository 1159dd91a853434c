package motion

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/words"
)

// Interval is a move on its scene's clock, all hitches resolved, in ms.
type Interval struct {
	Begin, End int64   // End = Begin + active time; of whole-scene loops: the stay
	Pass       int64   // one pass; loops: one cycle
	Passes     float64 // active time in passes
	Whole      bool    // lasts the whole scene and runs through its transitions
	Stretched  float64 // passes that divide the active time of one that is stretched between two ends; 0: Pass is what was asked for
	Early      bool    // asked to begin before the scene's own transition; resolved as the earliest
}

// Timing holds the resolved moves of one scene by move id.
type Timing struct {
	Stay   int64 // ms, with auto stay worked out
	Moves  map[string]Interval
	Sounds map[string]Interval // of the scene's clock, by their ids
}

// Cycle is the error for hitches that hang on each other in a ring.
type Cycle struct{ Names []string }

func (e *Cycle) Error() string { return e.Fault().Error() }

// Fault returns it in words for people.
func (e *Cycle) Fault() *words.Fault {
	s := ""
	for i, n := range e.Names {
		if i > 0 {
			s += " hangs on "
		}
		s += n
	}
	return words.New("hitch.ring", s)
}

type resolver struct {
	scene  *doc.Scene
	into   int64
	moves  map[string]*doc.Move
	layers map[string]*doc.Layer
	begin  map[string]int64
	end    map[string]int64
	early  map[string]bool
	trail  []string
	stay   int64
	asked  bool // the stay was asked for
	failed error
}

// Resolve works out when every move of the scene begins and ends. into is the duration of the
// transition into the scene: the earliest begin is -into. A ring of hitches returns *Cycle; a hitch
// on the end of a move that lasts the whole scene returns a *words.Fault.
func Resolve(s *doc.Scene, into int64) (*Timing, error) {
	r := &resolver{
		scene: s, into: into, stay: s.Stay,
		moves: map[string]*doc.Move{}, layers: map[string]*doc.Layer{},
		begin: map[string]int64{}, end: map[string]int64{}, early: map[string]bool{},
	}
	var order []*doc.Move
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			r.moves[m.ID] = m
			r.layers[m.ID] = l
			order = append(order, m)
		}
		return true
	})
	sounds := r.heard(s)
	switch {
	case s.EndsAtCue != "":
		r.stay = CueTime(s, s.EndsAtCue)
	case s.AutoStay:
		r.stay = r.autoStay(order, sounds) // the waits are in the times of what hangs on cues
		for _, q := range s.Cues {
			r.stay = max(r.stay, CueTime(s, q.ID))
		}
		r.stay = min(r.stay, doc.MaxTime)
	default:
		for _, q := range s.Cues {
			r.stay += q.Wait
		}
	}
	t := &Timing{Stay: r.stay, Moves: make(map[string]Interval, len(order))}
	for _, m := range order {
		b, e := r.beginOf(m.ID), r.endOf(m.ID)
		if r.failed != nil {
			return nil, r.failed
		}
		iv := Interval{Begin: b, End: e, Pass: r.pass(m), Passes: 1, Whole: wholeScene(m), Early: r.early[m.ID]}
		if m.Lasts != "" && !iv.Whole && m.Keeps == "" {
			iv.Pass = max(e-b, 0)
		}
		if m.Clocked() {
			// its cycle is what it is, however long it goes on
		} else if m.End != nil && m.End.Stretches && m.Lasts == "" && m.Until == "" && m.Repeat > 0 {
			iv.Pass, iv.Stretched = max(1, int64(math.Round(float64(e-b)/m.Repeat))), m.Repeat
		} else if m.End != nil && m.End.Stretches && m.Lasts == "" && m.Until == "" {
			iv.Pass = e - b
		}
		if iv.Stretched > 0 {
			iv.Passes = iv.Stretched
		} else if m.Repeat > 0 && m.Lasts == "" && m.Until == "" && !m.Runs() {
			iv.Passes = m.Repeat // its end is rounded to ms, they are not
		} else if iv.Pass > 0 {
			iv.Passes = float64(e-b) / float64(iv.Pass)
		}
		t.Moves[m.ID] = iv
	}
	if len(sounds) > 0 {
		t.Sounds = make(map[string]Interval, len(sounds))
	}
	for _, m := range sounds {
		b, e := r.beginOf(m.ID), r.endOf(m.ID)
		if r.failed != nil {
			return nil, r.failed
		}
		t.Sounds[m.ID] = Interval{Begin: b, End: e, Pass: e - b, Passes: 1, Early: r.early[m.ID]}
	}
	return t, nil
}

// heard are the sounds of a scene as moves that do nothing: they begin and end by the same rules.
func (r *resolver) heard(s *doc.Scene) (list []*doc.Move) {
	for _, q := range s.Sounds {
		if q == nil {
			continue // validation says so
		}
		m := &doc.Move{ID: q.ID, Start: q.Start, End: q.End, Duration: q.Length}
		r.moves[q.ID], r.layers[q.ID] = m, &doc.Layer{Name: q.Name}
		list = append(list, m)
	}
	return list
}

// wholeScene reports whether a loop runs through the transitions on both sides of its scene; what drifts stands there.
func wholeScene(m *doc.Move) bool {
	return m.Kind == doc.Loop && m.Lasts == doc.WholeScene && !m.Drifts()
}

// name says which move is meant, in words for people.
func (r *resolver) name(id string) string {
	return fmt.Sprintf("%s of “%s”", Name(r.moves[id]), r.layers[id].Name)
}

func (r *resolver) fail(err error) int64 {
	if r.failed == nil {
		r.failed = err
	}
	return 0
}

// enter guards against rings: key is a move's begin or end being worked out.
func (r *resolver) enter(key string) bool {
	for i, k := range r.trail {
		if k == key {
			c := &Cycle{}
			last := ""
			for _, k := range append(r.trail[i:], key) {
				if id := k[1:]; id != last { // its begin and its end are one name
					c.Names = append(c.Names, r.name(id))
					last = id
				}
			}
			if len(c.Names) == 1 {
				c.Names = append(c.Names, "itself")
			}
			r.fail(c)
			return false
		}
	}
	r.trail = append(r.trail, key)
	return true
}

func (r *resolver) leave() { r.trail = r.trail[:len(r.trail)-1] }

func (r *resolver) beginOf(id string) int64 {
	if v, ok := r.begin[id]; ok {
		return v
	}
	if r.failed != nil || !r.enter("b"+id) {
		return 0
	}
	defer r.leave()
	m := r.moves[id]
	var v int64
	if m.End != nil && !m.End.Stretches && m.Lasts == "" && m.Until == "" {
		v = r.anchor(m.End.When, m.End.Of) - r.active(m)
	} else {
		switch m.Start.When {
		case doc.AtTime:
			v = m.Start.Offset
		case doc.BeforeSceneEnd:
			r.asked = true
			v = r.stay - m.Start.Offset
		case doc.AtCue:
			v = CueTime(r.scene, m.Start.Of) + m.Start.Offset
		case doc.WhenHeard, doc.WhenSilent:
			v = r.onSound(m.Start) + m.Start.Offset
		default:
			v = r.anchor(m.Start.When, m.Start.Of) + m.Start.Offset
		}
	}
	if v < -r.into {
		v = -r.into
		r.early[id] = true
	}
	v -= m.Begun
	if r.failed == nil {
		r.begin[id] = v
	}
	return v
}

func (r *resolver) endOf(id string) int64 {
	if v, ok := r.end[id]; ok {
		return v
	}
	if r.failed != nil || !r.enter("e"+id) {
		return 0
	}
	defer r.leave()
	m := r.moves[id]
	var v int64
	switch {
	case m.Lasts != "":
		r.asked = true
		v = max(r.stay, r.beginOf(id))
	case m.End != nil && m.End.Stretches && m.Until == "":
		v = max(r.anchor(m.End.When, m.End.Of), r.beginOf(id)+doc.MinDuration)
	case m.Until != "":
		v = max(r.anchor(doc.WhenBegins, m.Until), r.beginOf(id))
	default:
		v = r.beginOf(id) + r.active(m)
	}
	if r.failed == nil {
		r.end[id] = v
	}
	return v
}

// onSound is when a sound begins, ends, or comes to a mark for the first time.
func (r *resolver) onSound(at doc.Start) int64 {
	q, mark := r.scene.Heard(at.Of)
	switch {
	case q == nil:
		return r.fail(words.New("hitch.elsewhere"))
	case at.When == doc.WhenSilent:
		return r.endOf(q.ID)
	case mark == nil:
		return r.beginOf(q.ID)
	}
	return r.beginOf(q.ID) + int64(math.Round(float64(mark.At-q.From)/q.Rate()))
}

func (r *resolver) anchor(when, of string) int64 {
	if when == doc.BeforeSceneEnd {
		r.asked = true
		return r.stay
	}
	m := r.moves[of]
	if m == nil {
		return r.fail(words.New("hitch.elsewhere"))
	}
	if when == doc.WhenBegins {
		return r.beginOf(of)
	}
	if m.Lasts != "" {
		return r.fail(words.New("hitch.lasting", r.name(of)))
	}
	return r.endOf(of)
}

// active returns the active time: duration x repeat (SMIL 3.0, Web Animations).
func (r *resolver) active(m *doc.Move) int64 {
	if m.Repeat > 0 && !m.Runs() {
		return int64(math.Round(float64(r.pass(m)) * m.Repeat))
	}
	return r.pass(m)
}

// pass returns one pass, or one cycle where the parameters say it.
func (r *resolver) pass(m *doc.Move) int64 { return PassOf(m, len(r.layers[m.ID].Children)) }

// PassOf returns how long one pass of a move is, in ms, of a layer with so many children.
func PassOf(m *doc.Move, parts int) int64 {
	if g := m.Goes(); g != nil && g.Cycle != nil {
		return g.Cycle(effect.Of{Params: m.Full(), Kind: m.Kind, Parts: parts})
	}
	return m.Duration
}

// forget leaves what was worked out for another stay.
func (r *resolver) forget() {
	clear(r.begin)
	clear(r.end)
	clear(r.early)
}

// CueTime returns when a cue is passed on the scene's clock, all waits up to it counted, in ms; 0 for one it does not have.
func CueTime(s *doc.Scene, id string) int64 {
	for _, q := range s.Cues {
		if q.ID == id {
			at := q.At
			for _, w := range s.Cues {
				if w.At <= q.At {
					at += w.Wait
				}
			}
			return at
		}
	}
	return 0
}

// autoStay works out the stay from the finite moves and the words (docs/motion.md, section 1).
func (r *resolver) autoStay(order, sounds []*doc.Move) int64 {
	const tail, reading = 500, 1000.0 / 3
	last, exits, any := int64(0), false, false
	entered := map[string]int64{}
	for _, m := range order {
		r.asked = false
		if m.Lasts != "" || m.TiedIn(r.scene) {
			continue
		}
		e := r.endOf(m.ID)
		if r.failed != nil || r.asked {
			// Hangs on the scene's end: does not count. What was worked out on the way must be worked out again with the stay.
			r.forget()
			continue
		}
		any = true
		if e > last || e == last && m.Kind == doc.Exit {
			last, exits = e, m.Kind == doc.Exit
		}
		if m.Kind == doc.Entrance {
			_, l := r.scene.Move(m.ID)
			entered[l.ID] = max(entered[l.ID], r.endOf(m.ID))
		}
	}
	stay := last
	if any && !exits {
		stay += tail
	}
	for _, m := range sounds { // they have no tail
		r.asked = false
		e := r.endOf(m.ID)
		if r.failed != nil || r.asked {
			r.forget()
			continue
		}
		any, stay = true, max(stay, e)
	}
	words, shown := 0, int64(0)
	doc.Walk(r.scene.Layers, func(l, _ *doc.Layer) bool {
		if l.Kind == doc.TextKind && !l.Hidden {
			words += wordCount(l.Text.String())
			shown = max(shown, entered[l.ID])
		}
		return !l.Hidden
	})
	if words > 0 {
		any = true
		stay = max(stay, shown+int64(math.Round(float64(words)*reading))+500)
	}
	r.forget()
	if !any {
		return 2000
	}
	return stay
}

func wordCount(s string) int {
	n, in := 0, false
	for _, c := range s {
		if c == ' ' || c == '\n' || c == '\t' {
			in = false
		} else if !in {
			n, in = n+1, true
		}
	}
	return n
}

// Name returns the word of a move for people; an effect that this version does not know is called by its name.
func Name(m *doc.Move) string {
	name := m.Effect
	switch e := m.Does(); {
	case m.Kind == doc.MotionPath:
		return "Path"
	case m.Kind == doc.Change:
		return "Change"
	case e != nil:
		name = e.Words
	}
	switch m.Kind {
	case doc.Entrance:
		return name + ", in"
	case doc.Exit:
		return name + ", out"
	}
	return name
}
