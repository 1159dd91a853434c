package api_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"
)

// export asks for a file and returns its id.
func (s *site) export(id, ask string) (string, string) {
	s.t.Helper()
	status, v := s.ask("POST", "/api/projects/"+id+"/exports", []byte(ask))
	if status != 201 {
		s.t.Fatalf("%s: %d %v", ask, status, v)
	}
	return v["id"].(string), v["name"].(string)
}

// exports are those of a project by id.
func (s *site) exports(id string) map[string]map[string]any {
	_, v := s.ask("GET", "/api/projects/"+id+"/exports", nil)
	list := map[string]map[string]any{}
	for _, e := range v["exports"].([]any) {
		list[e.(map[string]any)["id"].(string)] = e.(map[string]any)
	}
	return list
}

func (s *site) until(what string, is func() bool) {
	s.t.Helper()
	for end := time.Now().Add(40 * time.Second); !is(); time.Sleep(20 * time.Millisecond) {
		if time.Now().After(end) {
			s.t.Fatalf("never: %s", what)
		}
	}
}

// Exports rest and go on where they were, others are made meanwhile, and one that waits is put first.
func TestExportsRestAndChangePlaces(t *testing.T) {
	s := start(t)
	go s.api.Queue().Run(t.Context())
	id := s.project(t)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(`{"base":0,"id":"a","window":"w","command":{"op":"scene.set","ids":["`+s.scene(id)+`"],"patch":{"stay":3600000}}}`)); status != 200 {
		t.Fatalf("%d %v", status, v)
	}
	state := func(e string) any { return s.exports(id)[e]["state"] }
	turn := func(e, how string) {
		t.Helper()
		if status, v := s.ask("POST", "/api/exports/"+e+"/"+how, nil); status != 204 {
			t.Fatalf("%s: %d %v", how, status, v)
		}
	}
	const long = `{"format":"gif","height":100,"rate":{"num":25,"den":1}}`
	first, _ := s.export(id, long)
	second, _ := s.export(id, long)
	s.until("both run", func() bool { return state(first) == "running" && state(second) == "running" })
	third, _ := s.export(id, long)
	turn(third, "pause")
	if state(third) != "paused" {
		t.Errorf("one that waits is %v", state(third))
	}
	turn(first, "pause")
	s.until("one rests", func() bool { return state(first) == "paused" })
	done := s.exports(id)[first]["framesDone"].(float64)
	short, _ := s.export(id, `{"format":"png","height":100}`)
	s.until("another takes its place", func() bool { return state(short) == "done" })
	if now := s.exports(id)[first]["framesDone"].(float64); now != done {
		t.Errorf("it rested at frame %v and is at %v", done, now)
	}
	turn(second, "pause")
	s.until("both rest", func() bool { return state(second) == "paused" })
	// Two are made, one waits behind, and one more in front of it.
	a, _ := s.export(id, long)
	b, _ := s.export(id, long)
	s.until("two more run", func() bool { return state(a) == "running" && state(b) == "running" })
	c, _ := s.export(id, `{"format":"png","height":100}`)
	d, _ := s.export(id, `{"format":"png","height":100}`)
	turn(d, "first")
	turn(a, "cancel")
	s.until("both are made", func() bool { return state(c) == "done" && state(d) == "done" })
	if list := s.exports(id); list[d]["endedAt"].(string) > list[c]["endedAt"].(string) {
		t.Errorf("the one that was put first ended at %v, the other at %v", list[d]["endedAt"], list[c]["endedAt"])
	}
	turn(second, "cancel")
	s.until("one that rests is cancelled", func() bool { return state(second) == "cancelled" })
	turn(first, "resume")
	turn(b, "cancel")
	s.until("it goes on to its end", func() bool { return state(first) == "done" })
	if state(third) != "paused" {
		t.Errorf("one that rests is %v", state(third))
	}
	turn(third, "cancel")
	if state(third) != "cancelled" {
		t.Errorf("cancelled it is %v", state(third))
	}
}

