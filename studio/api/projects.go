package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"os"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
	"capstan/library"
	"capstan/studio/bundle"
	"capstan/studio/export"
	"capstan/studio/media"
	"capstan/studio/store"

	"github.com/gin-gonic/gin"
)

// Limits of request bodies.
const (
	maxCommand = 20 << 20
	maxJSON    = 1 << 20
)

// decode reads a JSON body of at most limit bytes, refusing unknown fields; false when it has answered.
func decode(c *gin.Context, limit int64, v any) bool {
	d := json.NewDecoder(http.MaxBytesReader(c.Writer, c.Request.Body, limit))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		var big *http.MaxBytesError
		if errors.As(err, &big) {
			fail(c, err)
		} else {
			refuse(c, "request.unreadable", err)
		}
		return false
	}
	return true
}

func (s *Server) hello(c *gin.Context) {
	reply(c, http.StatusOK, gin.H{"build": s.build, "families": library.Families, "fonts": library.FontFiles(), "lacks": export.Lacks()})
}

func (s *Server) font(c *gin.Context) {
	data, err := fs.ReadFile(library.Fonts(), c.Param("file"))
	if err != nil {
		refuse(c, "not-found", "font file")
		return
	}
	c.Header("Cache-Control", "public, max-age=604800")
	c.Data(http.StatusOK, "font/woff", data)
}

func (s *Server) listProjects(c *gin.Context) {
	list, err := s.store.Projects()
	if err != nil {
		fail(c, err)
		return
	}
	bin, err := s.store.Binned()
	if err != nil {
		fail(c, err)
		return
	}
	used, err := s.space()
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"projects": list, "bin": bin, "space": used})
}

func (s *Server) createProject(c *gin.Context) {
	if !s.mayGrow(c) {
		return
	}
	var in struct {
		Name   string `json:"name"`
		Width  int    `json:"width"`
		Height int    `json:"height"`
		Clear  bool   `json:"clear"` // its page has no ground
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	if strings.TrimSpace(in.Name) == "" {
		in.Name = "Untitled"
	}
	p := doc.NewProject(newID(), strings.TrimSpace(in.Name), in.Width, in.Height, newID())
	p.Film.Clear = in.Clear
	row, err := s.store.Create(p)
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, row)
}

func (s *Server) getProject(c *gin.Context) {
	p, rev, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	reply(c, http.StatusOK, gin.H{"revision": rev, "document": p})
}

// binProject puts a project into the bin; with forgood it deletes one that is there, with its exports.
func (s *Server) binProject(c *gin.Context) {
	id := c.Param("id")
	if c.Query("forgood") == "" {
		s.settle(c, s.store.Bin(id))
		return
	}
	list, err := s.queue.List(id)
	if err != nil {
		fail(c, err)
		return
	}
	if err := s.store.Delete(id); err != nil {
		fail(c, err)
		return
	}
	for _, e := range list {
		err = errors.Join(err, s.queue.Cancel(e.ID), s.queue.Delete(&e))
	}
	s.thumbs.Delete(id)
	err = errors.Join(err, s.tidy(grace))
	s.settle(c, err)
}

func (s *Server) restoreProject(c *gin.Context) { s.settle(c, s.store.Restore(c.Param("id"))) }

// settle answers a change of the list of projects.
func (s *Server) settle(c *gin.Context, err error) {
	if err != nil {
		fail(c, err)
		return
	}
	s.hub.send("projects", gin.H{})
	c.Status(http.StatusNoContent)
}

func (s *Server) renameProject(c *gin.Context) {
	var in struct {
		Name string `json:"name"`
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	change, err := s.store.Rename(c.Param("id"), in.Name)
	if err == nil {
		s.hub.send("change", gin.H{"project": c.Param("id"), "revision": change.Revision, "window": ""})
	}
	s.settle(c, err)
}

func (s *Server) duplicateProject(c *gin.Context) {
	if !s.mayGrow(c) {
		return
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	k := *p
	k.ID, k.Name = newID(), p.Name+", copy"
	row, err := s.store.Create(&k)
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, row)
}

func (s *Server) command(c *gin.Context) {
	var in struct {
		Base    int64           `json:"base"`
		Window  string          `json:"window"`
		ID      string          `json:"id"`
		Build   string          `json:"build"` // of the page; may be left out
		Command json.RawMessage `json:"command"`
	}
	if !decode(c, maxCommand, &in) {
		return
	}
	if in.Build != "" && in.Build != s.build {
		refuse(c, "stale.build")
		return
	}
	if !s.mayGrow(c) {
		return
	}
	command, err := edit.Read([]byte(in.Command))
	if err != nil {
		fail(c, err)
		return
	}
	took, err := s.store.Take(c.Request.Context(), c.Param("id"), store.Incoming{Base: in.Base, Window: in.Window, ID: in.ID, Command: command})
	if err != nil {
		fail(c, err)
		return
	}
	s.hub.send("change", gin.H{"project": c.Param("id"), "revision": took.Revision, "window": took.Window})
	out := gin.H{"revision": took.Now, "known": took.Revision <= in.Base}
	if len(took.Since) > 0 || took.More {
		out["since"], out["more"] = took.Since, took.More
	}
	reply(c, http.StatusOK, out)
}

// changes answers what was stored after a revision, as a stale command's answer does.
func (s *Server) changes(c *gin.Context) {
	base, err := strconv.ParseInt(c.Query("since"), 10, 64)
	if err != nil {
		refuse(c, "request.since")
		return
	}
	list, revision, more, err := s.store.Since(c.Param("id"), base)
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"revision": revision, "since": list, "more": more})
}

type thumb struct {
	revision int64
	png      []byte
}

