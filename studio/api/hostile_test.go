package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/demo"
	"capstan/studio/api"
	"capstan/studio/bundle"
	"capstan/studio/media"
)

// endless is a body that begins somehow and never ends; read counts what the server took of it.
type endless struct {
	begin io.Reader
	read  int64
}

func (e *endless) Read(p []byte) (int, error) {
	n, err := e.begin.Read(p)
	if err != nil {
		for i := range p {
			p[i] = 'x'
		}
		n = len(p)
	}
	e.read += int64(n)
	return n, nil
}

// pour posts a body that never ends and returns the status, the key of the fault and how many bytes were taken.
func (s *site) pour(path, begin string) (int, string, int64) {
	s.t.Helper()
	body := &endless{begin: strings.NewReader(begin)}
	r, err := http.NewRequest("POST", s.url+path, body)
	if err != nil {
		s.t.Fatal(err)
	}
	resp, err := s.c.Do(r)
	if err != nil {
		return 0, err.Error(), body.read // the server may hang up while it is still talked to
	}
	defer resp.Body.Close()
	var v map[string]any
	json.NewDecoder(resp.Body).Decode(&v)
	return resp.StatusCode, code(v), body.read
}

// slack is what may stand in buffers on the way: Linux lets sockets grow to 32 MB to read and 4 MB to write (tcp_rmem, tcp_wmem), which
// a busy machine fills before the reader is heard.
const slack = 40 << 20

func (s *site) poured(path, begin string, limit int64, key string) {
	s.t.Helper()
	status, k, n := s.pour(path, begin)
	if status != 0 && (k != key || status != 413 && status != 507) {
		s.t.Errorf("%s: %d %s, want %s", path, status, k, key)
	}
	if n > limit+slack {
		s.t.Errorf("%s took %d MB of an endless body", path, n>>20)
	}
}

func TestReadingACommandStopsAtItsLimit(t *testing.T) {
	s := start(t)
	s.poured("/api/projects/"+s.project(t)+"/commands", `{"base":0,"command":{"op":"project.rename","name":"`, 20<<20, "request.too-large")
}

func TestReadingARequestStopsAtItsLimit(t *testing.T) {
	start(t).poured("/api/projects", `{"name":"`, 1<<20, "request.too-large")
}

func TestReadingAPictureStopsAtItsLimit(t *testing.T) {
	start(t).poured("/api/media?name=x.png", "\x89PNG\r\n\x1a\n", media.MaxBytes, "picture.too-large")
}

func TestReadingABundleStopsAtTheQuota(t *testing.T) {
	startWith(t, api.Options{Quota: 30 << 20}).poured("/api/bundles", "PK", 30<<20, "quota.full")
}

// A body that says it is larger than two gigabytes is refused before a byte of it is read.
func TestABundleThatSaysItIsTooLargeIsNotRead(t *testing.T) {
	s := start(t)
	body := &endless{begin: strings.NewReader("PK")}
	r, err := http.NewRequest("POST", s.url+"/api/bundles", io.LimitReader(body, bundle.MaxBytes+1))
	if err != nil {
		t.Fatal(err)
	}
	r.ContentLength = bundle.MaxBytes + 1
	resp, err := s.c.Do(r)
	if err == nil {
		var v map[string]any
		json.NewDecoder(resp.Body).Decode(&v)
		resp.Body.Close()
		if resp.StatusCode != 413 || code(v) != "bundle.too-large" {
			t.Errorf("%d %v", resp.StatusCode, v)
		}
	}
	if body.read > slack {
		t.Errorf("%d MB were taken", body.read>>20)
	}
}

// refusedCommand sends a command, expects the fault of a key, and that the project is as it was.
func refusedCommand(t *testing.T, command, key string) {
	t.Helper()
	s := start(t)
	id := s.project(t)
	add := fmt.Sprintf(`{"base":0,"window":"w","id":"a","command":{"op":"layer.add","scene":%q,"layers":[{"id":"l","thread":"l","name":"Sail","kind":"rectangle","opacity":1,"fill":{"kind":"none"},"place":{"x":1,"y":2,"w":30,"h":40},"moves":[]}]}}`, s.scene(id))
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(add)); status != 200 {
		t.Fatalf("%d %v", status, v)
	}
	_, before := s.ask("GET", "/api/projects/"+id, nil)
	status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(`{"base":1,"window":"w","id":"b","command":`+command+`}`))
	if code(v) != key || status < 400 || status >= 500 {
		t.Errorf("%s: %d %v, want %s", command, status, v, key)
	}
	if _, after := s.ask("GET", "/api/projects/"+id, nil); fmt.Sprint(after) != fmt.Sprint(before) {
		t.Errorf("%s changed something", command)
	}
}

func TestNaNIsRefused(t *testing.T) {
	refusedCommand(t, `{"op":"layer.set","set":[{"id":"l","patch":{"place":{"x":NaN}}}]}`, "request.unreadable")
}

