package api

import (
	"io"
	"path"

	"capstan/core/doc"
	"capstan/core/typeface"
	"capstan/library"

	"github.com/gin-gonic/gin"
)

// postFont takes a font file in. One that is called as a family that ships gets a name of its own.
func (s *Server) postFont(c *gin.Context) {
	s.takeIn(c, typeface.MaxBytes, "font.too-large", func(r io.Reader, name string) (string, *doc.Media, error) {
		hash, facts, err := s.files.TakeFont(r, name)
		if err == nil && library.Ships(facts.Family) {
			facts.Family += ", own"
		}
		return hash, facts, err
	})
}

// ownFont sends a font that was taken in, as it was written anew.
func (s *Server) ownFont(c *gin.Context) {
	file, err := s.files.Font(c.Param("hash"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("Content-Type", "font/"+path.Ext(file)[1:])
	c.File(file)
}
