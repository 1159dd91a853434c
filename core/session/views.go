package session

import (
	"math"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// Film is what the interface shows of the film as a whole.
type Film struct {
	Project string    `json:"project"`
	Name    string    `json:"name"`
	Width   int       `json:"width"`
	Height  int       `json:"height"`
	Rate    doc.Rate  `json:"rate"`
	Length  int64     `json:"length"` // ms
	Frames  int64     `json:"frames"`
	Loop    bool      `json:"loop"`
	Closing *Closing  `json:"closing"`
	Scenes  []Heading `json:"scenes"` // in their order; those set aside follow
	Shown   int       `json:"shown"`  // how many of them are in the film

	Palette  []string         `json:"palette"`
	Fonts    []OwnFont        `json:"fonts"` // of the document's own
	Looks    []*doc.SavedLook `json:"looks"`
	RoleSets []*doc.RoleSet   `json:"roleSets"`
}

// Closing is the transition from the last scene back to the first.
type Closing struct {
	doc.Transition
	Begin int64 `json:"begin"` // ms of the film
}

// Heading is a scene along time. Times are ms of the film.
type Heading struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	Start      int64       `json:"start"` // when its transition begins
	Into       int64       `json:"into"`  // the transition's duration
	Stay       int64       `json:"stay"`
	AutoStay   bool        `json:"autoStay"`
	Transition string      `json:"transition"`
	Easing     string      `json:"easing"`
	Direction  float64     `json:"direction"`
	Softness   float64     `json:"softness"`
	GoesOn     bool        `json:"goesOn"`
	MayGoOn    bool        `json:"mayGoOn"`    // the scene before does not stay and a morph leads into it
	Run        int         `json:"run"`        // how many morphs move as one with this transition; 0: it moves by itself
	Background doc.Fill    `json:"background"` // in the colours it has
	Roles      []Role      `json:"roles"`
	Layers     int         `json:"layers"`
	Cues       []Flag      `json:"cues"`
	EndsAtCue  string      `json:"endsAtCue"`
	Guides     []doc.Guide `json:"guides"`
	Aside      bool        `json:"aside"` // it is not in the film
}

// Flag is a cue on the film's time.
type Flag struct {
	doc.Cue
	Passed int64 `json:"passed"` // ms of the film: with all waits up to it
}

// FilmView returns the headings.
func (s *Session) FilmView() Film {
	p, o := s.shown.Doc, s.shown.Order
	v := Film{
		Palette: append([]string{}, s.shown.Doc.Palette...), Looks: append([]*doc.SavedLook{}, s.shown.Doc.Looks...), Fonts: s.ownFonts(), RoleSets: append([]*doc.RoleSet{}, s.shown.Doc.RoleSets...),
		Project: p.ID, Name: p.Name, Width: p.Film.Width, Height: p.Film.Height, Rate: p.Film.Rate,
		Length: o.Length, Frames: s.shown.Frames(), Loop: p.Film.Loop, Shown: len(p.Film.Shown()),
	}
	if c := p.Film.Closing; c != nil {
		v.Closing = &Closing{*c, o.Length - o.Closing}
	}
	for i, sc := range p.Film.Scenes {
		n := 0
		doc.Walk(sc.Layers, func(*doc.Layer, *doc.Layer) bool { n++; return true })
		t := sc.Transition
		h := Heading{
			ID: sc.ID, Name: sc.Name, Start: o.Starts[i], Into: o.Into[i], Stay: o.Stays[i], AutoStay: sc.AutoStay,
			Transition: t.Kind, Easing: t.Easing, Direction: t.Direction, Softness: t.Softness, GoesOn: t.GoesOn,
			Run: len(o.RunOf(i)), Background: painted(sc), Roles: roles(sc), Layers: n, Cues: []Flag{}, EndsAtCue: sc.EndsAtCue, Aside: sc.Aside, Guides: append([]doc.Guide{}, sc.Guides...),
		}
		h.MayGoOn = i > 1 && t.Kind == doc.Morph && p.Film.Scenes[i-1].Transition.Kind == doc.Morph && o.Stays[i-1] == 0
		for _, q := range sc.Cues {
			h.Cues = append(h.Cues, Flag{q, o.Begin(i) + motion.CueTime(sc, q.ID)})
		}
		v.Scenes = append(v.Scenes, h)
	}
	return v
}

// MoveView is a move in the inspector.
type MoveView struct {
	*doc.Move
	Name    string      `json:"name"`
	Words   string      `json:"words"`
	Begin   int64       `json:"begin"` // ms on the scene's clock
	End     int64       `json:"end"`
	Early   bool        `json:"early"`
	Easing  string      `json:"easingUsed"`
	Speed   float64     `json:"speed,omitempty"` // px/s of a path
	Units   []string    `json:"units"`           // what it can be divided into
	Before  string      `json:"before"`          // the loop of the scene before that it could go on from
	Film    int64       `json:"film"`            // ms of the film at its begin
	Cut     int64       `json:"cut"`             // ms beyond the scene's end
	Reach   *[2]float64 `json:"reach,omitempty"` // from its begin to its end, px
	Profile []float64   `json:"profile"`
	Rounds  *[2]float64 `json:"rounds,omitempty"` // how often a scroll comes round in its scene, and in the film
}

