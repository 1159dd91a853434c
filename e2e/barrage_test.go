package e2e

import (
	"bytes"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"strings"
	"sync"
	"testing"
)

// Requests of all kinds at random, half right and half wrong, from several at once: each is answered, none with a fault of the server, and what
// was there before still opens. CAPSTAN_ATTACK=1 sends a hundred thousand.
func TestABarrageOfRequests(t *testing.T) {
	each := 400
	if os.Getenv("CAPSTAN_ATTACK") != "" {
		each = 25000
	}
	a := attack(t)
	s := a.studio
	id := a.taken(rectangles("Barrage", 12), nil)
	values := []string{
		`0`, `-1`, `1e309`, `9223372036854775807`, `-9223372036854775808`, `0.1`, `null`, `true`, `""`, `"x"`, `"l1"`, `"s"`, `[]`, `{}`, `[null]`, `["l1","l1"]`, `{"x":1}`, `"` + strings.Repeat("é", 300) + `"`,
		`"#d8573a"`, `"ellipse"`, `"group"`, `[[1,2],[3]]`, `{"kind":"colour","colour":"#17403c"}`, `"M0 0L1 1Z"`, `"\u0000"`, `[` + strings.Repeat(`"l1",`, 500) + `"l2"]`,
	}
	fields := []string{
		"id", "ids", "scene", "index", "name", "patch", "set", "layers", "parent", "seed", "dx", "dy", "commands", "changes", "from", "hash", "media", "at", "to", "text", "of", "move", "moves", "layer", "begins", "how", "path",
		"x", "y", "opacity", "fill", "stroke", "kind", "place", "children", "stay", "roles", "transition", "width", "height", "rate", "format", "base", "window", "command", "num", "den", "once", "pairs",
	}
	ops := strings.Fields(`layer.combine layer.apart layer.copies cue.add cue.set cue.delete batch patch project.rename project.set film.set media.add layer.add layer.delete layer.set layer.order layer.group
		layer.ungroup layer.duplicate layer.paste move.add move.set move.delete layer.outline run.make run.order layer.scale scene.add scene.duplicate scene.continue scene.delete scene.order scene.set text.words text.style thread.cut thread.join`)
	paths := []string{
		"/api/projects", "/api/projects/ID", "/api/projects/ID/commands", "/api/projects/ID/commands", "/api/projects/ID/commands", "/api/projects/ID/changes?since=V", "/api/projects/ID/thumbnail.png", "/api/projects/ID/stages",
		"/api/projects/ID/exports", "/api/projects/ID/pictures", "/api/projects/ID/missing", "/api/projects/ID/restore", "/api/media?name=V", "/api/media/V/V.png", "/api/fonts", "/api/fonts/V", "/api/bundles", "/api/stages/V", "/api/stages/V/frame.png?at=V",
		"/api/exports/V", "/api/exports/V/cancel", "/api/exports/V/file", "/api/hello", "/healthz", "/", "/assets/", "/assets", "/V", "/api/V",
	}
	var all sync.WaitGroup
	for worker := range 4 {
		all.Go(func() {
			r := rand.New(rand.NewPCG(uint64(worker), uint64(each)))
			one := func(list []string) string { return list[r.IntN(len(list))] }
			var object func(depth int) string
			object = func(depth int) string {
				var b strings.Builder
				b.WriteString("{")
				for i := range r.IntN(5) {
					if i > 0 {
						b.WriteString(",")
					}
					v := one(values)
					if depth < 3 && r.IntN(3) == 0 {
						v = object(depth + 1)
					} else if depth < 3 && r.IntN(5) == 0 {
						v = "[" + object(depth+1) + "]"
					}
					fmt.Fprintf(&b, "%q:%s", one(fields), v)
				}
				return b.String() + "}"
			}
			for range each {
				path := strings.ReplaceAll(one(paths), "ID", id)
				path = strings.ReplaceAll(path, "V", one([]string{"0", "-1", "x", "999999999999999999999", strings.Repeat("0", 64), "%00", "..%2f..%2fetc", "l1"}))
				body := object(0)
				if strings.HasSuffix(path, "/commands") && r.IntN(4) > 0 {
					c := object(1)
					body = fmt.Sprintf(`{"base":%d,"window":"w","id":"%d-%d","command":{"op":%q%s}`, r.IntN(3), worker, r.Uint64(), one(ops), strings.Replace(","+c[1:], ",}", "}", 1)) + "}"
				}
				if r.IntN(20) == 0 {
					body = body[:r.IntN(len(body)+1)]
				}
				q, err := http.NewRequest(one([]string{"GET", "GET", "POST", "POST", "POST", "PATCH", "HEAD", "PUT", "OPTIONS"}), s.url+path, bytes.NewReader([]byte(body)))
				if err != nil {
					continue
				}
				if r.IntN(30) > 0 {
					q.AddCookie(a.cookie)
				}
				resp, err := http.DefaultClient.Do(q)
				if err != nil {
					t.Errorf("%s %s: %v", q.Method, path, err)
					return
				}
				answer, _ := io.ReadAll(resp.Body)
				resp.Body.Close()
				if resp.StatusCode >= 500 {
					t.Errorf("%s %s: %d\n%.400s\n%.300s", q.Method, path, resp.StatusCode, body, answer)
				}
			}
		})
	}
	all.Wait()
	if status, v := a.send("GET", "/api/projects/"+id, nil); status != 200 {
		t.Errorf("the project: %d %v", status, v)
	}
	s.kill()
	s.start()
	if status, v := a.send("GET", "/api/projects/"+id, nil); status != 200 {
		t.Errorf("the project after a restart: %d %v", status, v)
	}
}
