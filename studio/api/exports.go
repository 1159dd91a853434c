package api

import (
	"crypto/rand"
	"encoding/base32"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"github.com/gin-gonic/gin"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/variant"
	"capstan/core/words"
	"capstan/studio/export"
	"capstan/studio/store"
)

// newID makes a short random id as documents use them.
func newID() string {
	b := make([]byte, 8)
	if _, err := rand.Read(b); err != nil {
		panic(err) // the system has no randomness: nothing can go on
	}
	return strings.ToLower(strings.TrimRight(base32.StdEncoding.EncodeToString(b), "="))
}

func (s *Server) listExports(c *gin.Context) {
	list, err := s.queue.List(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"exports": list})
}

// wanted is a file that somebody asks for.
type wanted struct {
	Film string `json:"film"` // of the project; absent: its first
	delivery.Ask
}

// planned reads what is asked for of a project. Where it cannot be made, that has been answered.
func (s *Server) planned(c *gin.Context) (in wanted, p *doc.Project, film *frame.Film, o delivery.Plan, ok bool) {
	if !decode(c, maxJSON, &in) {
		return
	}
	err := export.Able(in.Format)
	if err == nil {
		p, _, err = s.store.Load(c.Param("id"))
	}
	if err == nil {
		film, err = s.film(p, in.Film, in.Row)
	}
	if err == nil {
		o, err = delivery.Of(film, in.Ask)
	}
	if err == nil {
		err = export.Ready(film, s.files)
	}
	if err != nil {
		fail(c, err)
		return
	}
	return in, p, film, o, true
}

// film compiles a film of a project, or where row is not 0 the variant of it that this row of the project's table makes.
func (s *Server) film(p *doc.Project, id string, row int) (*frame.Film, error) {
	if row != 0 {
		var err error
		if p, _, err = variant.Fill(p, row); err != nil {
			return nil, err
		}
	}
	return frame.CompileFilm(p, id, s.store.Assets(p))
}

func (s *Server) createExport(c *gin.Context) {
	in, p, film, _, ok := s.planned(c)
	if !ok {
		return
	}
	if _, ok := s.room(c); !ok {
		return
	}
	raw, err := p.Write()
	if err != nil {
		fail(c, err)
		return
	}
	asks, err := delivery.Each(film, in.Ask)
	if err != nil {
		fail(c, err)
		return
	}
	// All can be made, or none is begun.
	plans, of := make([]delivery.Plan, len(asks)), make([]*frame.Film, len(asks))
	for i, ask := range asks {
		if of[i] = film; ask.Row != in.Row {
			if of[i], err = s.film(p, in.Film, ask.Row); err == nil {
				err = export.Ready(of[i], s.files)
			}
		}
		if err == nil {
			plans[i], err = delivery.Of(of[i], ask)
		}
		if err != nil {
			fail(c, err)
			return
		}
	}
	var first *store.Export
	for i, ask := range asks {
		o, film := plans[i], of[i]
		e, err := s.enqueue(p, film, in.Film, ask, o, raw)
		if err != nil {
			fail(c, err)
			return
		}
		if first == nil {
			first = e
		}
	}
	reply(c, http.StatusCreated, first)
}

// enqueue puts a file into the queue; raw is the project as it is.
func (s *Server) enqueue(p *doc.Project, film *frame.Film, id string, ask delivery.Ask, o delivery.Plan, raw []byte) (*store.Export, error) {
	name, err := s.freeName(p, o, ask.Name)
	if err != nil {
		return nil, err
	}
	settings, err := json.Marshal(ask)
	if err != nil {
		return nil, err
	}
	e := &store.Export{
		ID: newID(), ProjectID: p.ID, Name: name, Film: id, Format: o.Format, Width: o.Width, Height: o.Height,
		RateNum: o.RateNum, RateDen: o.RateDen, At: o.From, EndPause: o.EndPause, Document: raw, Frames: o.Sequence(film).Len(), Settings: string(settings),
	}
	return e, s.queue.Add(e)
}

