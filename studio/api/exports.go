package api

import (
	"crypto/rand"
	"encoding/base32"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
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

func (s *Server) createExport(c *gin.Context) {
	var in struct {
		Film   string   `json:"film"` // of the project; absent: its first
		Format string   `json:"format"`
		Width  int      `json:"width"`  // px; the height follows from the page
		Height int      `json:"height"` // px, instead; the width follows
		Rate   doc.Rate `json:"rate"`
		Once   bool     `json:"once"`
		At     int64    `json:"at"` // ms of the film, of a still
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	if err := export.Able(in.Format); err != nil {
		fail(c, err)
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	film, err := frame.CompileFilm(p, in.Film, s.store.Assets(p))
	if err != nil {
		fail(c, err)
		return
	}
	ask := delivery.Ask{Format: in.Format, Width: in.Width, Height: in.Height, Rate: in.Rate, Once: in.Once, From: in.At}
	if !delivery.Formats[in.Format].Still && in.At != 0 {
		refuse(c, "export.still", film.Order.Length)
		return
	}
	o, err := delivery.Of(film, ask)
	if err != nil {
		fail(c, err)
		return
	}
	if err := export.Ready(film, s.files); err != nil {
		fail(c, err)
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
	name, err := s.freeName(p, o.Width, o.Height, o.Format)
	if err != nil {
		fail(c, err)
		return
	}
	e := &store.Export{
		ID: newID(), ProjectID: p.ID, Name: name, Film: in.Film, Format: o.Format, Width: o.Width, Height: o.Height,
		RateNum: o.RateNum, RateDen: o.RateDen, Once: o.Passes == 1, At: o.From, EndPause: o.EndPause, Document: raw, Frames: o.Frames(film),
	}
	if err := s.queue.Add(e); err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, e)
}

// freeName is what a file of a project is called: by its size, and by a number where there is one of that name already.
func (s *Server) freeName(p *doc.Project, w, h int, format string) (string, error) {
	list, err := s.queue.List(p.ID)
	if err != nil {
		return "", err
	}
	base := fmt.Sprintf("%s-%dx%d", fileName(p.Name), w, h)
	for n, name := 1, base+"."+format; ; name = fmt.Sprintf("%s-%d.%s", base, n, format) {
		if !slices.ContainsFunc(list, func(e store.Export) bool { return e.Name == name }) {
			return name, nil
		}
		n++
	}
}

func (s *Server) cancelExport(c *gin.Context) {
	if err := s.queue.Cancel(c.Param("id")); err != nil {
		fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *Server) deleteExport(c *gin.Context) {
	e, err := s.store.Export(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if e.State == store.Running || e.State == store.Waiting {
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
	if e.Format == delivery.APNG { // which lists of types do not know
		c.Header("Content-Type", "image/apng")
	}
	c.FileAttachment(s.queue.File(e), e.Name)
}