// Files are named by a pattern and never alike; presets are kept for a project or for all; sizes are estimated; files are held beside the page;
// what is too much is refused before anything starts.
func TestWhatIsAskedForOfFiles(t *testing.T) {
	s := start(t)
	go s.api.Queue().Run(t.Context())
	id := s.project(t)
	day := time.Now().Format("2006-01-02")
	for _, c := range []struct{ pattern, want string }{
		{"", "reel-100x178.png"}, {"", "reel-100x178-2.png"}, {"{project} {version}", "reel-v1.png"}, {"{project} {version}", "reel-v2.png"}, {"{kind}_{date}", "png-" + day + ".png"}, {"..", "film.png"},
	} {
		ask, _ := json.Marshal(map[string]any{"format": "png", "width": 100, "name": c.pattern})
		if _, name := s.export(id, string(ask)); name != c.want {
			t.Errorf("%q: %s, want %s", c.pattern, name, c.want)
		}
	}
	gif, _ := s.export(id, `{"format":"gif","height":100,"frame":500,"passes":3,"pause":300,"loss":0,"colours":9,"title":"A reel"}`)
	s.until("it is made", func() bool { return s.exports(id)[gif]["state"] == "done" })
	status, v := s.ask("GET", "/api/exports/"+gif+"/compare?frame=2", nil)
	if status != 200 || v["ssim"].(float64) < 0.999 || v["at"] != 1000.0 || len(v["file"].(string)) < 50 {
		t.Errorf("compared: %d %v", status, fmt.Sprint(v)[:100])
	}
	if status, v := s.ask("GET", "/api/exports/"+gif+"/compare?frame=99999", nil); status != 422 || code(v) != "export.compare" {
		t.Errorf("a frame that is not there: %d %v", status, v)
	}
	// Of frames timed by hand, the second that is shown is the third of the film; a still shows a scene as it rests.
	held, _ := s.export(id, `{"format":"apng","height":100,"frame":500,"times":[{"frame":0,"ms":1700},{"frame":1,"ms":0}]}`)
	still, name := s.export(id, `{"format":"png","height":100,"scenes":true}`)
	s.until("both are made", func() bool { return s.exports(id)[held]["state"] == "done" && s.exports(id)[still]["state"] == "done" })
	for e, at := range map[string]float64{held + "/compare?frame=1": 1000, still + "/compare": s.exports(id)[still]["at"].(float64)} {
		if status, v := s.ask("GET", "/api/exports/"+e, nil); status != 200 || v["ssim"].(float64) < 0.999 || v["at"] != at {
			t.Errorf("%s: %d %v %v", e, status, v["at"], v["ssim"])
		}
	}
	if !strings.Contains(name, "scene-1") {
		t.Errorf("a still of a scene is called %s", name)
	}
	status, v = s.ask("POST", "/api/projects/"+id+"/exports/estimate", []byte(`{"format":"gif","height":100}`))
	if status != 200 || v["bytes"].(float64) < 100 {
		t.Errorf("estimated: %d %v", status, v)
	}
	other := s.project(t)
	for _, all := range []bool{true, false} {
		body := fmt.Sprintf(`{"name":"For the club’s page","all":%v,"ask":{"format":"gif","height":200,"target":300000}}`, all)
		if status, v := s.ask("POST", "/api/projects/"+id+"/presets", []byte(body)); status != 201 {
			t.Fatalf("%d %v", status, v)
		}
	}
	for p, n := range map[string]int{id: 2, other: 1} {
		_, v := s.ask("GET", "/api/projects/"+p+"/presets", nil)
		if list := v["presets"].([]any); len(list) != n || !strings.Contains(fmt.Sprint(list[0]), "target:300000") {
			t.Errorf("presets %v, want %d", list, n)
		}
	}
	n := len(s.exports(id))
	for ask, words := range map[string]string{
		`{"format":"gif","frame":-1}`: "600,000 ms", `{"format":"gif","frame":600001}`: "600,000 ms", `{"format":"gif","passes":70000}`: "65535 times", `{"format":"mp4","quality":"best"}`: "no quality",
		`{"format":"gif","pause":-1}`: "rests 0 to 3600", `{"format":"gif","colours":256}`: "2 to 255", `{"format":"gif","dither":"riemersma"}`: "no dither", `{"format":"gif","loss":101}`: "0 (exact) to 100",
		`{"format":"gif","target":1}`: "KB to", `{"format":"png","name":"../x"}`: "separators", `{"format":"gif","give":["truth"]}`: "given up", `{"format":"mp4","from":4000,"to":3000}`: "its begin before its end",
		`{"format":"mp4","to":36000001}`: "lie in it", `{"format":"gif","rate":{"num":1000,"den":1}}`: "0.001 to 240", `{"format":"mp4","width":16000}`: "16 to 8192", `{"format":"mp4","poster":-5}`: "within the film",
		`{"format":"png","scene":9}`: "no scene 9", `{"format":"gif","times":[{"frame":0,"ms":9}]}`: "20 to 600000 ms",
	} {
		if status, v := s.ask("POST", "/api/projects/"+id+"/exports", []byte(ask)); status/100 != 4 || !strings.Contains(fmt.Sprint(v["error"]), words) {
			t.Errorf("%s: %d %v", ask, status, v)
		}
	}
	if len(s.exports(id)) != n {
		t.Error("something that was refused was started")
	}
}
