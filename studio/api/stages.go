package api

import (
	"bytes"
	"image"
	"image/png"
	"net/http"
	"strconv"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"

	"github.com/gin-gonic/gin"
)

func (s *Server) listStages(c *gin.Context) {
	list, err := s.store.Stages(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, gin.H{"stages": list})
}

func (s *Server) keepStage(c *gin.Context) {
	if !s.mayGrow(c) {
		return
	}
	var in struct {
		Name string `json:"name"`
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	stage, err := s.store.KeepStage(c.Param("id"), newID(), in.Name)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusCreated, stage)
}

func (s *Server) renameStage(c *gin.Context) {
	var in struct {
		Name string `json:"name"`
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	s.settle(c, s.store.RenameStage(c.Param("id"), in.Name))
}

func (s *Server) deleteStage(c *gin.Context) { s.settle(c, s.store.DeleteStage(c.Param("id"))) }

func (s *Server) getStage(c *gin.Context) {
	_, p, err := s.store.Stage(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	c.JSON(http.StatusOK, gin.H{"document": p})
}

// stageFrame answers a frame of a stage: at a time of its film in ms, or a scene at rest.
func (s *Server) stageFrame(c *gin.Context) {
	stage, p, err := s.store.Stage(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	at, rest := int64(-1), 0
	if q := c.Query("at"); q != "" {
		if at, err = strconv.ParseInt(q, 10, 64); err != nil || at < 0 {
			refuse(c, "export.still", stage.Length)
			return
		}
	}
	img, err := s.picture(p, at, rest, thumbnailHeight)
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=3600") // a stage never changes
	c.Data(http.StatusOK, "image/png", img)
}

// projectOfStage makes a project of its own from a stage.
func (s *Server) projectOfStage(c *gin.Context) {
	if !s.mayGrow(c) {
		return
	}
	stage, p, err := s.store.Stage(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	p.ID, p.Name = newID(), p.Name+", "+stage.Name
	row, err := s.store.Create(p)
	if err != nil {
		fail(c, err)
		return
	}
	s.hub.send("projects", gin.H{})
	c.JSON(http.StatusCreated, row)
}

// picture renders a small view of a project as PNG: at a time of the film in ms, or a scene at rest where at is negative. A
// picture whose file is missing is shown as such.
func (s *Server) picture(p *doc.Project, at int64, scene, height int) ([]byte, error) {
	film, err := frame.Compile(p, s.store.Assets(p), nil)
	if err != nil {
		return nil, err
	}
	w := max(1, p.Film.Width*height/p.Film.Height)
	img := image.NewRGBA(image.Rect(0, 0, w, height))
	view := frame.View{Scale: float64(height) / float64(p.Film.Height)}
	list := film.Player().AtRest(scene, view)
	if at >= 0 {
		list = film.Player().At(motion.Millis(min(at, film.Order.Length)), view)
	}
	if err := raster.NewPainter(film, s.files.PixelsOrSign).Paint(img, list); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = png.Encode(&b, img)
	return b.Bytes(), err
}
