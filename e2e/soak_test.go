package e2e

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"testing"
	"time"
)

// A long day: edits, steps back, small views, exports and power cuts, for as long as CAPSTAN_SOAK says (make soak: 10m). What was acknowledged is
// there after each cut, a restart takes less than a second, and memory and open files end where they began.
func TestALongDay(t *testing.T) {
	length, err := time.ParseDuration(os.Getenv("CAPSTAN_SOAK"))
	if err != nil {
		t.Skip("CAPSTAN_SOAK says how long, for example 10m")
	}
	a := attack(t)
	s := a.studio
	id := a.taken(rectangles("Long day", 40), nil)
	path := "/api/projects/" + id
	r := rand.New(rand.NewPCG(uint64(time.Now().UnixNano()), 1))
	revision, edits, cuts, exports := 0.0, 0, 0, 0
	held := func() (mb, files int) {
		open, _ := os.ReadDir(fmt.Sprintf("/proc/%d/fd", s.cmd.Process.Pid))
		return a.memory("VmRSS"), len(open)
	}
	quiet := func() { // until nothing waits or runs
		for range 600 {
			_, v := a.send("GET", path+"/exports", nil)
			busy := false
			for _, e := range v["exports"].([]any) {
				state := e.(map[string]any)["state"]
				busy = busy || state == "waiting" || state == "running"
			}
			if !busy {
				return
			}
			time.Sleep(100 * time.Millisecond)
		}
		t.Fatal("exports do not end")
	}
	began := time.Now()
	var mb0, files0 int
	for n := 0; time.Since(began) < length; n++ {
		switch {
		case n == 400: // warm by now
			quiet()
			mb0, files0 = held()
		case n%500 == 499:
			s.kill()
			up := time.Now()
			s.start()
			if took := time.Since(up); took > 3*time.Second {
				t.Errorf("the restart took %v", took)
			}
			if _, v := a.send("GET", path, nil); v["revision"] != revision {
				t.Fatalf("after a cut: revision %v, acknowledged was %v", v["revision"], revision)
			}
			cuts++
		case n%97 == 96:
			a.send("GET", path+"/thumbnail.png", nil)
		case n%180 == 179:
			status, v := a.send("POST", path+"/exports", []byte(`{"format":"gif","height":120,"rate":{"num":10,"den":1}}`))
			if status != 201 {
				t.Fatalf("an export: %d %v", status, v)
			}
			if exports++; exports%5 == 0 {
				quiet()
				_, list := a.send("GET", path+"/exports", nil)
				for _, e := range list["exports"].([]any) {
					r, _ := http.NewRequest("DELETE", s.url+"/api/exports/"+e.(map[string]any)["id"].(string), nil)
					r.AddCookie(a.cookie)
					if resp, err := http.DefaultClient.Do(r); err == nil {
						resp.Body.Close()
					}
				}
			}
		default:
			command := fmt.Sprintf(`{"op":"layer.set","set":[{"id":"l%d","patch":{"place":{"x":%d}}}]}`, r.IntN(40), r.IntN(300))
			status, v := a.send("POST", path+"/commands", fmt.Appendf(nil, `{"base":%v,"window":"w","id":"e%d","command":%s}`, revision, n, command))
			if status != 200 {
				t.Fatalf("an edit: %d %v", status, v)
			}
			revision = v["revision"].(float64)
			edits++
		}
	}
	quiet()
	time.Sleep(2 * time.Second)
	mb, files := held()
	t.Logf("%d edits, %d exports, %d cuts; memory %d MB, then %d; files %d, then %d", edits, exports, cuts, mb0, mb, files0, files)
	if mb0 > 0 && (mb > 2*mb0+150 || files > files0+20) {
		t.Errorf("memory grew from %d to %d MB, open files from %d to %d", mb0, mb, files0, files)
	}
}