// thumbnailHeight is the height of the pictures on the start screen, in px.
const thumbnailHeight = 300

func (s *Server) thumbnail(c *gin.Context) {
	p, rev, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "no-cache")
	tag := fmt.Sprintf(`"%s.%d"`, s.build, rev)
	if c.GetHeader("If-None-Match") == tag {
		c.Status(http.StatusNotModified)
		return
	}
	if t, ok := s.thumbs.Load(p.ID); ok && t.(thumb).revision == rev {
		c.Header("ETag", tag)
		c.Data(http.StatusOK, "image/png", t.(thumb).png)
		return
	}
	img, err := s.picture(c.Request.Context(), p, -1, 0, thumbnailHeight)
	if err != nil {
		fail(c, err)
		return
	}
	s.thumbs.Store(p.ID, thumb{rev, img})
	c.Header("ETag", tag)
	c.Data(http.StatusOK, "image/png", img)
}

func (s *Server) getBundle(c *gin.Context) {
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	// Written aside first, so that a failure is an answer in words and not half a file.
	tmp, err := s.store.Temp()
	if err != nil {
		fail(c, err)
		return
	}
	defer os.Remove(tmp.Name())
	defer tmp.Close()
	if err := bundle.Write(tmp, p, s.files); err != nil {
		fail(c, err)
		return
	}
	c.FileAttachment(tmp.Name(), fileName(p.Name)+".capstan")
}

func (s *Server) postBundle(c *gin.Context) {
	left, ok := s.room(c)
	if !ok {
		return
	}
	tmp, err := s.store.Temp()
	if err != nil {
		fail(c, err)
		return
	}
	defer os.Remove(tmp.Name())
	defer tmp.Close()
	size, err := s.receive(tmp, c, bundle.MaxBytes, left, words.New("bundle.too-large", bundle.MaxBytes>>30))
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
	p, err := bundle.Read(ctx, tmp, size, s.files)
	if err != nil {
		fail(c, err)
		return
	}
	named, err := s.store.Named(p.Name)
	if err != nil {
		fail(c, err)
		return
	}
	p.ID = newID() // an import is always a project of its own
	row, err := s.store.Create(p)
	if err != nil {
		fail(c, err)
		return
	}
	s.hub.send("projects", gin.H{})
	reply(c, http.StatusCreated, struct {
		*store.Project
		Named int64 `json:"named"` // how many projects have this name now
	}{row, named + 1})
}

// receive copies a request's body, at most limit and left bytes of it: more than limit is the fault large, more than left is
// beyond the quota.
func (s *Server) receive(to io.Writer, c *gin.Context, limit, left int64, large *words.Fault) (int64, error) {
	if c.Request.ContentLength > limit {
		return 0, large
	}
	n, err := io.Copy(to, http.MaxBytesReader(c.Writer, c.Request.Body, min(limit, left)))
	return n, s.beyond(err, limit, left, large)
}

// beyond says in words that a body was longer than limit or left; any other error stays.
func (s *Server) beyond(err error, limit, left int64, large *words.Fault) error {
	var more *http.MaxBytesError
	if !errors.As(err, &more) {
		return err
	}
	if left < limit {
		v, err := s.space()
		return errors.Join(err, quotaFull(v))
	}
	return large
}

func (s *Server) postMedia(c *gin.Context) {
	s.takeIn(c, media.MaxBytes, "picture.too-large", s.files.Take)
}

// takeIn reads the request's body, up to limit bytes, and has it taken in.
func (s *Server) takeIn(c *gin.Context, limit int64, tooLarge string, take func(io.Reader, string) (string, *doc.Media, error)) {
	left, ok := s.room(c)
	if !ok {
		return
	}
	large := words.New(tooLarge, limit>>20)
	if c.Request.ContentLength > limit {
		fail(c, large)
		return
	}
	hash, facts, err := take(http.MaxBytesReader(c.Writer, c.Request.Body, min(limit, left)), c.Query("name"))
	if err = s.beyond(err, limit, left, large); err != nil {
		fail(c, err)
		return
	}
	used, err := s.space()
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, gin.H{"hash": hash, "media": facts, "space": used})
}

// anew reads a picture again, as pictures are read now.
func (s *Server) anew(c *gin.Context) {
	facts, err := s.files.Anew(c.Param("hash"))
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"hash": c.Param("hash"), "media": facts})
}

// missing lists the media of a project whose files are not there.
func (s *Server) missing(c *gin.Context) {
	p, _, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	gone := []string{}
	for hash, m := range p.Media {
		if !m.IsFont() && !s.files.Has(hash) {
			gone = append(gone, hash)
		}
	}
	reply(c, http.StatusOK, gin.H{"missing": gone})
}

func (s *Server) getMedia(c *gin.Context) {
	if c.Param("mip") == "font" {
		s.ownFont(c)
		return
	}
	if what := c.Param("mip"); what == "frames" || strings.HasPrefix(what, "peaks-") {
		s.soundFile(c, what)
		return
	}
	mip, err := strconv.Atoi(strings.TrimSuffix(c.Param("mip"), ".png"))
	if err != nil {
		refuse(c, "picture.size")
		return
	}
	file, err := s.files.Derived(c.Param("hash"), mip)
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("Content-Type", "image/png")
	c.File(file)
}

// fileName makes a file name of a project's name: letters and digits stay, the rest becomes dashes.
func fileName(name string) string {
	var b strings.Builder
	dash := false
	for _, r := range strings.ToLower(name) {
		if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' {
			b.WriteRune(r)
			dash = false
		} else if !dash && b.Len() > 0 {
			b.WriteByte('-')
			dash = true
		}
	}
	if s := strings.Trim(b.String(), "-"); s != "" {
		return s
	}
	return "film"
}
