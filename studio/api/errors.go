package api

import (
	"errors"
	"log/slog"
	"net/http"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/studio/bundle"
	"capstan/studio/media"
	"capstan/studio/store"

	"github.com/gin-gonic/gin"
)

// fault is the shape of every error answer.
type fault struct {
	Code    string `json:"code"`
	Message string `json:"message"`
	Hint    string `json:"hint,omitempty"`
}

func answer(c *gin.Context, status int, f fault) {
	c.AbortWithStatusJSON(status, gin.H{"error": f})
}

func bad(c *gin.Context, message, hint string) {
	answer(c, http.StatusBadRequest, fault{"bad-request", message, hint})
}

// fail answers an error in words. What is not expected is logged whole and answered without its insides.
func fail(c *gin.Context, err error) {
	var (
		notFound *store.NotFound
		stale    *store.Stale
		invalid  *doc.Invalid
		refused  *edit.Refused
		cycle    *motion.Cycle
		unhung   *motion.Unhangable
		picture  *media.Refused
		pack     *bundle.Refused
		tooLarge *http.MaxBytesError
	)
	switch {
	case errors.As(err, &notFound):
		answer(c, http.StatusNotFound, fault{"not-found", notFound.Error(), "It may have been deleted. Go back to the start screen."})
	case errors.As(err, &stale):
		c.AbortWithStatusJSON(http.StatusConflict, gin.H{
			"error":    fault{"stale", stale.Error(), ""},
			"revision": stale.Revision, "since": stale.Since,
		})
	case errors.As(err, &cycle):
		answer(c, http.StatusUnprocessableEntity, fault{"cycle", cycle.Error(), ""})
	case errors.As(err, &unhung):
		answer(c, http.StatusUnprocessableEntity, fault{"unhangable", unhung.Error(), ""})
	case errors.As(err, &refused):
		answer(c, http.StatusUnprocessableEntity, fault{"refused", refused.Error(), ""})
	case errors.As(err, &invalid):
		answer(c, http.StatusUnprocessableEntity, fault{"invalid", "This would break a rule: " + invalid.Error() + ". Nothing was changed.", ""})
	case errors.As(err, &picture):
		answer(c, http.StatusUnprocessableEntity, fault{"picture", picture.Error(), ""})
	case errors.As(err, &pack):
		answer(c, http.StatusUnprocessableEntity, fault{"bundle", pack.Error(), ""})
	case errors.As(err, &tooLarge):
		answer(c, http.StatusRequestEntityTooLarge, fault{"too-large", "This is larger than Capstan takes in. Nothing was imported.", "Make it smaller and try again."})
	default:
		slog.Error("request failed", "path", c.FullPath(), "error", err, "request", c.GetString("request"))
		answer(c, http.StatusInternalServerError, fault{"internal", "Something went wrong in Capstan. What was saved before is kept.", "Try again; the log has the details."})
	}
}
