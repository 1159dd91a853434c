package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"capstan/core/frame"
	"capstan/demo"
	"capstan/library"
	"capstan/studio/api"
	"capstan/studio/store"
)

type site struct {
	t   *testing.T
	url string
	c   *http.Client
	api *api.Server
	dir string
}

func start(t *testing.T) *site { return startWith(t, api.Options{}) }

func startWith(t *testing.T, o api.Options) *site {
	t.Helper()
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	dir := t.TempDir()
	s, err := store.Open(dir, frame.Assets{Fonts: b})
	if err != nil {
		t.Fatal(err)
	}
	server, err := api.New(s, o)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return served(t, server, dir, o.Token)
}

// served is a browser in front of a server on a data folder.
func served(t *testing.T, server *api.Server, dir, token string) *site {
	t.Helper()
	h := httptest.NewServer(server.Handler())
	t.Cleanup(h.Close)
	jar, _ := cookiejar.New(nil)
	v := &site{t, h.URL, &http.Client{Jar: jar}, server, dir}
	cookie, err := api.SessionCookie(dir, strings.TrimPrefix(h.URL, "http://"), token)
	if err != nil {
		t.Fatal(err)
	}
	v.c.Transport = withCookie{cookie}
	return v
}

// withCookie is a browser that has loaded the page.
type withCookie struct{ cookie *http.Cookie }

func (w withCookie) RoundTrip(r *http.Request) (*http.Response, error) {
	if r.Header.Get("No-Cookie") == "" {
		own := *w.cookie
		own.Name = "capstan-session"
		if _, port, err := net.SplitHostPort(r.Host); err == nil {
			own.Name += "-" + port
		}
		r.AddCookie(&own)
	}
	return http.DefaultTransport.RoundTrip(r)
}

func (s *site) ask(method, path string, body []byte, headers ...string) (int, map[string]any) {
	s.t.Helper()
	r, err := http.NewRequest(method, s.url+path, bytes.NewReader(body))
	if err != nil {
		s.t.Fatal(err)
	}
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			r.Host = headers[i+1]
		} else {
			r.Header.Set(headers[i], headers[i+1])
		}
	}
	resp, err := s.c.Do(r)
	if err != nil {
		s.t.Fatal(err)
	}
	defer resp.Body.Close()
	raw, _ := io.ReadAll(resp.Body)
	var v map[string]any
	json.Unmarshal(raw, &v)
	if resp.Header.Get("X-Content-Type-Options") != "nosniff" || !strings.Contains(resp.Header.Get("Content-Security-Policy"), "default-src 'none'") {
		s.t.Errorf("%s %s comes without its headers", method, path)
	}
	return resp.StatusCode, v
}

func code(v map[string]any) string {
	e, _ := v["error"].(map[string]any)
	return fmt.Sprint(e["code"])
}

func TestOnlyThePageItselfIsAnswered(t *testing.T) {
	s := start(t)
	for _, c := range []struct {
		headers []string
		status  int
		code    string
	}{
		{nil, 200, "<nil>"},
		{[]string{"No-Cookie", "1"}, 401, "session"},
		{[]string{"Host", "capstan.example"}, 403, "request.host"},
		{[]string{"Host", "127.0.0.1.example:80"}, 403, "request.host"},
		{[]string{"Origin", "http://elsewhere.example"}, 403, "request.origin"},
		{[]string{"Origin", "null"}, 403, "request.origin"},
		{[]string{"Origin", s.url}, 200, "<nil>"},
	} {
		if status, v := s.ask("GET", "/api/projects", nil, c.headers...); status != c.status || code(v) != c.code {
			t.Errorf("%v: %d %v, want %d %s", c.headers, status, v, c.status, c.code)
		}
	}
	if status, v := s.ask("GET", "/api/media/"+strings.Repeat("a", 64)+"/0.png", nil, "Host", "elsewhere"); status != 403 {
		t.Errorf("media: %d %v", status, v)
	}
}

