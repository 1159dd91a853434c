// Package session is a document open in one window: it carries out commands, keeps drafts while something is dragged, what waits to be stored
// and what can be undone, and brings together what is shown (view), dragged (gesture) and asked for (intent). It knows nothing of screens or
// browsers; the page drives it through cmd/engine, tests drive it directly.
package session

import (
	"encoding/base32"
	"encoding/binary"
	"math/rand/v2"
	"strings"

	"capstan/core/caret"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/gallery"
	"capstan/core/gesture"
	"capstan/core/heard"
	"capstan/core/intent"
	"capstan/core/overlay"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/view"
	"capstan/core/words"
)

// Session is one open document. It belongs to one goroutine.
type Session struct {
	*scope.Scope
	*view.Views
	*overlay.Overlays
	*caret.Writer
	*gesture.Drags
	*intent.Desk
	*heard.Ear

	whole   *doc.Project      // Doc with each film in its place
	own     map[string]string // families of the fonts of the document's own that were added, by hash
	acked   *doc.Project      // as it is stored
	pending []pending
	steps   steps
	drafted edit.Command // what the draft shows, where it is a command's
	watched Watched
	gallery *gallery.Gallery // that is open; nil: none is
	after   []string         // the changes whose outcome is shown and edited; Doc has their layers so
}

// New returns a session without a document.
func New() *Session {
	at := &scope.Scope{Grows: edit.Growth(), NewID: randomID}
	s := &Session{Scope: at, Views: view.New(at), Overlays: &overlay.Overlays{Scope: at}, Writer: &caret.Writer{Scope: at}, Desk: intent.New(at), Ear: &heard.Ear{Scope: at}}
	s.Drags = gesture.New(at, s)
	return s
}

// randomID makes ids where commands are made: short random strings.
func randomID() string {
	b := binary.LittleEndian.AppendUint64(nil, rand.Uint64())
	return strings.ToLower(strings.TrimRight(base32.StdEncoding.EncodeToString(b), "="))
}

// AddFont adds a font file; texts are set again when the next film is compiled.
func (s *Session) AddFont(family string, weight int, italic bool, data []byte) error {
	return s.Fonts.Add(family, weight, italic, data)
}

// Open shows a document, read from JSON.
func (s *Session) Open(data []byte) error {
	p, err := doc.Read(data)
	if err != nil {
		return err
	}
	for _, family := range s.own { // of the document before
		s.Fonts.Remove(family)
	}
	s.own = map[string]string{}
	s.FilmID, s.after = "", nil
	f, err := s.compile(p)
	if err != nil {
		return err
	}
	s.acked, s.pending, s.steps = p, nil, steps{}
	s.watched = Watched{}
	s.show(p, f)
	return nil
}

// compile makes the film that is worked on, of a project with each film in its place; the first where that is gone.
func (s *Session) compile(p *doc.Project) (*frame.Film, error) {
	q := p.Showing(s.FilmID)
	if q == nil {
		q, s.FilmID = p, ""
	}
	q = s.afterChanges(q)
	return frame.Compile(q, s.Assets(), s.Film)
}

// ShowFilm goes on with another film of the project: an empty id is that of its first. Steps to undo stay, whichever film they are of.
func (s *Session) ShowFilm(id string) error {
	if s.whole.Showing(id) == nil {
		return words.New("film.gone")
	}
	before := s.FilmID
	s.FilmID = id
	f, err := s.compile(s.whole)
	if err != nil {
		s.FilmID = before
		return err
	}
	s.show(s.whole, f)
	return nil
}

// Recompile makes the film anew, with fonts that were added.
func (s *Session) Recompile() error {
	f, err := s.compile(s.whole)
	if err != nil {
		return err
	}
	s.ForgetWriting()
	s.showUnder(s.whole, f)
	return nil
}

func (s *Session) show(p *doc.Project, f *frame.Film) {
	s.whole, s.Doc, s.Film, s.Shown, s.drafted = p, f.Doc, f, f, nil
	s.DropDrag()
	if s.Player == nil {
		s.Player = f.Player()
	}
	s.Player.SetFilm(f)
}

// Document returns the document as it is, without the draft.
func (s *Session) Document() *doc.Project { return s.whole }

// Apply carries out a command and returns the patch it made; one that changed something is pending until it is
// acknowledged. On an error nothing has changed.
func (s *Session) Apply(c edit.Command) (patch.Patch, error) {
	p, patch, err := edit.Apply(s.whole, c, s.Assets())
	if err != nil {
		return nil, err
	}
	f, err := s.compile(p)
	if err != nil {
		return nil, err
	}
	if len(patch) > 0 {
		s.pending = append(s.pending, pending{c, p, patch, nil})
	}
	s.show(p, f)
	return patch, nil
}

// Draft shows what a command would make, until Apply, Open or another Draft. The document stays.
func (s *Session) Draft(c edit.Command) error {
	p, err := edit.Draft(s.Doc, c, s.Assets())
	if err != nil {
		return err
	}
	s.drafted = c
	return s.ShowDraft(p)
}

// showUnder shows a document that came while something may be drafted, such as words that are being typed, and the draft over it. One that
// no longer fits is gone: what it was meant to become says why when it is carried out.
func (s *Session) showUnder(p *doc.Project, f *frame.Film) {
	c := s.drafted
	if s.Dragging() {
		c = nil // a drag holds layers as they were
	}
	s.show(p, f)
	if c != nil && s.Draft(c) != nil {
		s.ClearDraft()
	}
}

// ShowDraft shows a document, until Apply, Open or another Draft.
func (s *Session) ShowDraft(p *doc.Project) error {
	f, err := frame.Compile(p, s.Assets(), s.Shown)
	if err != nil {
		return err
	}
	s.Shown = f
	s.Player.SetFilm(f)
	return nil
}

// ClearDraft shows the document again.
func (s *Session) ClearDraft() {
	s.Shown, s.drafted = s.Film, nil
	s.DropDrag()
	s.Player.SetFilm(s.Film)
}
