package api

import (
	"bytes"
	"compress/gzip"
	"encoding/base64"
	"errors"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"capstan/core/doc"
	"capstan/core/svg"
	"capstan/core/words"
	"capstan/library"
	"capstan/studio/media"
)

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
	d, err := svg.Read(in, svg.Options{
		Name: strings.TrimSpace(c.Query("name")), Page: [2]float64{float64(p.Film.Width), float64(p.Film.Height)}, ID: newID,
		Family: func(names []string) (string, bool) { return nearestFamily(p, names) },
		Picture: func(address string) (string, int, int, error) {
			raw, err := inAddress(address)
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

// inAddress is what a data: address holds (RFC 2397).
func inAddress(address string) ([]byte, error) {
	head, data, ok := strings.Cut(strings.TrimPrefix(address, "data:"), ",")
	if !ok || len(data) > media.MaxBytes*4/3 {
		return nil, errors.New("no picture")
	}
	if !strings.HasSuffix(head, ";base64") {
		s, err := url.PathUnescape(data)
		return []byte(s), err
	}
	data = strings.Map(func(r rune) rune {
		if r == ' ' || r == '\n' || r == '\t' || r == '\r' {
			return -1
		}
		return r
	}, data)
	return base64.StdEncoding.DecodeString(data)
}

// nearestFamily finds a family of the project's or of those that ship for the ones that a drawing names, and says whether it is that.
func nearestFamily(p *doc.Project, names []string) (string, bool) {
	var known []string
	for _, m := range p.Media {
		if m.IsFont() {
			known = append(known, m.Family)
		}
	}
	slices.Sort(known)
	for _, f := range library.Families {
		known = append(known, f.Name)
	}
	for _, name := range names {
		for _, k := range known {
			if strings.EqualFold(k, name) {
				return k, true
			}
		}
	}
	return "Archivo", false
}