func (s *site) project(t *testing.T) string {
	t.Helper()
	status, v := s.ask("POST", "/api/projects", []byte(`{"name":"Reel","width":270,"height":480}`))
	if status != 201 {
		t.Fatalf("%d %v", status, v)
	}
	return v["id"].(string)
}

// scene returns the id of a project's first scene.
func (s *site) scene(id string) string {
	_, v := s.ask("GET", "/api/projects/"+id, nil)
	return v["document"].(map[string]any)["film"].(map[string]any)["scenes"].([]any)[0].(map[string]any)["id"].(string)
}

func TestBadInputIsAnsweredInWordsAndLosesNothing(t *testing.T) {
	s := start(t)
	id := s.project(t)
	for _, c := range []struct {
		method, path, body string
		status             int
		words              string
	}{
		{"POST", "/api/projects", `{"name":"x","width":9,"height":480}`, 422, "width is 9; it must be 16 to 8192"},
		{"POST", "/api/projects", `{"name":`, 400, "cannot be read"},
		{"POST", "/api/projects", `{"nom":"x"}`, 400, "unknown field"},
		{"POST", "/api/projects/" + id + "/commands", `{"base":0,"command":{"op":"scene.delete","ids":["` + s.scene(id) + `"]}}`, 422, "at least one scene"},
		{"POST", "/api/projects/" + id + "/commands", `{"base":0,"command":{"op":"scene.delete","ids":["a","b"]}}`, 422, "no longer there"},
		{"POST", "/api/projects/" + id + "/commands", `{"base":5,"command":{"op":"project.rename","name":"x"}}`, 409, "another window"},
		{"POST", "/api/projects/" + id + "/commands", `{"base":0,"command":{"op":"dance"}}`, 422, "no command"},
		{"POST", "/api/projects/" + id + "/commands", `{"base":0,"command":{"op":"batch","commands":[{"op":"layer.add","scene":"` + s.scene(id) + `","layers":[{"id":"l","thread":"l","name":"l","kind":"ellipse","opacity":1,"fill":{"kind":"none"},"place":{"x":0,"y":0},"moves":[{"id":"m","kind":"loop","effect":"spin","lasts":"scene","duration":900,"start":{"when":"at"}}]}]},{"op":"move.add","layer":"l","move":{"id":"n","kind":"exit","effect":"fade","duration":300,"start":{"when":"ends","of":"m"}}}]}}`, 422, "lasts the whole scene"},
		{"GET", "/api/projects/nobody", "", 404, "no such project"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"avi","height":100,"rate":{"num":30,"den":1}}`, 400, "does not make"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"gif","height":1,"rate":{"num":30,"den":1}}`, 400, "height"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"gif","height":100,"rate":{"num":1,"den":0}}`, 400, "rate"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"mp4","height":100,"rate":{"num":276701161105643280,"den":9223372036854776}}`, 400, "rate"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"gif","height":100,"rate":{"num":1,"den":1001}}`, 400, "rate"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"mp4","height":8192,"rate":{"num":30,"den":1}}`, 400, "more than Capstan exports"},
		{"POST", "/api/projects/" + id + "/exports", `{"format":"png","height":100,"rate":{"num":30,"den":1},"from":99999}`, 400, "within the film"},
		{"PATCH", "/api/projects/" + id, `{"name":"  "}`, 422, "needs a name"},
		{"POST", "/api/projects/" + id + "/restore", ``, 404, "no such project"},
		{"DELETE", "/api/projects/" + id + "?forgood=1", ``, 404, "in the bin"},
		{"POST", "/api/media?name=x.png", "no picture", 422, "no picture that can be taken in"},
		{"POST", "/api/bundles", "no zip", 422, "no Capstan bundle"},
		{"GET", "/api/fonts/..%2F..%2Fgo.mod", "", 404, "nothing at this address"},
		{"GET", "/api/media/xx/0.png", "", 404, "is missing"},
		{"POST", "/elsewhere", "", 404, "nothing at this address"},
	} {
		status, v := s.ask(c.method, c.path, []byte(c.body))
		if status != c.status || !strings.Contains(fmt.Sprint(v["error"]), c.words) {
			t.Errorf("%s %s %s: %d %v", c.method, c.path, c.body, status, v)
		}
	}
	big := append([]byte(`{"name":"`), bytes.Repeat([]byte("x"), 2<<20)...)
	if status, v := s.ask("POST", "/api/projects", big); status != 413 {
		t.Errorf("a large body: %d %v", status, v)
	}
	if _, v := s.ask("GET", "/api/projects/"+id, nil); v["revision"] != 0.0 {
		t.Errorf("something was changed: %v", v["revision"])
	}
}

