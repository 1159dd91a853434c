package e2e

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"net/http"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/studio/api"
	"capstan/studio/bundle"
)

// attacked is a studio that bad things are sent to.
type attacked struct {
	*studio
	cookie *http.Cookie
}

// attack starts a studio to send things to.
func attack(t *testing.T) *attacked {
	s := startAlone(t)
	cookie, err := api.SessionCookie(s.dir, s.addr, "")
	if err != nil {
		t.Fatal(err)
	}
	return &attacked{s, cookie}
}

// rectangles is a project of n rectangles, l0, l1 …
func rectangles(name string, n int) *doc.Project {
	p := doc.NewProject("p", name, 320, 240, "s")
	for i := range n {
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, box(fmt.Sprint("l", i), 30, 20))
	}
	return p
}

// memory is what the system says of the server's memory, in MB: VmRSS now, VmHWM at most.
func (a *attacked) memory(what string) int {
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", a.cmd.Process.Pid))
	if err != nil {
		a.t.Fatalf("the server is gone: %v", err)
	}
	var kb int
	for _, l := range strings.Split(string(raw), "\n") {
		fmt.Sscanf(l, what+": %d kB", &kb)
	}
	return kb >> 10
}

// send sends a body; a server that does not answer has failed.
func (a *attacked) send(method, path string, body []byte) (int, map[string]any) {
	a.t.Helper()
	r, err := http.NewRequest(method, a.url+path, bytes.NewReader(body))
	if err != nil {
		a.t.Fatal(err)
	}
	r.AddCookie(a.cookie)
	resp, err := http.DefaultClient.Do(r)
	if err != nil {
		a.t.Fatalf("%s %s: the server is gone: %v", method, path, err)
	}
	defer resp.Body.Close()
	raw, _ := io.ReadAll(resp.Body)
	var v map[string]any
	json.Unmarshal(raw, &v)
	if resp.StatusCode >= 500 && resp.StatusCode != 507 {
		a.t.Errorf("%s %s: %d %.300s", method, path, resp.StatusCode, raw)
	}
	return resp.StatusCode, v
}

// taken imports a document as a bundle, with further entries, and returns the project's id; "" where it is refused.
func (a *attacked) taken(p *doc.Project, more map[string][]byte) string {
	a.t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	entry := func(name string, data []byte) {
		w, err := z.Create(name)
		if err != nil {
			a.t.Fatal(err)
		}
		w.Write(data)
	}
	entry("mimetype", []byte(bundle.MediaType))
	raw, err := p.Write()
	if err != nil {
		a.t.Fatal(err)
	}
	entry("project.json", raw)
	for name, data := range more {
		for i := range 500 {
			entry(strings.Replace(name, "#", fmt.Sprint(i), 1), data)
		}
	}
	z.Close()
	status, v := a.send("POST", "/api/bundles", b.Bytes())
	if status != 201 {
		return ""
	}
	return v["id"].(string)
}

// edit sends a command on whatever revision there is.
func (a *attacked) edit(id, command string) (int, map[string]any) {
	a.t.Helper()
	_, v := a.send("GET", "/api/projects/"+id, nil)
	return a.send("POST", "/api/projects/"+id+"/commands", fmt.Appendf(nil, `{"base":%v,"window":"w","id":%q,"command":%s}`, v["revision"], fmt.Sprint(time.Now().UnixNano()), command))
}

// export asks for a file and waits for what becomes of it.
func (a *attacked) export(id, ask string) string {
	a.t.Helper()
	status, v := a.send("POST", "/api/projects/"+id+"/exports", []byte(ask))
	if status != 201 {
		return "refused"
	}
	for range 1200 {
		time.Sleep(100 * time.Millisecond)
		_, list := a.send("GET", "/api/projects/"+id+"/exports", nil)
		for _, e := range list["exports"].([]any) {
			if e := e.(map[string]any); e["id"] == v["id"] && e["state"] != "waiting" && e["state"] != "running" {
				return e["state"].(string)
			}
		}
	}
	a.send("POST", "/api/exports/"+v["id"].(string)+"/cancel", nil)
	return "slow"
}

func box(id string, w, h float64) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 50, Y: 50, W: w, H: h}}
}

