// Package session is a document open in one window: it carries out commands, keeps drafts while a gesture
// lasts, and answers the small views an interface needs (headings, rows, selection, overlay). It knows nothing of
// screens or browsers; the page drives it through cmd/engine, tests drive it directly.
package session

import (
	"encoding/base32"
	"encoding/binary"
	"math/rand/v2"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/patch"
	"capstan/core/pen"
	"capstan/core/text"
)

// Moment is what the page shows: scene Scene at rest, or the film at Time.
type Moment struct {
	Rest  bool    `json:"rest"`
	Scene int     `json:"scene"`
	Time  float64 `json:"time"` // ms of the film
}

// Session is one open document. It belongs to one goroutine.
type Session struct {
	fonts     text.Book
	own       map[string]string // families of the fonts of the document's own that were added, by hash
	doc       *doc.Project      // with all that was carried out here
	acked     *doc.Project      // as it is stored
	pending   []pending
	film      *frame.Film
	shown     *frame.Film // the film, or that of the draft
	player    *frame.Player
	drag      drag
	shows     shower
	came      edit.Command // what the drag has come to
	pulled    pulled
	drafted   edit.Command // what the draft shows, where it is a command's
	pen       *drawing
	lastPlate *doc.Plate // that was taken away last
	written   written
	copied    copied // by the last duplicate
	aids      Aids
	grows     []string            // what grows along with several layers, and with a group
	onNow     bool                // scenes at rest show only what is on at the playhead
	drafts    int                 // of paths whose points were dragged: each has a name of its own
	last      map[string]lastUsed // by kind and effect of a move
	id        func() string

	profiles map[string][]float64 // outlines of bars by name
}

// pulled is a drawn path whose points are dragged: its lines, and the name that stands for them in the draft.
type pulled struct {
	path  string
	lines []pen.Contour
}

type lastUsed struct {
	Duration int64
	Easing   string
}

// New returns a session without a document.
func New() *Session {
	s := &Session{grows: edit.Growth(), last: map[string]lastUsed{}, id: randomID, profiles: map[string][]float64{}}
	s.shows = s
	return s
}

// randomID makes ids where commands are made: short random strings.
func randomID() string {
	b := binary.LittleEndian.AppendUint64(nil, rand.Uint64())
	return strings.ToLower(strings.TrimRight(base32.StdEncoding.EncodeToString(b), "="))
}

// AddFont adds a font file; texts are set again when the next film is compiled.
func (s *Session) AddFont(family string, weight int, italic bool, data []byte) error {
	return s.fonts.Add(family, weight, italic, data)
}

// Open shows a document, read from JSON.
func (s *Session) Open(data []byte) error {
	p, err := doc.Read(data)
	if err != nil {
		return err
	}
	for _, family := range s.own { // of the document before
		s.fonts.Remove(family)
	}
	s.own = map[string]string{}
	f, err := frame.Compile(p, s.assets(), s.film)
	if err != nil {
		return err
	}
	s.acked, s.pending = p, nil
	s.show(p, f)
	return nil
}

func (s *Session) assets() frame.Assets { return frame.Assets{Fonts: &s.fonts} }

func (s *Session) show(p *doc.Project, f *frame.Film) {
	s.doc, s.film, s.shown, s.drafted = p, f, f, nil
	s.dropDrag()
	if s.player == nil {
		s.player = f.Player()
	}
	s.player.SetFilm(f)
}

// Document returns the document as it is, without the draft.
func (s *Session) Document() *doc.Project { return s.doc }

// Apply carries out a command and returns the patch it made; one that changed something is pending until it is
// acknowledged. On an error nothing has changed.
func (s *Session) Apply(c edit.Command) (patch.Patch, error) {
	p, patch, err := edit.Apply(s.doc, c, s.assets())
	if err != nil {
		return nil, err
	}
	f, err := frame.Compile(p, s.assets(), s.film)
	if err != nil {
		return nil, err
	}
	if len(patch) > 0 {
		s.pending = append(s.pending, pending{c, p})
	}
	s.show(p, f)
	return patch, nil
}

// Draft shows what a command would make, until Apply, Open or another Draft. The document stays.
func (s *Session) Draft(c edit.Command) error {
	p, err := edit.Draft(s.doc, c, s.assets())
	if err != nil {
		return err
	}
	s.drafted = c
	return s.showDraft(p)
}

// showUnder shows a document that came while something may be drafted, such as words that are being typed, and the draft over it. One that
// no longer fits is gone: what it was meant to become says why when it is carried out.
func (s *Session) showUnder(p *doc.Project, f *frame.Film) {
	c := s.drafted
	if s.dragging() {
		c = nil // a drag holds layers as they were
	}
	s.show(p, f)
	if c != nil && s.Draft(c) != nil {
		s.ClearDraft()
	}
}

