package api

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"strings"

	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/store"

	"github.com/gin-gonic/gin"
)

// reply answers with JSON, which is written whole before the answer begins: what cannot be written is an answer in words, and not half of one.
func reply(c *gin.Context, status int, v any) {
	raw, err := json.Marshal(v)
	if err != nil {
		fail(c, err)
		return
	}
	c.Data(status, "application/json; charset=utf-8", raw)
}

// answer ends a request with a fault: its key, what happened and what is kept, and what to do.
func answer(c *gin.Context, f *words.Fault) {
	c.AbortWithStatusJSON(status(f.Key), gin.H{"error": body(f)})
}

func body(f *words.Fault) gin.H {
	message := strings.TrimSpace(f.Happened + " " + f.Kept)
	if f.Detail != "" {
		message += " (" + f.Detail + ")"
	}
	return gin.H{"code": f.Key, "message": message, "hint": f.Do}
}

// refuse ends a request with the fault of a key.
func refuse(c *gin.Context, key string, args ...any) { answer(c, words.New(key, args...)) }

// status is 422, understood and not done, for all faults but these.
func status(key string) int {
	switch key {
	case "internal", "replay", "data.damaged":
		return http.StatusInternalServerError
	case "session", "session.token":
		return http.StatusUnauthorized
	case "request.host", "request.origin":
		return http.StatusForbidden
	case "not-found", "not-found.address", "picture.gone", "sound.lost", "font.gone", "stage.gone", "project.empty-bin":
		return http.StatusNotFound
	case "stale", "stale.build":
		return http.StatusConflict
	case "request.too-large", "document.large", "bundle.too-large", "picture.too-large", "font.too-large", "sound.too-large":
		return http.StatusRequestEntityTooLarge
	case "data.read-only":
		return http.StatusServiceUnavailable
	case "disk.full", "quota.full":
		return http.StatusInsufficientStorage
	case "request.unreadable", "request.short", "request.since", "picture.size", "export.format", "export.rate", "export.height", "export.too-large",
		"export.too-long", "export.frames", "export.range", "export.odd", "export.still", "export.running":
		return http.StatusBadRequest
	}
	return http.StatusUnprocessableEntity
}

// inWords returns err as a fault; what nobody foresaw is "internal".
func inWords(err error) *words.Fault {
	var (
		fault *words.Fault
		can   interface{ Fault() *words.Fault }
		large *http.MaxBytesError
	)
	switch {
	case errors.As(err, &fault):
		return fault
	case errors.As(err, &can):
		return can.Fault()
	case errors.As(err, &large):
		return words.Because(err, "request.too-large")
	case aside.Full(err):
		return words.Because(err, "disk.full")
	case errors.Is(err, raster.ErrMemory):
		return words.Because(err, "picture.heavy")
	case errors.Is(err, io.ErrUnexpectedEOF), errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return words.Because(err, "request.short")
	}
	return words.Because(err, "internal")
}

// fail answers an error in words. What is not expected is logged whole and answered without its insides.
func fail(c *gin.Context, err error) {
	var stale *store.Stale
	if errors.As(err, &stale) {
		c.AbortWithStatusJSON(http.StatusConflict, gin.H{"error": body(words.New("stale")), "revision": stale.Revision, "since": stale.Since, "more": stale.More})
		return
	}
	f := inWords(err)
	if status(f.Key) >= 500 {
		slog.Error("request failed", "path", c.FullPath(), "error", err, "cause", f.Cause, "request", c.GetString("request"))
	}
	answer(c, f)
}
