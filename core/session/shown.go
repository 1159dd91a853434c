package session

import (
	"slices"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/heard"
	"capstan/core/intent/scenes"
	"capstan/core/overlay"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/view"
)

// manySelected: of more selected layers than this only what is common to them is worked out.
const manySelected = 24

// Watched is what a window looks at: a moment, and of that the selected layers. What it does not look at is not worked out.
type Watched struct {
	Moment  scope.Moment
	Threads []string
	Ghosts  bool   // where the selected layers were and will be
	Ends    bool   // how they stand when their moves begin and end
	Ground  bool   // with nothing selected: the gradient of the scene's background
	Outline string // with one thread: the scene into which it is shown what its outline becomes; empty: none
	All     bool   // rows of threads that are not in the moment's scene, too
}

// Held is what is shown of the selected layers: it is asked for again with every move of a drag.
type Held struct {
	Selected []view.Selected  `json:"selected"`
	Many     *view.Many       `json:"many,omitzero"` // in place of Selected: they are a lot
	Overlay  overlay.Overlay  `json:"overlay"`
	Corners  []float64        `json:"corners,omitzero"` // of each of many, from its own upper left clockwise, eight numbers; in place of Overlay.Boxes
	Ghosts   []overlay.Ghost  `json:"ghosts"`
	Ends     []overlay.Ghost  `json:"ends"`
	Outline  *overlay.Outline `json:"outline,omitzero"` // what the outline of the one thread becomes, where that is watched
	View     *overlay.Frame   `json:"view,omitzero"`    // of the scene at rest: what part of the page it shows
}

// Seen is what changes when a window looks at something else.
type Seen struct {
	Held
	Scene int `json:"scene"`
}

// Shown is all that a window shows of the document beside its frames.
type Shown struct {
	Held
	Film    view.Film    `json:"film"`
	Rows    []view.Row   `json:"rows"`
	Sounds  heard.Sounds `json:"sounds"`
	Moment  scope.Moment `json:"moment"` // the one that is looked at, within the film as it is
	Scene   int          `json:"scene"`
	Threads []string     `json:"threads"` // those that are selected and still there
	Colours []string     `json:"colours"`
	Undo    int          `json:"undo"` // steps that can be undone
	Redo    int          `json:"redo"`
	After   *After       `json:"after"` // layers are shown as they are after changes; null: at rest
	Lacks   bool         `json:"lacks"` // it uses fonts that have not been added
}

// Dragged is what a move of the pointer comes to.
type Dragged struct {
	gesture.Readout
	Held
}

// Drafted is what a draft shows.
type Drafted struct {
	Held
	Trouble string        `json:"trouble"` // why there is none, in words
	Film    *view.Film    `json:"film,omitzero"`
	Rows    []view.Row    `json:"rows,omitzero"`
	Sounds  *heard.Sounds `json:"sounds,omitzero"`
}

// Done is what a command has done.
type Done struct {
	Shown
	Command jsontext.Value `json:"command"` // to be stored; null where nothing has changed
	ID      string         `json:"id"`      // a new one, for the command to be stored under
	Changes patch.Patch    `json:"changes"`
	Later   scenes.Carried `json:"later"` // of later scenes that could have the same
}

// Watch looks at something else.
func (s *Session) Watch(w Watched) Seen {
	s.watched = w
	return Seen{s.held(), s.SceneIndex(w.Moment)}
}

func (s *Session) held() Held {
	w := s.watched
	h := Held{Selected: []view.Selected{}, Overlay: overlay.Overlay{Boxes: []overlay.Box{}, Paths: []overlay.Path{}, Away: []overlay.Away{}, Rings: []overlay.Ring{}}, Ghosts: []overlay.Ghost{}, Ends: []overlay.Ghost{}}
	n := len(w.Threads)
	switch {
	case n > manySelected:
		many := s.ManyView(w.Moment, w.Threads)
		h.Many = &many
		h.Overlay.Around, h.Corners = s.CrowdView(w.Moment, w.Threads)
	case n > 0:
		h.Selected, h.Overlay = s.Selection(w.Moment, w.Threads), s.OverlayView(w.Moment, w.Threads)
	case w.Ground:
		h.Overlay.Gradient = s.BackgroundLine(w.Moment)
	}
	h.View = s.ViewFrame(w.Moment)
	if n > 0 && n <= manySelected && w.Ghosts { // of a lot of them they would hide each other
		h.Ghosts = s.Ghosts(w.Moment, w.Threads)
	}
	if n == 1 && w.Outline != "" {
		h.Outline = s.OutlineView(w.Outline, w.Threads[0])
	}
	if n > 0 && n <= manySelected && w.Ends {
		h.Ends = s.Ends(w.Moment, w.Threads)
	}
	return h
}

