// Package api is the HTTP interface of Capstan: routes, request and response types, server-sent events and
// the checks in front of them. docs/api.md describes it.
package api

import (
	"bytes"
	"compress/gzip"
	"crypto/rand"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"os"
	"path"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"time"

	"capstan/studio/aside"
	"capstan/studio/budget"
	"capstan/studio/export"
	"capstan/studio/media"
	"capstan/studio/speech"
	"capstan/studio/store"
	"capstan/web"

	"github.com/gin-gonic/gin"
)

// Server answers the page.
type Server struct {
	store   *store.Store
	files   *media.Folder
	cutouts cutouts
	queue   *export.Queue
	voice   speech.Engine
	hub     *hub
	secret  string // what the session cookie holds
	build   string
	page    fs.FS
	options Options

	turns      chan struct{} // of heavy work
	estimating sync.Mutex    // one at a time
	measured   struct {
		sync.Mutex
		space
		at time.Time
	}
	thumbs sync.Map // project id -> thumbnail
	gz     sync.Map // file name -> compressed bytes
}

// Options are how an application is served; the zero value is for this machine alone.
type Options struct {
	Quota int64 // bytes the data may take; 0 is DefaultQuota
	// Token, where it is not empty, has to be part of the first address that a browser opens; other machines may do so then.
	Token string
	Host  string // the name it listens by then; besides, any address in numbers will do
}

// New returns a server on a store. Run it beside serving its Handler.
func New(s *store.Store, o Options) (*Server, error) {
	if o.Quota == 0 {
		o.Quota = DefaultQuota
	}
	secret, err := Secret(filepath.Join(s.Dir(), "session"))
	if err != nil && s.ReadOnly() { // one for as long as it is served
		secret, err = randomSecret()
	}
	if err != nil {
		return nil, err
	}
	v := &Server{
		store: s, files: s.Files(), hub: newHub(), voice: speech.Espeak{}, secret: sessionOf(secret, o.Token), page: web.Files(), options: o, turns: make(chan struct{}, budget.Heavy),
	}
	v.build = buildID(v.page)
	v.queue = export.NewQueue(s, v.files, func(e store.Export) { v.hub.send("export", e) })
	return v, nil
}

// Queue returns the export queue, which the caller runs.
func (s *Server) Queue() *export.Queue { return s.queue }

// Secret reads the secret in a file, making it at the first start.
func Secret(file string) (string, error) {
	if b, err := os.ReadFile(file); err == nil && len(b) >= 32 {
		return string(b), nil
	}
	token, err := randomSecret()
	if err != nil {
		return "", err
	}
	return token, aside.Write(file, []byte(token), 0o600)
}

func randomSecret() (string, error) {
	raw := make([]byte, 24)
	_, err := rand.Read(raw)
	return hex.EncodeToString(raw), err
}

// buildID changes whenever the page or the engine does, so that an old page can tell.
func buildID(files fs.FS) string {
	h := sha256.New()
	for _, name := range []string{"index.html", "engine.wasm.gz"} {
		b, err := fs.ReadFile(files, name)
		if err != nil {
			continue // not built yet: the page says so
		}
		h.Write(b)
	}
	return hex.EncodeToString(h.Sum(nil))[:12]
}

// Handler returns the routes with their checks.
func (s *Server) Handler() http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(gin.CustomRecovery(func(c *gin.Context, err any) {
		fail(c, fmt.Errorf("panic: %v", err))
	}))
	r.Use(s.guard)
	r.GET("/healthz", func(c *gin.Context) { reply(c, http.StatusOK, gin.H{"ok": true, "build": s.build}) })
	a := r.Group("/api", s.session)
	a.GET("/hello", s.hello)
	a.GET("/events", s.events)
	a.GET("/fonts/:file", s.font)
	a.POST("/fonts", s.postFont)
	a.GET("/projects", s.listProjects)
	a.POST("/projects", s.createProject)
	a.GET("/projects/:id", s.getProject)
	a.PATCH("/projects/:id", s.renameProject)
	a.DELETE("/projects/:id", s.binProject)
	a.POST("/projects/:id/restore", s.restoreProject)
	a.POST("/projects/:id/commands", s.command)
	a.GET("/projects/:id/changes", s.changes)
	a.POST("/projects/:id/duplicate", s.duplicateProject)
	a.GET("/projects/:id/thumbnail.png", s.thumbnail)
	a.GET("/projects/:id/bundle", s.getBundle)
	a.POST("/bundles", s.postBundle)
	a.POST("/media", s.postMedia)
	a.POST("/sounds", s.postSound)
	a.GET("/speech", s.listVoices)
	a.POST("/speech", s.speak)
	a.GET("/media/:hash/:mip", s.getMedia)
	a.POST("/media/:hash/anew", s.anew)
	a.POST("/media/:hash/cutout", s.postCutout)
	a.POST("/media/:hash/ground", s.postGround)
	a.POST("/media/:hash/beats", s.beats)
	a.GET("/projects/:id/missing", s.missing)
	a.POST("/projects/:id/pictures", s.mergeLayers)
	a.GET("/projects/:id/loudness", s.loudness)
	a.GET("/projects/:id/stages", s.listStages)
	a.POST("/projects/:id/stages", s.keepStage)
	a.GET("/stages/:id", s.getStage)
	a.PATCH("/stages/:id", s.renameStage)
	a.DELETE("/stages/:id", s.deleteStage)
	a.GET("/stages/:id/frame.png", s.stageFrame)
	a.POST("/stages/:id/project", s.projectOfStage)
	a.GET("/projects/:id/variants", s.listVariants)
	a.GET("/projects/:id/variants/:row/frame.png", s.variantFrame)
	a.POST("/tables", s.readTable)
	a.POST("/projects/:id/drawings", s.postDrawing)
	a.POST("/projects/:id/svg", s.makeDrawing)
	a.GET("/projects/:id/exports", s.listExports)
	a.POST("/projects/:id/exports", s.createExport)
	for what, how := range map[string]func(string) error{"cancel": s.queue.Cancel, "pause": s.queue.Pause, "resume": s.queue.Resume, "first": s.queue.First} {
		a.POST("/exports/:id/"+what, s.turnExport(how))
	}
	a.POST("/exports/:id/sound", s.resoundExport)
	a.POST("/projects/:id/exports/estimate", s.estimateExport)
	a.GET("/projects/:id/presets", s.listPresets)
	a.POST("/projects/:id/presets", s.savePreset)
	a.DELETE("/presets/:id", s.deletePreset)
	a.GET("/exports/:id/compare", s.compareExport)
	a.DELETE("/exports/:id", s.deleteExport)
	a.GET("/exports/:id/file", s.exportFile)
	r.NoRoute(s.static)
	return http.HandlerFunc(func(w http.ResponseWriter, q *http.Request) {
		if q.Method == http.MethodHead && q.URL.Path != "/api/events" { // as GET; net/http leaves the body out
			as := *q
			as.Method = http.MethodGet
			q = &as
		}
		r.ServeHTTP(w, q)
	})
}

