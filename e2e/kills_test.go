package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"capstan/core/frame"
	"capstan/library"
	"capstan/studio/api"
	"capstan/studio/store"
)

// post sends JSON as the page does; status 0 when the server is gone.
func (s *studio) post(path string, body any) (int, map[string]any) {
	cookie, err := api.SessionCookie(s.dir, s.addr, "")
	if err != nil {
		return 0, nil
	}
	raw, _ := json.Marshal(body)
	r, _ := http.NewRequest("POST", s.url+path, bytes.NewReader(raw))
	r.AddCookie(cookie)
	resp, err := http.DefaultClient.Do(r)
	if err != nil {
		return 0, nil
	}
	defer resp.Body.Close()
	answer, _ := io.ReadAll(resp.Body)
	var v map[string]any
	json.Unmarshal(answer, &v)
	return resp.StatusCode, v
}

// Fifty power cuts at random moments of editing and exporting: the last acknowledged revision reopens, the database is sound,
// and no half file is left.
func TestFiftyKillsLoseNothing(t *testing.T) {
	s := startAlone(t)
	r := rand.New(rand.NewPCG(95, 96))
	const id = "kite-day-opener"
	rev, _ := s.revision(id)
	var acked atomic.Int64
	acked.Store(rev)
	for kill := range 50 {
		stop := make(chan struct{})
		done := make(chan struct{})
		go func() {
			defer close(done)
			base := acked.Load()
			for n := 0; ; n++ {
				select {
				case <-stop:
					return
				default:
				}
				if n == 1 && kill%3 == 0 {
					s.post("/api/projects/"+id+"/exports", map[string]any{
						"format": []string{"gif", "mp4", "png"}[kill/3%3], "height": 180, "rate": map[string]int{"num": 12, "den": 1}, "target": 60_000,
					})
				}
				x := 100 + float64(base)
				status, v := s.post("/api/projects/"+id+"/commands", map[string]any{
					"base": base, "window": "w", "id": fmt.Sprint("k", kill, "-", n),
					"command": map[string]any{"op": "layer.set", "set": []any{map[string]any{"id": "s1-l11", "patch": map[string]any{"place": map[string]any{"x": x}}}}},
				})
				if status != 200 {
					return // killed in between
				}
				base = int64(v["revision"].(float64))
				acked.Store(base)
			}
		}()
		// After some changes, so that a slow machine is killed as often in the middle of them as a fast one, and then at any moment.
		for want, late := acked.Load()+int64(r.IntN(7)), time.Now().Add(20*time.Second); acked.Load() < want && time.Now().Before(late); {
			time.Sleep(time.Millisecond)
		}
		time.Sleep(time.Duration(r.IntN(60)) * time.Millisecond)
		s.kill()
		close(stop)
		<-done
		s.start()
		rev, document := s.revision(id)
		if a := acked.Load(); rev < a || rev > a+1 {
			t.Fatalf("kill %d: revision %d was acknowledged, %d reopens", kill, a, rev)
		}
		if rev > 0 {
			if raw, _ := json.Marshal(document); !strings.Contains(string(raw), fmt.Sprintf(`"x":%d`, 100+rev-1)) {
				t.Fatalf("kill %d: revision %d does not hold its change", kill, rev)
			}
		}
		acked.Store(rev)
	}
	if acked.Load() < 100 {
		t.Errorf("only %d changes in fifty rounds", acked.Load())
	}
	// Exports that were cut off are made again; then nothing half written is left.
	for end := time.Now().Add(60 * time.Second); ; time.Sleep(100 * time.Millisecond) {
		var v struct {
			Exports []struct{ ID, State, Format, Message string }
		}
		if err := json.Unmarshal(s.fetch("/api/projects/"+id+"/exports"), &v); err != nil {
			t.Fatal(err)
		}
		busy, done := 0, 0
		for _, e := range v.Exports {
			switch e.State {
			case "waiting", "running":
				busy++
			case "done":
				done++
			case "failed": // one that was cut off twice is not tried a third time
				if !strings.Contains(e.Message, "twice") {
					t.Fatalf("an export failed: %+v", e)
				}
			}
		}
		if busy == 0 {
			files, _ := filepath.Glob(filepath.Join(s.dir, "exports", "*"))
			if len(files) != done || len(v.Exports) < 3 {
				t.Errorf("%d exports, %d of them done, %d files", len(v.Exports), done, len(files))
			}
			break
		}
		if time.Now().After(end) {
			t.Fatalf("%d exports are not done", busy)
		}
	}
	s.kill()
	for _, d := range []string{".aside-*", "media/.aside-*", "media/*/.aside-*", "exports/.aside-*", "tmp/*"} {
		if left, _ := filepath.Glob(filepath.Join(s.dir, d)); len(left) > 0 {
			t.Errorf("left behind: %v", left)
		}
	}
	book, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	db, err := store.Open(s.dir, frame.Assets{Fonts: book}) // checks the database
	if err != nil {
		t.Fatal(err)
	}
	db.Close()
}