// MarshalJSONTo keeps the embedded move's own encoding from taking over.
func (v MoveView) MarshalJSONTo(e *jsontext.Encoder) error {
	raw, err := flat(v)
	if err != nil {
		return err
	}
	return e.WriteValue(raw)
}

// Selected is a selected layer in the inspector: its own fields, and what is worked out of them.
type Selected struct {
	Layer   *doc.Layer   `json:"layer"` // without children and moves
	Count   int          `json:"count"` // layers inside a group
	Moves   []MoveView   `json:"moves"`
	Box     [4]float64   `json:"box"`   // x y of the middle in the parent's axes, w h, at rest
	Refs    [][2]float64 `json:"refs"`  // corners, sides and middle of the box in the axes of the parent, row by row
	Now     *[3]float64  `json:"now"`   // x y turn where it is now, when that differs from rest
	Pivot   [2]float64   `json:"pivot"` // in shares of the box
	In      string       `json:"in"`    // the name of the group it lies in
	Later   int          `json:"later"`
	Strands []Strand     `json:"strands"`  // the morphs that it goes through into the scene and, of the last, out of it
	Colours []string     `json:"colours"`  // fills found in a group
	Kept    []string     `json:"kept"`     // names of the layers it was made of
	Made    string       `json:"made"`     // how it was made of them
	Plate   *Contrast    `json:"contrast"` // of a text with its plate
	Missing string       `json:"missing"`  // characters of a text that no family has
	Fit     *Fit         `json:"fit"`      // of a text whose box has a height of its own
	Closed  bool         `json:"closed"`   // covers an area by itself
	Unites  bool         `json:"unites"`   // is of a kind that is combined with others
	Grounds bool         `json:"grounds"`  // may fill the page
	Bares   bool         `json:"bares"`    // covers the page at rest, and not all along its path
}

// Selection returns the selected layers of the moment's scene. For a lot of them there is ManyView.
func (s *Session) Selection(m Moment, threads []string) []Selected {
	out := []Selected{}
	i := s.sceneIndex(m)
	sc := s.shown.Doc.Film.Scenes[i]
	s.stand(m)
	for _, l := range s.layers(m, threads) {
		v := Selected{Layer: shown(l, sc), Moves: []MoveView{}, Colours: []string{}, Kept: []string{}, Strands: s.strandsOf(i, l.Thread), Closed: s.shown.Encloses(i, l.ID), Missing: s.missing(l), Plate: contrast(l, sc)}
		v.Layer.Path = "" // long, and shown by nothing but the page
		if roomy(l) {
			scale, over := s.shown.Fit(i, l.ID)
			v.Fit = &Fit{scale, over}
		}
		if l.Made != nil {
			v.Made = l.Made.How
			for _, k := range l.Made.Of {
				v.Kept = append(v.Kept, k.Name)
			}
		}
		seen := map[string]bool{}
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			if k != l {
				v.Count++
			}
			if k.Fill.Kind == doc.Solid {
				if c := resolved(ink{&k.Fill.Colour, &k.Fill.Role, &k.Fill.Tone}, sc); !seen[c] {
					seen[c] = true
					v.Colours = append(v.Colours, c)
				}
			}
			return true
		})
		_, parent := sc.Layer(l.ID)
		if parent != nil {
			v.In = parent.Name
		}
		v.Unites, v.Grounds = combinable(l) == nil, groundable(l, parent)
		box, pivot := s.shown.Box(i, l.ID)
		rest := s.shown.RestMatrix(i, l.ID)
		at := rest.Apply(box.Centre())
		if box.W() > 0 && box.H() > 0 {
			v.Pivot = [2]float64{(pivot.X - box.Min.X) / box.W(), (pivot.Y - box.Min.Y) / box.H()}
		}
		v.Box = [4]float64{at.X, at.Y, box.W(), box.H()}
		v.Refs = [][2]float64{}
		for k := 0; k < 9; k++ {
			v.Refs = append(v.Refs, pair(rest.Apply(geom.Point{X: box.Min.X + float64(k%3)/2*box.W(), Y: box.Min.Y + float64(k/3)/2*box.H()})))
		}
		v.Bares = s.bares(l, box, rest)
		if own, outer, ok := s.player.Axes(l.ID); ok && !m.Rest {
			if inv, ok := outer.Inverse(); ok {
				local := inv.Mul(own)
				now := local.Apply(box.Centre())
				turn := geom.AngleOf(local)
				restTurn := geom.AngleOf(rest)
				if now.Sub(at).Len() > 0.05 || diff(turn, restTurn) > 0.05 {
					v.Now = &[3]float64{now.X, now.Y, turn}
				}
			}
		}
		for _, later := range s.shown.Doc.Film.After(i) {
			if later.Thread(l.Thread) != nil {
				v.Later++
			}
		}
		for _, mv := range l.Moves {
			w := s.moveView(sc, i, l, mv)
			v.Moves = append(v.Moves, w)
		}
		out = append(out, v)
	}
	return out
}