func (s *Session) showDraft(p *doc.Project) error {
	f, err := frame.Compile(p, s.assets(), s.shown)
	if err != nil {
		return err
	}
	s.shown = f
	s.player.SetFilm(f)
	return nil
}

// ClearDraft shows the document again.
func (s *Session) ClearDraft() {
	s.shown, s.drafted = s.film, nil
	s.dropDrag()
	s.player.SetFilm(s.film)
}

// Solo shows only the layers of these threads on the page, with what is in and around them; none: all.
func (s *Session) Solo(threads []string) { s.player.Solo(threads) }

// Frame returns the display list of a moment.
func (s *Session) Frame(m Moment, scale float64) *frame.List {
	v := frame.View{Scale: scale, Repeats: faintCopies}
	s.thin(m)
	if m.Rest {
		return s.player.AtRest(s.sceneIndex(m), v)
	}
	return s.player.At(instant(m.Time), v)
}

// SetOnNow makes scenes at rest show only what is on at the playhead.
func (s *Session) SetOnNow(on bool) { s.onNow = on }

// SetGrows says what grows along when several layers, or a group, are resized: of edit.Growth.
func (s *Session) SetGrows(what []string) { s.grows = append([]string{}, what...) }

// thin tells the player what a moment at rest shows.
func (s *Session) thin(m Moment) {
	var at *motion.Clock
	i := s.sceneIndex(m)
	if m.Rest && s.onNow && !s.scene(m).Aside {
		at = &motion.Clock{At: instant(m.Time).Sub(s.shown.Order.Begin(i)), Stay: s.shown.Order.Stays[i]}
		if w := s.shown.Order.At(instant(m.Time)); w.Scene != i || w.Into {
			at.At = motion.Millis(0) // the playhead is elsewhere
		}
	}
	s.player.Thin(at)
}

// Thumb returns the display list of a small picture of a scene: at rest, with all of its layers.
func (s *Session) Thumb(scene int, scale float64) *frame.List {
	return s.player.Whole(s.sceneIndex(Moment{Rest: true, Scene: scene}), frame.View{Scale: scale, Repeats: faintCopies})
}

// faintCopies is the opacity of the copies of scrolls at rest: enough to see that they come.
const faintCopies = 0.3

// instant turns pointer and playback time into an exact one, in steps of a microsecond.
func instant(ms float64) motion.Instant { return motion.Seconds(ms / 1000) }

// SceneAt returns the scene that a moment is in; inside a transition, the one that comes.
func (s *Session) SceneAt(m Moment) int { return s.sceneIndex(m) }

func (s *Session) sceneIndex(m Moment) int {
	if m.Rest {
		return min(max(m.Scene, 0), len(s.shown.Doc.Film.Scenes)-1)
	}
	return s.shown.Order.At(instant(m.Time)).Scene
}

func (s *Session) scene(m Moment) *doc.Scene { return s.shown.Doc.Film.Scenes[s.sceneIndex(m)] }

// stand places everything as the moment shows it, for hits and overlays.
func (s *Session) stand(m Moment) {
	s.thin(m)
	s.placeAll(m)
}

// standWhole is stand with all that a scene at rest has, also what is not on now: what is selected is shown where it is.
func (s *Session) standWhole(m Moment) {
	s.player.Thin(nil)
	s.placeAll(m)
}

func (s *Session) placeAll(m Moment) {
	if m.Rest {
		s.player.StandAtRest(s.sceneIndex(m))
	} else {
		s.player.Stand(instant(m.Time))
	}
}

// layers returns the layers of the moment's scene that the threads name, in that order.
func (s *Session) layers(m Moment, threads []string) []*doc.Layer {
	var out []*doc.Layer
	sc := s.scene(m)
	find := sc.Thread
	if len(threads) > 16 { // looked for one by one, a thousand would take a second
		all := make(map[string]*doc.Layer, len(threads))
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { all[l.Thread] = l; return true })
		find = func(t string) *doc.Layer { return all[t] }
	}
	for _, t := range threads {
		if l := find(t); l != nil {
			out = append(out, l)
		}
	}
	return out
}

func ids(list []*doc.Layer) []string {
	out := make([]string, len(list))
	for i, l := range list {
		out[i] = l.ID
	}
	return out
}

// Only returns a display list with just the layer of that id, at rest, and the box it fills on its page; for small
// pictures of single layers.
func (s *Session) Only(id string, scale float64) (*frame.List, geom.Box) {
	for i, sc := range s.shown.Doc.Film.Scenes {
		if l, _ := sc.Layer(id); l != nil {
			return s.player.Only(i, id, frame.View{Scale: scale})
		}
	}
	return s.player.Only(0, "", frame.View{Scale: scale})
}
