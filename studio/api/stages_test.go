package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image/png"
	"io"
	"os"
	"path/filepath"
	"testing"
	"time"

	"capstan/demo"
	"capstan/studio/api"
)

func (s *site) command(id string, base int, command string) {
	s.t.Helper()
	body := fmt.Sprintf(`{"base":%d,"window":"w","id":"c%d","command":%s}`, base, base, command)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(body)); status != 200 {
		s.t.Fatalf("%s: %d %v", command, status, v)
	}
}

// colour returns the pixel in the middle of a picture that is served.
func (s *site) colour(path string) string {
	s.t.Helper()
	r, err := s.c.Get(s.url + path)
	if err != nil {
		s.t.Fatal(err)
	}
	defer r.Body.Close()
	img, err := png.Decode(r.Body)
	if err != nil {
		s.t.Fatalf("%s: %d %v", path, r.StatusCode, err)
	}
	red, green, blue, _ := img.At(img.Bounds().Dx()/2, img.Bounds().Dy()/2).RGBA()
	return fmt.Sprintf("#%02x%02x%02x", red>>8, green>>8, blue>>8)
}

func TestStagesShowTheProjectAsItWas(t *testing.T) {
	s := start(t)
	id := s.project(t)
	scene := s.scene(id)
	paint := func(base int, colour string) {
		s.command(id, base, fmt.Sprintf(`{"op":"scene.set","ids":[%q],"patch":{"background":{"kind":"colour","colour":%q}}}`, scene, colour))
	}
	paint(0, "#d8573a")
	status, stage := s.ask("POST", "/api/projects/"+id+"/stages", []byte(`{"name":"red"}`))
	if status != 201 || stage["revision"] != 1.0 {
		t.Fatalf("%d %v", status, stage)
	}
	paint(1, "#123f3c")
	frame := "/api/stages/" + stage["id"].(string) + "/frame.png"
	for _, path := range []string{frame, frame + "?at=500", frame + "?at=99999999"} {
		if c := s.colour(path); c != "#d8573a" {
			t.Errorf("%s is %s", path, c)
		}
	}
	if c := s.colour("/api/projects/" + id + "/thumbnail.png"); c != "#123f3c" {
		t.Errorf("the project is %s now", c)
	}
	if status, v := s.ask("GET", frame+"?at=-4", nil); status != 400 {
		t.Errorf("%d %v", status, v)
	}
	status, own := s.ask("POST", "/api/stages/"+stage["id"].(string)+"/project", nil)
	if status != 201 || own["name"] != "Reel, red" || own["id"] == id {
		t.Fatalf("%d %v", status, own)
	}
	if c := s.colour("/api/projects/" + own["id"].(string) + "/thumbnail.png"); c != "#d8573a" {
		t.Errorf("its own project is %s", c)
	}
	if status, _ := s.ask("DELETE", "/api/stages/"+stage["id"].(string), nil); status != 204 {
		t.Errorf("deleting: %d", status)
	}
	if status, v := s.ask("GET", frame, nil); status != 404 || code(v) != "stage.gone" {
		t.Errorf("%d %v", status, v)
	}
}

// A picture whose file has gone is named, shown as missing, not exported silently, and comes back when it is taken in again.
func TestAMissingFileIsToldAndComesBack(t *testing.T) {
	s := start(t)
	_, v := s.ask("POST", "/api/media?name=sky.jpg", demo.Sky())
	hash := v["hash"].(string)
	facts, _ := json.Marshal(v["media"])
	id := s.project(t)
	s.command(id, 0, fmt.Sprintf(`{"op":"batch","commands":[{"op":"media.add","hash":%q,"media":%s},{"op":"layer.add","scene":%q,"layers":[{"id":"l","thread":"l","name":"Sky","kind":"picture","opacity":1,"fill":{"kind":"none"},"picture":{"media":%q},"place":{"x":135,"y":240,"w":270,"h":480},"moves":[]}]}]}`, hash, facts, s.scene(id), hash))
	missing := func() int {
		_, v := s.ask("GET", "/api/projects/"+id+"/missing", nil)
		return len(v["missing"].([]any))
	}
	if n := missing(); n != 0 {
		t.Fatalf("%d are missing", n)
	}
	sky := s.colour("/api/projects/" + id + "/thumbnail.png")
	for _, f := range []string{hash, hash + ".jpg"} {
		if err := os.RemoveAll(filepath.Join(s.dir, "media", f)); err != nil {
			t.Fatal(err)
		}
	}
	if n := missing(); n != 1 {
		t.Errorf("%d are missing", n)
	}
	s.command(id, 1, `{"op":"project.rename","name":"Reel 2"}`) // the picture of the project is made anew
	if c := s.colour("/api/projects/" + id + "/thumbnail.png"); c == sky {
		t.Logf("still cached: %s", c)
	}
	export := []byte(`{"format":"png","height":120,"rate":{"num":10,"den":1}}`)
	if status, v := s.ask("POST", "/api/projects/"+id+"/exports", export); status != 422 || code(v) != "export.picture-gone" {
		t.Errorf("an export: %d %v", status, v)
	}
	if status, v := s.ask("GET", "/api/projects/"+id+"/bundle", nil); status != 422 || code(v) != "bundle.picture-gone" {
		t.Errorf("a bundle: %d %v", status, v)
	}
	if status, v := s.ask("POST", "/api/media?name=sky.jpg", demo.Sky()); status != 201 || v["hash"] != hash {
		t.Errorf("%d %v", status, v)
	}
	if n := missing(); n != 0 {
		t.Errorf("%d are missing after it came back", n)
	}
	if status, v := s.ask("POST", "/api/projects/"+id+"/exports", export); status != 201 {
		t.Errorf("an export: %d %v", status, v)
	}
}

