package api

import (
	"io"
	"math"
	"net/http"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/sound"
	"capstan/studio/export"
	"capstan/studio/media"

	"github.com/gin-gonic/gin"
)

// postSound takes a file with sound in: it is decoded while the request waits, and ends with it.
func (s *Server) postSound(c *gin.Context) {
	s.takeIn(c, media.MaxSoundBytes, "sound.too-large", func(r io.Reader, name string) (string, *doc.Media, error) {
		return s.files.TakeSound(c.Request.Context(), r, name)
	})
}

// soundFile sends what a recording was decoded to; of its frames what a range asks for.
func (s *Server) soundFile(c *gin.Context, what string) {
	file, err := s.files.SoundFile(c.Param("hash"), what)
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("Content-Type", "application/octet-stream")
	c.File(file)
}

// beats finds the beats of a recording.
func (s *Server) beats(c *gin.Context) {
	_, done, err := s.heavy(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer done()
	list, err := s.files.Beats(c.Param("hash"))
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"beats": list})
}

// loudness measures what is heard of a project's film, and says by how much it is brought to what it is to be.
func (s *Server) loudness(c *gin.Context) {
	p, revision, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	ctx, done, err := s.heavy(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer done()
	film, err := frame.CompileFilm(p, c.Query("film"), s.store.Assets(p))
	if err != nil {
		fail(c, err)
		return
	}
	m, err := export.Loudness(ctx, film, s.files)
	if err != nil {
		fail(c, err)
		return
	}
	silent := math.IsInf(m.Loudness, 0)
	if silent {
		m.Loudness, m.Peak = -120, -120 // what JSON can say
	}
	level := sound.Level{}
	if !silent {
		level = m.To(film.Doc.Film.Mixed().Loudness)
	}
	reply(c, http.StatusOK, gin.H{"loudness": m.Loudness, "peak": m.Peak, "silent": silent, "level": level, "revision": revision})
}