// moveView returns a move of a layer of scene i as the inspector shows it.
func (s *Session) moveView(sc *doc.Scene, i int, l *doc.Layer, mv *doc.Move) MoveView {
	t := s.shown.Timing(i)
	iv := t.Moves[mv.ID]
	w := MoveView{
		Move: mv, Name: motion.Name(mv), Words: told(sc, l, mv, t), Begin: iv.Begin, End: iv.End, Early: iv.Early,
		Easing: mv.Easing, Units: unitsOf(l, mv),
		Film: s.shown.Order.Begin(i) + iv.Begin, Cut: max(0, iv.End-max(t.Stay, iv.Begin)),
	}
	w.Profile, w.Rounds = motion.Profile(mv, iv, 24), s.roundsOf(i, l, mv)
	if mv.Kind == doc.Loop && i > 0 && !sc.Aside {
		w.Before = loopBefore(s.shown.Doc.Film.Scenes[i-1].Thread(l.Thread), mv)
	}
	if w.Easing == "" {
		w.Easing = motion.DefaultEasing(mv)
	}
	if mv.Path != nil && iv.Pass > 0 {
		if p, err := geom.ParseData(mv.Path.D); err == nil && len(p.Points) > 1 {
			w.Speed = geom.NewMeasure(p).Length() / float64(iv.Pass) * 1000
			d := p.Points[len(p.Points)-1].Sub(p.Points[0])
			w.Reach = &[2]float64{d.X, d.Y}
		}
	}
	return w
}

// loopBefore returns the first loop with the same effect of the thread's layer in the scene before, if any.
func loopBefore(l *doc.Layer, m *doc.Move) string {
	if l == nil {
		return ""
	}
	for _, o := range l.Moves {
		if o.Kind == doc.Loop && o.Effect == m.Effect && o.Lasts == doc.WholeScene {
			return o.ID
		}
	}
	return ""
}

// unitsOf returns what a move of a layer can be divided into.
func unitsOf(l *doc.Layer, m *doc.Move) []string {
	if m.Kind != doc.Entrance && m.Kind != doc.Exit && m.Effect != doc.Rock {
		return []string{}
	}
	switch l.Kind {
	case doc.TextKind:
		return []string{doc.ByLine, doc.ByWord, doc.ByLetter}
	case doc.Group:
		return []string{doc.ByPart}
	}
	return []string{}
}

func diff(a, b float64) float64 {
	d := a - b
	for d > 180 {
		d -= 360
	}
	for d < -180 {
		d += 360
	}
	return max(d, -d)
}

// Delivery is what a file of the whole film would be.
type Delivery struct {
	Width   int    `json:"width"`
	Height  int    `json:"height"`
	Frames  int64  `json:"frames"`
	Rest    int64  `json:"rest"`    // ms its last frame rests
	Asked   bool   `json:"asked"`   // the document says so
	Pass    int64  `json:"pass"`    // ms from one begin to the next, with the rest
	Refused string `json:"refused"` // why there can be none, in words
}

// DeliveryView returns what a file of a format would be at a height, or else a width, and a rate.
func (s *Session) DeliveryView(format string, width, height int, rate doc.Rate, once bool) Delivery {
	p, err := delivery.Of(s.film, delivery.Ask{Format: format, Width: width, Height: height, Rate: rate, Once: once})
	v := Delivery{Width: p.Width, Height: p.Height, Rest: p.EndPause, Asked: s.doc.Film.EndPause != nil, Pass: s.film.Order.Length + p.EndPause}
	if err != nil {
		v.Refused = err.Error()
		return v
	}
	v.Frames = p.Frames(s.film)
	return v
}

// Step returns the film time of the frame n frames on from a time, in ms: frames lie on the film's own grid.
func (s *Session) Step(ms float64, n int64) float64 {
	r := s.doc.Film.Rate
	k := int64(math.Round(ms*float64(r.Num)/(1000*float64(r.Den)))) + n
	return motion.FrameTime(max(k, 0), r.Num, r.Den).Ms()
}

// DocumentColours returns the colours the document uses, the most used first.
func (s *Session) DocumentColours() []string {
	count := map[string]int{}
	var order []string
	one := func(c string) {
		if c != "" {
			if count[c] == 0 {
				order = append(order, c)
			}
			count[c]++
		}
	}
	for _, sc := range s.doc.Film.Scenes {
		eachInk(sc, func(k ink) { one(resolved(k, sc)) })
	}
	sortByCount(order, count)
	return order[:min(len(order), 16)]
}
