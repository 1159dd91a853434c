package api

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"net/http"
	"strconv"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/budget"

	"github.com/gin-gonic/gin"
)

func (s *Server) listStages(c *gin.Context) {
	list, err := s.store.Stages(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"stages": list})
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
	reply(c, http.StatusCreated, stage)
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
	reply(c, http.StatusOK, gin.H{"document": p})
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
	img, err := s.picture(c.Request.Context(), p, at, rest, thumbnailHeight)
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
	reply(c, http.StatusCreated, row)
}

// views are the turns of small views.
var views = make(chan struct{}, budget.Views)

// within returns the size of a page fitted into a height, and into twice that across, and the scale.
func within(film *doc.Film, height int) (w, h int, scale float64) {
	scale = min(float64(height)/float64(film.Height), float64(2*height)/float64(film.Width))
	return max(1, int(float64(film.Width)*scale)), max(1, int(float64(film.Height)*scale)), scale
}

// picture renders a small view of a project as PNG: at a time of the film in ms, or a scene at rest where at is negative. A
// picture whose file is missing is shown as such. It stops when nobody waits for it any more.
func (s *Server) picture(ctx context.Context, p *doc.Project, at int64, scene, height int) ([]byte, error) {
	ctx, stop := context.WithTimeout(ctx, budget.ViewTime)
	defer stop()
	select {
	case views <- struct{}{}:
		defer func() { <-views }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	film, err := frame.Compile(p, s.store.Assets(p), nil)
	if err != nil {
		return nil, err
	}
	w, h, scale := within(&p.Film, height)
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	view := frame.View{Scale: scale}
	list := film.Player().AtRest(scene, view)
	if at >= 0 {
		list = film.Player().At(motion.Millis(min(at, film.Order.Length)), view)
	}
	painter := raster.NewPainter(film, s.files.PixelsOrSign)
	painter.Within(raster.Limits{Bytes: budget.ViewBytes, Stop: ctx.Err})
	if err := painter.Paint(img, list); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = png.Encode(&b, img)
	return b.Bytes(), err
}