func TestTwentyExportsAreMadeTwoAtATimeInTheirOrder(t *testing.T) {
	s := start(t)
	id := s.project(t)
	var ids []string
	for i := range 20 {
		format := []string{"gif", "png", "mp4"}[i%3]
		status, v := s.ask("POST", "/api/projects/"+id+"/exports", []byte(`{"format":"`+format+`","height":48,"rate":{"num":10,"den":1}}`))
		if status != 201 || v["state"] != "waiting" {
			t.Fatalf("%d %v", status, v)
		}
		ids = append(ids, v["id"].(string))
	}
	// One that waits is cancelled before it begins.
	if status, _ := s.ask("POST", "/api/exports/"+ids[11]+"/cancel", nil); status != 204 {
		t.Errorf("cancelling: %d", status)
	}
	go s.api.Run(t.Context())
	most := 0
	for end := time.Now().Add(90 * time.Second); ; time.Sleep(5 * time.Millisecond) {
		_, v := s.ask("GET", "/api/projects/"+id+"/exports", nil)
		count := map[string]int{}
		states := make([]string, 0, 20)
		list := v["exports"].([]any)
		for i := range list {
			e := list[len(list)-1-i].(map[string]any)
			count[e["state"].(string)]++
			states = append(states, e["state"].(string))
		}
		most = max(most, count["running"])
		waits := false
		for i, st := range states {
			waits = waits || st == "waiting"
			if waits && st == "running" {
				t.Fatalf("export %d runs before an earlier one: %v", i, states)
			}
		}
		if count["done"] == 19 && count["cancelled"] == 1 {
			break
		}
		if count["failed"] > 0 || time.Now().After(end) {
			t.Fatalf("%v", count)
		}
	}
	if most != 2 {
		t.Errorf("%d ran at a time", most)
	}
	files, _ := filepath.Glob(filepath.Join(s.dir, "exports", "*"))
	if half, _ := filepath.Glob(filepath.Join(s.dir, "exports", ".*")); len(files) != 19 || len(half) != 0 {
		t.Errorf("%d files, %v half written", len(files), half)
	}
}

func TestABundleSaysThatItsNameIsTaken(t *testing.T) {
	s := start(t)
	id := s.project(t)
	r, err := s.c.Get(s.url + "/api/projects/" + id + "/bundle")
	if err != nil {
		t.Fatal(err)
	}
	raw, _ := io.ReadAll(r.Body)
	r.Body.Close()
	if _, v := s.ask("POST", "/api/bundles", raw); v["named"] != 2.0 {
		t.Errorf("beside the first: %v", v)
	}
	s.ask("DELETE", "/api/projects/"+id, nil)
	other := startWith(t, api.Options{})
	if _, v := other.ask("POST", "/api/bundles", bytes.Clone(raw)); v["named"] != 1.0 {
		t.Errorf("elsewhere: %v", v)
	}
}

// Deleting a project for good frees what only it used, once it has lain for a while.
func TestMediaOfDeletedProjectsGo(t *testing.T) {
	s := start(t)
	_, v := s.ask("POST", "/api/media?name=sky.jpg", demo.Sky())
	hash := v["hash"].(string)
	facts, _ := json.Marshal(v["media"])
	ids := []string{s.project(t), s.project(t)}
	for _, id := range ids {
		s.command(id, 0, fmt.Sprintf(`{"op":"media.add","hash":%q,"media":%s}`, hash, facts))
	}
	long := time.Now().Add(-2 * time.Hour)
	file := filepath.Join(s.dir, "media", hash+".jpg")
	if err := os.Chtimes(file, long, long); err != nil {
		t.Fatal(err)
	}
	for i, id := range ids {
		s.ask("DELETE", "/api/projects/"+id, nil)
		if status, v := s.ask("DELETE", "/api/projects/"+id+"?forgood=1", nil); status != 204 {
			t.Fatalf("%d %v", status, v)
		}
		if _, err := os.Stat(file); (err == nil) != (i == 0) {
			t.Errorf("after deleting %d of 2 projects: %v", i+1, err)
		}
	}
}