// static serves the page; every path without a file is the page itself.
func (s *Server) static(c *gin.Context) {
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		refuse(c, "not-found.address")
		return
	}
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		refuse(c, "not-found.address")
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	// The engine is compressed when it is built: that takes long.
	encoding := "gzip"
	packed, small := fs.ReadFile(s.page, name+".gz")
	ready := packed
	if small == nil && strings.Contains(c.GetHeader("Accept-Encoding"), "br") {
		if b, err := fs.ReadFile(s.page, name+".br"); err == nil {
			ready, encoding = b, "br"
		}
	}
	if info, err := fs.Stat(s.page, name); small != nil && (err != nil || name == "" || info.IsDir()) {
		if strings.HasPrefix(name, "assets/") || name == "assets" || path.Ext(name) != "" {
			refuse(c, "not-found.address") // not the page: a script that is asked for would not run
			return
		}
		name = "index.html"
	}
	data, err := ready, error(nil)
	if n := len(packed); n > 8 { // a gzip file ends with the size of what is in it (RFC 1952, 2.3.1)
		c.Header("Capstan-Size", strconv.FormatUint(uint64(binary.LittleEndian.Uint32(packed[n-4:])), 10))
	}
	if small != nil {
		data, err = fs.ReadFile(s.page, name)
	}
	if err != nil {
		c.String(http.StatusServiceUnavailable, "The page has not been built. Run make build.")
		return
	}
	if name == "index.html" {
		if !s.admit(c) {
			return
		}
		c.Header("Cache-Control", "no-store")
	} else if strings.HasPrefix(name, "assets/") {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	} else {
		c.Header("Cache-Control", "no-cache")
		tag := `"` + s.build + `"`
		c.Header("ETag", tag)
		if c.GetHeader("If-None-Match") == tag {
			c.Status(http.StatusNotModified)
			return
		}
	}
	kind := map[string]string{
		".html": "text/html; charset=utf-8", ".js": "text/javascript", ".css": "text/css", ".wasm": "application/wasm",
		".svg": "image/svg+xml", ".woff2": "font/woff2", ".woff": "font/woff", ".png": "image/png",
	}[path.Ext(name)]
	if kind == "" {
		kind = "application/octet-stream"
	}
	if small == nil {
		if data, err = s.unpacked(c, data, encoding); err != nil {
			fail(c, err)
			return
		}
	} else if len(data) > 4096 && strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") && path.Ext(name) != ".woff2" {
		z, err := s.compressed(name, data)
		if err != nil {
			fail(c, err)
			return
		}
		c.Header("Content-Encoding", "gzip")
		c.Header("Vary", "Accept-Encoding")
		data = z
	}
	c.Data(http.StatusOK, kind, data)
}

// unpacked returns what is stored compressed as the browser takes it.
func (s *Server) unpacked(c *gin.Context, data []byte, encoding string) ([]byte, error) {
	c.Header("Vary", "Accept-Encoding")
	if strings.Contains(c.GetHeader("Accept-Encoding"), encoding) {
		c.Header("Content-Encoding", encoding)
		return data, nil
	}
	r, err := gzip.NewReader(bytes.NewReader(data))
	if err != nil {
		return nil, err
	}
	return io.ReadAll(r)
}

func (s *Server) compressed(name string, data []byte) ([]byte, error) {
	if z, ok := s.gz.Load(name); ok {
		return z.([]byte), nil
	}
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	if _, err := w.Write(data); err != nil {
		return nil, err
	}
	if err := w.Close(); err != nil {
		return nil, err
	}
	s.gz.Store(name, b.Bytes())
	return b.Bytes(), nil
}

// HTTP returns an http.Server for the handler with time-outs; streams set their own deadlines.
func (s *Server) HTTP(addr string) *http.Server {
	return &http.Server{
		Addr: addr, Handler: s.Handler(), ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout: 10 * time.Minute, WriteTimeout: 10 * time.Minute, IdleTimeout: 2 * time.Minute,
	}
}