func TestNumbersBeyondAllMeasureAreRefused(t *testing.T) {
	refusedCommand(t, `{"op":"layer.set","set":[{"id":"l","patch":{"place":{"x":1e999}}}]}`, "change.misfit")
}

func TestNumbersBeyondThePageAreRefused(t *testing.T) {
	refusedCommand(t, `{"op":"layer.set","set":[{"id":"l","patch":{"place":{"x":1e300}}}]}`, "document.invalid")
}

func TestUnknownCommandsAreRefused(t *testing.T) {
	refusedCommand(t, `{"op":"layer.explode","ids":["l"]}`, "command.unknown")
}

func TestUnknownFieldsOfACommandAreRefused(t *testing.T) {
	refusedCommand(t, `{"op":"layer.delete","ids":["l"],"really":true}`, "command.unreadable")
}

func TestCommandsWithoutAnOpAreRefused(t *testing.T) { refusedCommand(t, `[1,2,3]`, "command.none") }

func TestBatchesWithoutEndAreRefused(t *testing.T) {
	refusedCommand(t, strings.Repeat(`{"op":"batch","commands":[`, 50)+strings.Repeat(`]}`, 50), "command.deep")
}

// A page of another build does not get its commands through: they might mean something else. It is told, and nothing is changed.
func TestAStaleBuildIsTold(t *testing.T) {
	s := start(t)
	id := s.project(t)
	_, hello := s.ask("GET", "/api/hello", nil)
	rename := `"command":{"op":"project.rename","name":"New"}}`
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(`{"base":0,"id":"a","window":"w","build":"elsewhen",`+rename)); status != 409 || code(v) != "stale.build" {
		t.Errorf("%d %v", status, v)
	}
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(fmt.Sprintf(`{"base":0,"id":"a","window":"w","build":%q,`, hello["build"])+rename)); status != 200 || v["revision"] != 1.0 {
		t.Errorf("%d %v", status, v)
	}
}

// The quota is said before it is met, holds when it is, and goes by what is there.
func TestTheQuotaIsSaidAndHolds(t *testing.T) {
	sky := demo.Sky()
	s := startWith(t, api.Options{Quota: 12 * int64(len(sky))})
	id := s.project(t)
	_, v := s.ask("GET", "/api/projects", nil)
	if near := v["space"].(map[string]any)["near"]; near != false {
		t.Fatalf("an empty folder: %v", v["space"])
	}
	// Something large lies in the exports.
	file := filepath.Join(s.dir, "exports", "x.mp4")
	if err := os.WriteFile(file, make([]byte, 10*len(sky)), 0o644); err != nil {
		t.Fatal(err)
	}
	_, v = s.ask("GET", "/api/projects", nil)
	if near := v["space"].(map[string]any)["near"]; near != true {
		t.Errorf("nearly full, and not said: %v", v["space"])
	}
	if err := os.WriteFile(file, make([]byte, 13*len(sky)), 0o644); err != nil {
		t.Fatal(err)
	}
	if status, v := s.ask("POST", "/api/media?name=sky.jpg", sky); status != 507 || code(v) != "quota.full" {
		t.Errorf("a picture: %d %v", status, v)
	}
	for path, body := range map[string]string{
		"/exports": `{"format":"gif","height":100,"rate":{"num":10,"den":1}}`, "/duplicate": `{}`, "/stages": `{"name":"full"}`,
		"/commands": `{"base":0,"id":"a","window":"w","command":{"op":"project.rename","name":"Full"}}`,
	} {
		if status, v := s.ask("POST", "/api/projects/"+id+path, []byte(body)); status != 507 || code(v) != "quota.full" {
			t.Errorf("%s: %d %v", path, status, v)
		}
	}
	if err := os.Remove(file); err != nil {
		t.Fatal(err)
	}
	if status, v := s.ask("POST", "/api/media?name=sky.jpg", sky); status != 201 {
		t.Errorf("with room again: %d %v", status, v)
	}
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(`{"base":0,"id":"a","window":"w","command":{"op":"project.rename","name":"Not full"}}`)); status != 200 {
		t.Errorf("the edit that waited: %d %v", status, v)
	}
}

