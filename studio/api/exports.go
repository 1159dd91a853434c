package api

import (
	"fmt"
	"net/http"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/studio/export"
	"capstan/studio/store"

	"crypto/rand"
	"encoding/base32"
	"strings"

	"github.com/gin-gonic/gin"
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
	c.JSON(http.StatusOK, gin.H{"exports": list})
}

// maxPixels bounds a frame of an export.
const maxPixels = 8192 * 8192

func (s *Server) createExport(c *gin.Context) {
	var in struct {
		Format string   `json:"format"`
		Height int      `json:"height"`
		Rate   doc.Rate `json:"rate"`
		Once   bool     `json:"once"`
		At     int64    `json:"at"` // ms of the film, of a still
	}
	if !body(c, maxJSON, &in) {
		return
	}
	switch in.Format {
	case "gif", "png":
	case "mp4":
		if err := export.Video(); err != nil {
			answer(c, http.StatusUnprocessableEntity, fault{"no-video", err.Error(), ""})
			return
		}
	default:
		bad(c, fmt.Sprintf("Capstan does not make %q files.", in.Format), "Choose mp4, gif or png.")
		return
	}
	if in.Rate.Num < 1 || in.Rate.Den < 1 || in.Rate.Num > 120*in.Rate.Den {
		bad(c, "The rate must be above 0 and at most 120 frames a second.", "")
		return
	}
	if in.Height < 16 || in.Height > doc.MaxSide {
		bad(c, fmt.Sprintf("The height must be 16 to %d pixels.", doc.MaxSide), "")
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	w, h := frame.Size(&p.Film, in.Height)
	if w > 2*doc.MaxSide || w*h > maxPixels {
		bad(c, fmt.Sprintf("%d x %d pixels are more than Capstan exports.", w, h), "Choose a smaller height.")
		return
	}
	film, err := frame.Compile(p, s.store.Assets(), nil)
	if err != nil {
		fail(c, err)
		return
	}
	if in.At < 0 || in.At > film.Order.Length || in.Format != "png" && in.At != 0 {
		bad(c, fmt.Sprintf("A still lies within the film, which lasts %d ms.", film.Order.Length), "")
		return
	}
	raw, err := p.Write()
	if err != nil {
		fail(c, err)
		return
	}
	o := export.Options{Format: in.Format, RateNum: in.Rate.Num, RateDen: in.Rate.Den}
	e := &store.Export{
		ID: newID(), ProjectID: p.ID, Name: fileName(p.Name) + "." + in.Format, Format: in.Format, Width: w, Height: h,
		RateNum: in.Rate.Num, RateDen: in.Rate.Den, Once: in.Once, At: in.At, Document: raw, Frames: o.Frames(film),
	}
	if err := s.queue.Add(e); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, e)
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
		bad(c, "This export has not ended yet.", "Cancel it first.")
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
		fail(c, &store.NotFound{What: "file yet"})
		return
	}
	c.FileAttachment(s.queue.File(e), e.Name)
}