func TestExportsAreQueuedReportedAndDownloaded(t *testing.T) {
	s := start(t)
	id := s.project(t)
	go s.api.Queue().Run(t.Context())
	var ids []string
	for _, f := range []string{"gif", "mp4", "png"} {
		status, v := s.ask("POST", "/api/projects/"+id+"/exports", []byte(`{"format":"`+f+`","height":120,"rate":{"num":10,"den":1}}`))
		if status != 201 {
			t.Fatalf("%d %v", status, v)
		}
		ids = append(ids, v["id"].(string))
	}
	for end := time.Now().Add(30 * time.Second); ; time.Sleep(50 * time.Millisecond) {
		_, v := s.ask("GET", "/api/projects/"+id+"/exports", nil)
		done := 0
		for _, e := range v["exports"].([]any) {
			if e.(map[string]any)["state"] == "done" {
				done++
			}
		}
		if done == 3 {
			break
		}
		if time.Now().After(end) {
			t.Fatalf("not done: %v", v)
		}
	}
	for i, magic := range []string{"GIF89a", "ftyp", "PNG"} {
		r, err := s.c.Get(s.url + "/api/exports/" + ids[i] + "/file")
		if err != nil {
			t.Fatal(err)
		}
		head := make([]byte, 12)
		io.ReadFull(r.Body, head)
		r.Body.Close()
		if !strings.Contains(string(head), magic) || !strings.HasPrefix(r.Header.Get("Content-Disposition"), "attachment") {
			t.Errorf("%s: %q, %s", ids[i], head, r.Header.Get("Content-Disposition"))
		}
	}
	if status, _ := s.ask("DELETE", "/api/exports/"+ids[0], nil); status != 204 {
		t.Errorf("deleting: %d", status)
	}
	if status, _ := s.ask("GET", "/api/exports/"+ids[0]+"/file", nil); status != 404 {
		t.Errorf("a deleted export: %d", status)
	}
}

func TestBundlesGoOutAndComeInAsProjectsOfTheirOwn(t *testing.T) {
	s := start(t)
	status, v := s.ask("POST", "/api/media?name=sky.jpg", demo.Sky())
	if status != 201 {
		t.Fatalf("%d %v", status, v)
	}
	id := s.project(t)
	m, _ := json.Marshal(v["media"])
	s.ask("POST", "/api/projects/"+id+"/commands", []byte(fmt.Sprintf(`{"base":0,"id":"a","window":"w","command":{"op":"media.add","hash":%q,"media":%s}}`, v["hash"], m)))
	r, err := s.c.Get(s.url + "/api/projects/" + id + "/bundle")
	if err != nil {
		t.Fatal(err)
	}
	raw, _ := io.ReadAll(r.Body)
	r.Body.Close()
	status, in := s.ask("POST", "/api/bundles", raw)
	if status != 201 || in["id"] == id || in["name"] != "Reel" {
		t.Fatalf("%d %v", status, in)
	}
	_, doc := s.ask("GET", "/api/projects/"+in["id"].(string), nil)
	media := doc["document"].(map[string]any)["media"].(map[string]any)
	if media[v["hash"].(string)] == nil {
		t.Errorf("media %v", media)
	}
}