// Other machines may come with the token only; after that the cookie does.
func TestOtherMachinesBringTheToken(t *testing.T) {
	s := startWith(t, api.Options{Token: "a token that is long", Host: "studio.example"})
	visit := func(path, host, cookie string) *http.Response {
		t.Helper()
		r, _ := http.NewRequest("GET", s.url+path, nil)
		r.Host = host
		if cookie != "" {
			name := "capstan-session"
			if _, port, err := net.SplitHostPort(host); err == nil {
				name += "-" + port
			}
			r.AddCookie(&http.Cookie{Name: name, Value: cookie})
		}
		resp, err := http.DefaultTransport.RoundTrip(r)
		if err != nil {
			t.Fatal(err)
		}
		resp.Body.Close()
		return resp
	}
	for _, c := range []struct {
		path, host string
		want       int
	}{
		{"/", "studio.example:80", 401}, {"/?token=", "studio.example", 401}, {"/?token=a+token+that+is+lonh", "192.0.2.7:4870", 401},
		{"/api/projects", "192.0.2.7", 401}, {"/p/x", "192.0.2.7", 401}, {"/?token=a+token+that+is+long", "elsewhere.example", 403},
		{"/?token=a+token+that+is+long", "192.0.2.7:4870", 303}, {"/p/x?token=a+token+that+is+long", "studio.example", 303},
	} {
		if resp := visit(c.path, c.host, ""); resp.StatusCode != c.want || (len(resp.Cookies()) > 0) != (c.want == 303) {
			t.Errorf("%s at %s: %d, %v", c.path, c.host, resp.StatusCode, resp.Cookies())
		} else if c.want == 303 && strings.Contains(resp.Header.Get("Location"), "token") {
			t.Errorf("the token stays in the address: %s", resp.Header.Get("Location"))
		}
	}
	given := visit("/?token=a+token+that+is+long", "192.0.2.7", "").Cookies()[0]
	if !given.HttpOnly || given.SameSite != http.SameSiteStrictMode {
		t.Errorf("the cookie: %+v", given)
	}
	if resp := visit("/api/projects", "192.0.2.7", given.Value); resp.StatusCode != 200 {
		t.Errorf("with the cookie: %d", resp.StatusCode)
	}
	// Of another token, or of none, it opens nothing.
	for _, token := range []string{"", "another token, as long"} {
		old, err := api.SessionCookie(s.dir, "192.0.2.7", token)
		if err != nil {
			t.Fatal(err)
		}
		if resp := visit("/api/projects", "192.0.2.7", old.Value); resp.StatusCode != 401 {
			t.Errorf("with the cookie of %q: %d", token, resp.StatusCode)
		}
	}
	// Two servers on one host have cookies of their own.
	if a, b := visit("/?token=a+token+that+is+long", "192.0.2.7:4870", "").Cookies()[0], visit("/?token=a+token+that+is+long", "192.0.2.7:4871", "").Cookies()[0]; a.Name == b.Name {
		t.Errorf("both are called %s", a.Name)
	}
}

func TestNoAnswerIsServedWithoutItsHeaders(t *testing.T) {
	s := start(t)
	for _, path := range []string{"/healthz", "/api/hello", "/api/nothing", "/", "/mark.svg", "/api/media/" + strings.Repeat("0", 64) + "/0.png"} {
		s.ask("GET", path, nil) // ask looks at the headers
	}
}

func TestWhatOnlyBeginsLikeABundleIsRefused(t *testing.T) {
	s := start(t)
	status, v := s.ask("POST", "/api/bundles", bytes.Repeat([]byte("PK\x03\x04"), 100))
	if status != 422 || code(v) != "bundle.none" {
		t.Errorf("%d %v", status, v)
	}
}

// HEAD is answered as GET is, without a body; folders are not listed, and a script that is not there is not the page.
func TestAnswersThatPagesDoNotAskFor(t *testing.T) {
	s := start(t)
	for _, c := range []struct {
		method, path string
		want         int
	}{
		{"HEAD", "/api/projects", 200}, {"HEAD", "/api/nothing", 404}, {"HEAD", "/healthz", 200}, {"GET", "/assets/", 404}, {"GET", "/assets", 404}, {"GET", "/assets/gone.js", 404}, {"GET", "/gone.png", 404},
		{"GET", "/p/x", 200}, {"PUT", "/api/projects", 404},
	} {
		if status, v := s.ask(c.method, c.path, nil); status != c.want || c.method == "HEAD" && v != nil {
			t.Errorf("%s %s: %d %v", c.method, c.path, status, v)
		}
	}
}

// A body that breaks off is the sender's fault, and said so.
func TestAnUploadThatIsCutShort(t *testing.T) {
	s := start(t)
	host := strings.TrimPrefix(s.url, "http://")
	cookie, err := api.SessionCookie(s.dir, host, "")
	if err != nil {
		t.Fatal(err)
	}
	c, err := net.Dial("tcp", host)
	if err != nil {
		t.Fatal(err)
	}
	defer c.Close()
	fmt.Fprintf(c, "POST /api/media?name=x.png HTTP/1.1\r\nHost: %s\r\nCookie: %s=%s\r\nContent-Length: 5000\r\n\r\nonly this much", host, cookie.Name, cookie.Value)
	c.(*net.TCPConn).CloseWrite()
	raw, _ := io.ReadAll(c)
	if !strings.HasPrefix(string(raw), "HTTP/1.1 400") || !strings.Contains(string(raw), "request.short") {
		t.Errorf("%.300s", raw)
	}
}