// Whatever is sent, the server stays, keeps to its memory, and other projects are edited meanwhile as if nothing was. CAPSTAN_ATTACK=1 sends
// the heavy ones, too (make attack).
func TestNothingThatIsSentStopsTheServer(t *testing.T) {
	heavy := os.Getenv("CAPSTAN_ATTACK") != ""
	a := attack(t)

	// A bystander edits his own project all the while.
	quiet := a.taken(doc.NewProject("q", "Bystander", 320, 240, "s"), nil)
	stop, slowest := make(chan struct{}), time.Duration(0)
	var bystander sync.WaitGroup
	bystander.Go(func() {
		for n := 0; ; n++ {
			select {
			case <-stop:
				return
			case <-time.After(50 * time.Millisecond):
			}
			began := time.Now()
			a.edit(quiet, fmt.Sprintf(`{"op":"project.rename","name":"Bystander %d"}`, n))
			slowest = max(slowest, time.Since(began))
		}
	})

	film := func(name string, w, h int, layers ...*doc.Layer) *doc.Project {
		p := doc.NewProject("p", name, w, h, "s")
		p.Film.Scenes[0].Layers = layers
		return p
	}
	small := a.taken(film("small", 64, 64, box("a", 20, 20)), nil)
	for _, ask := range []string{
		`{"format":"mp4","height":64,"rate":{"num":276701161105643280,"den":9223372036854776}}`, `{"format":"gif","height":64,"rate":{"num":1,"den":1000000}}`,
		`{"format":"gif","height":1000000,"rate":{"num":1,"den":1}}`, `{"format":"gif","height":64,"rate":{"num":-9223372036854775808,"den":-1}}`,
	} {
		if got := a.export(small, ask); got != "refused" {
			t.Errorf("%s: %s", ask, got)
		}
	}
	long := film("fifty thousand hours", 64, 64)
	long.Film.Scenes = nil
	for i := range 500 {
		sc := doc.NewScene(fmt.Sprint("s", i), "s")
		sc.AutoStay = true
		l := box(fmt.Sprint("l", i), 20, 20)
		l.Moves = []*doc.Move{{ID: fmt.Sprint("m", i), Kind: doc.Loop, Effect: effect.Spin, Duration: doc.MaxTime, Repeat: 99, Start: doc.Start{When: doc.AtTime}}}
		sc.Layers = []*doc.Layer{l}
		long.Film.Scenes = append(long.Film.Scenes, sc)
	}
	if id := a.taken(long, nil); a.export(id, `{"format":"gif","height":64,"rate":{"num":10,"den":1}}`) != "refused" {
		t.Error("a film of hundreds of hours is exported")
	}

	wide := film("wide", 8192, 16, box("a", 1e6, 1e6))
	wide.Film.Scenes[0].Layers[0].Shadow = &doc.Shadow{X: 1000, Y: 1000, Blur: 500, Colour: "#000000"}
	id := a.taken(wide, nil)
	a.send("GET", "/api/projects/"+id+"/thumbnail.png", nil)
	if got := a.export(id, `{"format":"png","width":8192,"rate":{"num":1,"den":1}}`); got != "done" {
		t.Errorf("the wide page: %s", got)
	}

	// Lists of layers that double at each of many levels.
	levels := []string{}
	deep := film("doubling", 64, 64)
	for i := range 30 {
		g := box(fmt.Sprint("g", i), 0, 0)
		g.Kind, g.Fill = doc.Group, doc.Fill{Kind: doc.NoFill}
		g.Children = []*doc.Layer{box(fmt.Sprint("c", i), 5, 5)}
		deep.Film.Scenes[0].Layers = append(deep.Film.Scenes[0].Layers, g)
		if i > 0 {
			levels = append(levels, fmt.Sprintf(`{"part":"layer/s/g%d","field":"children","before":["c%d"],"after":["g%d","g%d"]}`, i-1, i-1, i, i))
		}
	}
	if status, _ := a.edit(a.taken(deep, nil), `{"op":"patch","changes":[`+strings.Join(levels, ",")+`]}`); status != 422 {
		t.Errorf("doubling lists: %d", status)
	}

	// A role that layers name goes.
	roles := film("roles", 64, 64, box("a", 20, 20))
	roles.Film.Scenes[0].Roles = map[string]string{"paper": "#efe9dc"}
	roles.Film.Scenes[0].Layers[0].Fill = doc.Fill{Kind: doc.Solid, Role: "paper"} // with no colour that could stand in
	id = a.taken(roles, nil)
	if status, _ := a.edit(id, `{"op":"scene.set","ids":["s"],"patch":{"roles":null}}`); status != 422 {
		t.Errorf("roles that are used went: %d", status)
	}
	for _, command := range []string{
		`{"op":"layer.paste","scene":"s","layers":[null],"seed":"x","dx":0,"dy":0}`, `{"op":"patch","changes":[{"part":"project","field":"id","before":"p","after":"q"}]}`,
		`{"op":"layer.set","set":[{"id":"a","patch":{"x":` + strings.Repeat(`{"x":`, 9995) + `1` + strings.Repeat(`}`, 9995) + `}}]}`,
		`{"op":"batch","commands":[` + strings.Repeat(`{"op":"project.rename","name":"x"},`, 30000) + `{"op":"project.rename","name":"y"}]}`,
	} {
		if status, v := a.edit(id, command); status != 422 && status != 400 {
			t.Errorf("%.60s: %d %v", command, status, v)
		}
	}

	// Groups in groups over a page as large as there are, and letters with strokes as wide as the page.
	side := 2048
	letters := 200
	if heavy {
		side, letters = 8192, 2000
	}
	nested := film("nested", side, side)
	list := &nested.Film.Scenes[0].Layers
	for i := range 31 {
		g := box(fmt.Sprint("g", i), 0, 0)
		g.Kind, g.Fill, g.Opacity, g.Children = doc.Group, doc.Fill{Kind: doc.NoFill}, 0.9, []*doc.Layer{box(fmt.Sprint("c", i), float64(2*side), float64(2*side))}
		*list = append(*list, g)
		list = &g.Children
	}
	id = a.taken(nested, nil)
	a.send("GET", "/api/projects/"+id+"/thumbnail.png", nil)
	t.Log("nested:", a.export(id, fmt.Sprintf(`{"format":"png","height":%d,"rate":{"num":1,"den":1}}`, side)), "peak", a.memory("VmHWM"), "MB")
	words := box("w", 0, 0)
	words.Kind, words.Stroke = doc.TextKind, &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 8192, Join: "round"}
	words.Text = &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: strings.Repeat("kite day ", letters/9), Family: "Archivo", Weight: 400, Size: 40}}}
	id = a.taken(film("strokes", 1920, 1080, words), nil)
	began := time.Now()
	a.send("GET", "/api/projects/"+id+"/thumbnail.png", nil)
	if took := time.Since(began); took > 20*time.Second {
		t.Errorf("a thumbnail took %v", took)
	}
	t.Log("strokes:", time.Since(began), "peak", a.memory("VmHWM"), "MB")

	// Many edits in one request, on as many layers as there may be.
	many := rectangles("many", 1999)
	var sets []string
	for i := range 1999 {
		sets = append(sets, fmt.Sprintf(`{"id":"l%d","patch":{"opacity":0.5}}`, i))
	}
	id = a.taken(many, nil)
	all := strings.Join(sets, ",")
	began = time.Now()
	a.edit(id, `{"op":"layer.set","set":[`+strings.Repeat(all+",", 10)+all+`]}`)
	copies := []string{}
	for i := range 120 {
		copies = append(copies, fmt.Sprintf(`{"op":"scene.continue","id":"s","new":"n%d","seed":"x%d"}`, i, i))
	}
	a.edit(id, `{"op":"batch","commands":[`+strings.Join(copies, ",")+`]}`)
	if took := time.Since(began); took > 60*time.Second {
		t.Errorf("two requests took %v", took)
	}
	t.Log("many edits:", time.Since(began), "peak", a.memory("VmHWM"), "MB")

	// Large pictures at once, and the same one over and over.
	w, n := 3000, 3
	if heavy {
		w, n = 7000, 10
	}
	var picture bytes.Buffer
	if err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&picture, image.NewNRGBA64(image.Rect(0, 0, w, w))); err != nil {
		t.Fatal(err)
	}
	var uploads sync.WaitGroup
	for range n {
		uploads.Go(func() { a.send("POST", "/api/media?name=large.png", picture.Bytes()) })
	}
	uploads.Wait()
	t.Log("pictures: peak", a.memory("VmHWM"), "MB")
	again := film("again", 64, 64)
	hash := strings.Repeat("ab", 32)
	again.Media = map[string]*doc.Media{hash: {Name: "x.png", Type: "image/png", Width: w, Height: w}}
	began = time.Now()
	if id := a.taken(again, map[string][]byte{"media/" + hash + ".png#": picture.Bytes()}); id != "" || time.Since(began) > time.Minute {
		t.Errorf("a bundle of one picture over and over: %q after %v", id, time.Since(began))
	}

	close(stop)
	bystander.Wait()
	most := 1500
	if peak := a.memory("VmHWM"); peak > most {
		t.Errorf("the server took %d MB, at most %d", peak, most)
	}
	if slowest > 1500*time.Millisecond {
		t.Errorf("the bystander waited %v", slowest)
	}
	t.Log("the bystander waited", slowest, "at most; peak", a.memory("VmHWM"), "MB")
}
