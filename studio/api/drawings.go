package api

import (
	"bytes"
	"compress/gzip"
	"io"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/svg"
	"capstan/core/words"
	"capstan/library"
	"capstan/studio/export"
	"capstan/studio/media"
)

// readingTime is how long a drawing may take to be read, pictures in it with it.
const readingTime = 5 * time.Second

// postDrawing makes a group of layers of an SVG, packed or not, and answers it with what could not be kept. Pictures
// in it are taken in as those from disk are.
func (s *Server) postDrawing(c *gin.Context) {
	left, ok := s.room(c)
	if !ok {
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err == nil {
		p, err = p.FilmOf(c.Query("film"))
	}
	if err != nil {
		fail(c, err)
		return
	}
	var b bytes.Buffer
	if _, err := s.receive(&b, c, svg.MaxBytes, left, words.New("drawing.large", svg.MaxBytes>>20)); err != nil {
		fail(c, err)
		return
	}
	var in io.Reader = &b
	if bytes.HasPrefix(b.Bytes(), []byte{0x1f, 0x8b}) {
		z, err := gzip.NewReader(&b)
		if err != nil {
			fail(c, words.New("drawing.none"))
			return
		}
		in = z
	}
	facts := map[string]*doc.Media{}
	soon := time.Now().Add(readingTime)
	d, err := svg.Read(in, svg.Options{
		Name: strings.TrimSpace(c.Query("name")), Page: [2]float64{float64(p.Film.Width), float64(p.Film.Height)}, ID: newID, Fonts: s.store.Assets(p).Fonts,
		Stop: func() error {
			if time.Now().After(soon) {
				return words.New("drawing.slow")
			}
			return c.Request.Context().Err()
		},
		Family: func(names []string) (string, bool) { return library.Nearest(names, ownFamilies(p)) },
		Picture: func(address string) (string, int, int, error) {
			raw, err := media.InAddress(address)
			if err != nil {
				return "", 0, 0, err
			}
			hash, m, err := s.files.Take(bytes.NewReader(raw), "picture")
			if err != nil {
				return "", 0, 0, err
			}
			facts[hash] = m
			return hash, m.Width, m.Height, nil
		},
	})
	if err != nil {
		fail(c, err)
		return
	}
	lost := d.Lost
	if lost == nil {
		lost = []svg.Loss{}
	}
	reply(c, http.StatusOK, gin.H{"layer": d.Group, "media": facts, "width": d.Width, "height": d.Height, "lost": lost})
}

// ownFamilies are the families that a project has of its own.
func ownFamilies(p *doc.Project) (names []string) {
	for _, m := range p.Media {
		if m.IsFont() {
			names = append(names, m.Family)
		}
	}
	slices.Sort(names)
	return names
}

// makeDrawing answers a moment of a film, or some layers of it, as an SVG.
func (s *Server) makeDrawing(c *gin.Context) {
	var in struct {
		Film    string   `json:"film"`
		Scene   int      `json:"scene"`
		At      *int64   `json:"at"` // ms of the film; absent: the scene at rest
		Threads []string `json:"threads"`
		Words   bool     `json:"words"`
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err == nil {
		p, err = p.FilmOf(in.Film)
	}
	if err == nil && (in.Scene < 0 || in.Scene >= len(p.Film.Scenes)) {
		err = words.New("scene.gone")
	}
	if err != nil {
		fail(c, err)
		return
	}
	film, err := frame.Compile(p, s.store.Assets(p), nil)
	if err != nil {
		fail(c, err)
		return
	}
	if in.At != nil {
		*in.At = min(max(*in.At, 0), film.Order.Length)
	}
	ctx, done, err := s.heavy(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer done()
	text, err := export.Drawing(ctx, film, s.files.PixelsOrSign, export.Sketch{Scene: in.Scene, At: in.At, Threads: in.Threads, Words: in.Words})
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	// It is saved and copied, never opened as a page.
	c.Header("Content-Disposition", `attachment; filename="drawing.svg"`)
	c.Data(http.StatusOK, "image/svg+xml", []byte(text))
}
