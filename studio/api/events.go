package api

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

// hub hands events to every open stream. A stream that does not keep up misses events; the page asks
// again when it comes back.
type hub struct {
	mu   sync.Mutex
	open map[chan []byte]bool
}

func newHub() *hub { return &hub{open: map[chan []byte]bool{}} }

func (h *hub) send(kind string, v any) {
	data, err := json.Marshal(v)
	if err != nil {
		slog.Error("an event cannot be written", "kind", kind, "error", err)
		return
	}
	msg := fmt.Appendf(nil, "event: %s\ndata: %s\n\n", kind, data)
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.open {
		select {
		case c <- msg:
		default:
		}
	}
}

func (h *hub) join() (chan []byte, func()) {
	c := make(chan []byte, 64)
	h.mu.Lock()
	h.open[c] = true
	h.mu.Unlock()
	return c, func() {
		h.mu.Lock()
		delete(h.open, c)
		h.mu.Unlock()
	}
}

// events is the stream of server-sent events: hello with the build id, then changes and exports as they come.
func (s *Server) events(c *gin.Context) {
	msgs, leave := s.hub.join()
	defer leave()
	rc := http.NewResponseController(c.Writer)
	c.Header("Content-Type", "text/event-stream")
	c.Header("Cache-Control", "no-store")
	write := func(b []byte) bool {
		if err := rc.SetWriteDeadline(time.Now().Add(15 * time.Second)); err != nil {
			return false
		}
		if _, err := c.Writer.Write(b); err != nil {
			return false
		}
		return rc.Flush() == nil
	}
	if err := rc.SetReadDeadline(time.Time{}); err != nil {
		return
	}
	if !write(fmt.Appendf(nil, "event: hello\ndata: {\"build\":%q}\n\n", s.build)) {
		return
	}
	beat := time.NewTicker(20 * time.Second)
	defer beat.Stop()
	for {
		select {
		case <-c.Request.Context().Done():
			return
		case m := <-msgs:
			if !write(m) {
				return
			}
		case <-beat.C:
			if !write([]byte(": still here\n\n")) {
				return
			}
		}
	}
}