// estimateExport answers how large a file will be. It takes a while and ends when the one who asks goes away.
func (s *Server) estimateExport(c *gin.Context) {
	_, _, film, o, ok := s.planned(c)
	if !ok {
		return
	}
	s.estimating.Lock() // one at a time: each uses all cores
	defer s.estimating.Unlock()
	guess, err := export.Weigh(c.Request.Context(), film, s.files.Pixels, o)
	if c.Request.Context().Err() != nil {
		return
	}
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"bytes": guess.Bytes, "packed": guess.Packed, "parts": guess.Parts, "alone": export.Alone(o)})
}

func (s *Server) compareExport(c *gin.Context) {
	k, err := strconv.ParseInt(c.DefaultQuery("frame", "0"), 10, 64)
	if err != nil {
		k = -1
	}
	v, err := s.queue.Compare(c.Request.Context(), c.Param("id"), k)
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"at": v.At, "ssim": v.SSIM, "file": v.File, "page": v.Page})
}

// longestName is how many characters a file's name has at most, without its end.
const longestName = 120

// freeName is what a file of a project is called by a pattern: another version, or another number, than those there are.
func (s *Server) freeName(p *doc.Project, o delivery.Plan, pattern string) (string, error) {
	if strings.ContainsAny(pattern, "/\\:") || strings.ContainsFunc(pattern, unicode.IsControl) || len([]rune(pattern)) > longestName {
		return "", words.New("export.name", longestName)
	}
	list, err := s.queue.List(p.ID)
	if err != nil {
		return "", err
	}
	taken := func(name string) bool {
		return slices.ContainsFunc(list, func(e store.Export) bool { return e.Name == name })
	}
	now := time.Now()
	for n := 1; ; n++ {
		base := fileName(o.Name(pattern, p.Name, n, now))
		name := base + "." + delivery.Ending(o.Format)
		if n > 1 && base == fileName(o.Name(pattern, p.Name, n-1, now)) { // the pattern names no version
			name = fmt.Sprintf("%s-%d.%s", base, n, delivery.Ending(o.Format))
		}
		if !taken(name) {
			return name, nil
		}
	}
}

// turnExport returns what answers a request to change the turn of an export.
func (s *Server) turnExport(how func(id string) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		if err := how(c.Param("id")); err != nil {
			fail(c, err)
			return
		}
		c.Status(http.StatusNoContent)
	}
}

// resoundExport makes a file that was made anew, with its pictures as they are and the sound of the film as it is now.
func (s *Server) resoundExport(c *gin.Context) {
	old, err := s.store.Export(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if _, ok := s.room(c); !ok {
		return
	}
	p, _, err := s.store.Load(old.ProjectID)
	if err != nil {
		fail(c, err)
		return
	}
	raw, err := p.Write()
	if err != nil {
		fail(c, err)
		return
	}
	ask, err := export.Asked(old)
	if err != nil {
		fail(c, err)
		return
	}
	name, err := s.freeName(p, delivery.Plan{Format: old.Format, Width: old.Width, Height: old.Height, RateNum: old.RateNum, RateDen: old.RateDen}, ask.Name)
	if err != nil {
		fail(c, err)
		return
	}
	next := &store.Export{ID: newID(), Name: name, Document: raw}
	if err := s.queue.NewSound(old, next); err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, next)
}

func (s *Server) deleteExport(c *gin.Context) {
	e, err := s.store.Export(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if e.State == store.Running || e.State == store.Waiting || e.State == store.Paused {
		refuse(c, "export.running")
		return
	}
	if err := s.queue.Delete(e); err != nil {
		fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *Server) exportFile(c *gin.Context) {
	e, err := s.store.Export(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if e.State != store.Done {
		refuse(c, "not-found", "file yet")
		return
	}
	c.Header("Content-Type", delivery.Formats[e.Format].Type) // lists of types do not know all
	c.FileAttachment(s.queue.File(e), e.Name)
}
