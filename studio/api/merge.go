package api

import (
	"bytes"
	"net/http"

	"github.com/gin-gonic/gin"

	"capstan/core/frame"
	"capstan/core/words"
	"capstan/studio/export"
)

// mergeLayers paints layers of a scene, at rest, into a picture that it takes in. The page makes a command of the answer.
func (s *Server) mergeLayers(c *gin.Context) {
	var in struct {
		Scene  string   `json:"scene"`
		Layers []string `json:"layers"` // ids
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	if _, ok := s.room(c); !ok {
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	i, sc := p.Scene(in.Scene)
	if sc == nil {
		fail(c, words.New("scene.gone"))
		return
	}
	film, err := frame.Compile(p, s.store.Assets(p), nil)
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
	data, box, err := export.Merged(ctx, film, s.files.PixelsOrSign, i, in.Layers)
	if err != nil {
		fail(c, err)
		return
	}
	hash, facts, err := s.files.Take(bytes.NewReader(data), "merged.png")
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, gin.H{"hash": hash, "media": facts, "box": [4]float64{box.Min.X, box.Min.Y, box.W(), box.H()}})
}