// rowsOf returns the rows that are watched.
func (s *Session) rowsOf(m scope.Moment) []view.Row {
	if s.watched.All {
		return s.Rows(m)
	}
	return s.RowsHere(m)
}

// All is all that is shown of the document as it is now. What is looked at stays within it.
func (s *Session) All() Shown {
	m := &s.watched.Moment
	v := Shown{Film: s.FilmView(), Colours: s.DocumentColours(), Lacks: len(s.FamiliesWanted()) > 0 || len(s.FontsWanted()) > 0}
	m.Scene, m.Time = min(m.Scene, len(v.Film.Scenes)-1), min(m.Time, float64(v.Film.Length))
	v.Moment, v.Scene, v.Rows = *m, s.SceneIndex(*m), s.rowsOf(*m)
	there := map[string]bool{}
	for _, sc := range s.Shown.Doc.Film.Scenes {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			there[l.Thread] = true
			return true
		})
	}
	s.watched.Threads = slices.DeleteFunc(slices.Clone(s.watched.Threads), func(t string) bool { return !there[t] })
	v.Threads, v.Held = s.watched.Threads, s.held()
	v.Sounds = s.SoundsView()
	v.Undo, v.Redo = s.Steps()
	v.After = s.AfterView()
	return v
}

// Drag is Update with all that is shown of what is dragged.
func (s *Session) Drag(at geom.Point, mod gesture.Modifiers) (Dragged, error) {
	r, err := s.Update(at, mod)
	if err != nil {
		return Dragged{}, err
	}
	return Dragged{r, s.held()}, nil
}

// Try shows what an intent would do, without doing it, worked out from the document and not from the draft before; with time what it does to
// the timeline, too. Half-typed values may be refused: that is no error but Trouble, and the document is shown.
func (s *Session) Try(name string, raw jsontext.Value, time bool) Drafted {
	s.ClearDraft()
	s.Trying = true
	c, err := s.Intent(name, s.watched.Moment, raw)
	s.Trying = false
	return s.try(c, err, time)
}

// TryCommand is Try of a command.
func (s *Session) TryCommand(c edit.Command, time bool) Drafted { return s.try(c, nil, time) }

func (s *Session) try(c edit.Command, err error, time bool) Drafted {
	if err == nil && c != nil {
		err = s.Draft(c)
	}
	trouble := ""
	if err != nil {
		s.ClearDraft()
		trouble = err.Error()
	}
	return s.Drafted(trouble, time)
}

// Drafted is what the draft shows; with time what it does to the timeline, too.
func (s *Session) Drafted(trouble string, time bool) Drafted {
	v := Drafted{Held: s.held(), Trouble: trouble}
	if time {
		f, q := s.FilmView(), s.SoundsView()
		v.Film, v.Rows, v.Sounds = &f, s.rowsOf(s.watched.Moment), &q
	}
	return v
}

// Carry is Do with all that is shown then. across says whether later scenes are looked through for what could be changed in the same way.
func (s *Session) Carry(c edit.Command, row Row, across bool) (Done, error) {
	c, err := s.toChanges(c)
	if err != nil {
		return Done{}, err
	}
	p, err := s.Do(c, row)
	if err != nil {
		return Done{}, err
	}
	v := Done{Changes: p}
	if len(p) > 0 {
		v.ID = s.NewID()
		if v.Command, err = edit.Write(c); err != nil {
			return Done{}, err
		}
		if across && len(s.Doc.Film.Shown()) > 1 {
			v.Later = scenes.Later(s.Desk, p)
		}
	}
	v.Shown = s.All()
	return v, nil
}

// Run carries out what is asked for at the moment that is looked at; nil when there is nothing to do.
func (s *Session) Run(name string, raw jsontext.Value, row Row, across bool) (*Done, error) {
	c, err := s.Intent(name, s.watched.Moment, raw)
	if err != nil || c == nil {
		return nil, err
	}
	v, err := s.Carry(c, row, across)
	return &v, err
}

// Back is Undo, and with again Redo, with all that is shown then; nil where there is no step.
func (s *Session) Back(again bool) (*Done, error) {
	step := s.Undo
	if again {
		step = s.Redo
	}
	c, err := step()
	if err != nil || c == nil {
		return nil, err
	}
	v := Done{ID: s.NewID(), Changes: patch.Patch{}}
	if v.Command, err = edit.Write(c); err != nil {
		return nil, err
	}
	v.Shown = s.All()
	return &v, nil
}
