package api

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"path/filepath"
	"time"

	"capstan/core/words"
	"capstan/studio/budget"
	"capstan/studio/media"

	"github.com/gin-gonic/gin"
)

// DefaultQuota is how much Capstan's data may take of the disk, in bytes.
const DefaultQuota = 10_000_000_000

// warnAt is the share of the quota from which on people are told.
const warnAt = 0.8

// space is how much of the quota is used, in bytes.
type space struct {
	Used  int64 `json:"used"`
	Quota int64 `json:"quota"`
	Near  bool  `json:"near"` // it is time to make room
}

func (s *Server) space() (space, error) {
	var v space
	for _, name := range []string{"media", "exports", "capstan.db", "capstan.db-wal"} {
		n, err := media.Bytes(filepath.Join(s.store.Dir(), name))
		if err != nil {
			return v, err
		}
		v.Used += n
	}
	v.Quota = s.options.Quota
	v.Near = float64(v.Used) > warnAt*float64(v.Quota)
	s.measured.Lock()
	defer s.measured.Unlock()
	s.measured.space, s.measured.at = v, time.Now()
	return v, nil
}

// mayGrow tells whether there is room for an edit; it has answered where there is none. The folder is not measured for each of them.
func (s *Server) mayGrow(c *gin.Context) bool {
	s.measured.Lock()
	v, at := s.measured.space, s.measured.at
	s.measured.Unlock()
	if time.Since(at) > 5*time.Second || v.Used > v.Quota { // there may be room by now
		var err error
		if v, err = s.space(); err != nil {
			fail(c, err)
			return false
		}
	}
	if v.Used > v.Quota {
		answer(c, quotaFull(v))
		return false
	}
	return true
}

// room returns how many bytes may still come in; it has answered where there is none for the request's body.
func (s *Server) room(c *gin.Context) (left int64, ok bool) {
	v, err := s.space()
	if err != nil {
		fail(c, err)
		return 0, false
	}
	if short := v.Used + max(c.Request.ContentLength, 0) - v.Quota; short >= 0 { // what is in the bin of media goes first
		if freed, err := s.files.Empty(time.Time{}, short+1); err != nil {
			fail(c, err)
			return 0, false
		} else if freed > 0 {
			if v, err = s.space(); err != nil {
				fail(c, err)
				return 0, false
			}
		}
	}
	left = v.Quota - v.Used
	if left <= 0 || c.Request.ContentLength > left {
		answer(c, quotaFull(v))
		return 0, false
	}
	return left, true
}

func quotaFull(v space) *words.Fault { return words.New("quota.full", size(v.Quota), size(v.Used)) }

// size writes a number of bytes for people, in the decimal units of disks.
func size(n int64) string {
	switch {
	case n >= 1e9:
		return fmt.Sprintf("%.1f GB", float64(n)/1e9)
	case n >= 1e6:
		return fmt.Sprintf("%.0f MB", float64(n)/1e6)
	}
	return fmt.Sprintf("%.0f KB", float64(n)/1e3)
}

// heavy waits for the turn of work that takes much. Its context ends when nobody waits for the answer, or when it takes too long.
func (s *Server) heavy(c *gin.Context) (context.Context, func(), error) {
	ctx, stop := context.WithTimeout(c.Request.Context(), budget.HeavyTime)
	select {
	case s.turns <- struct{}{}:
		return ctx, func() { <-s.turns; stop() }, nil
	case <-ctx.Done():
		stop()
		return nil, nil, ctx.Err()
	}
}

// grace is how long a file that no project uses stays: a picture comes in before the command that uses it.
const grace = time.Hour

// tidy puts media that no project uses any more into their bin, deletes what has been there long enough, and gives room in the database back.
func (s *Server) tidy(older time.Duration) error {
	uses, err := s.store.Uses()
	if err != nil {
		return err
	}
	binned, err := s.files.Sweep(func(hash string) bool { return uses[hash] > 0 }, time.Now().Add(-older))
	if binned > 0 {
		slog.Info("media that no project uses were put into the bin", "files", binned, "days", media.InBin.Hours()/24)
	}
	freed, e := s.files.Empty(time.Now().Add(-media.InBin), 0)
	if freed > 0 {
		slog.Info("the bin of media was emptied", "bytes", freed)
	}
	return errors.Join(err, e, s.store.Shrink())
}

// Run makes exports and keeps the data folder tidy until ctx ends.
func (s *Server) Run(ctx context.Context) error {
	if s.store.ReadOnly() {
		<-ctx.Done()
		return nil
	}
	go func() {
		every := time.NewTicker(time.Hour)
		defer every.Stop()
		for {
			select { // not at the start: nobody has looked yet whether this is the right database
			case <-ctx.Done():
				return
			case <-every.C:
			}
			if err := s.tidy(grace); err != nil {
				slog.Error("the data folder could not be tidied", "error", err)
			}
		}
	}()
	if err := s.queue.Run(ctx); err != nil && !errors.Is(err, context.Canceled) {
		return err
	}
	return nil
}
