package api_test

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"
)

// Drawings come in packed or not; one that is endless when it is unpacked is refused soon, in words. What goes out is an SVG to be saved, of moments and layers
// that there are.
func TestDrawingsComeInAndGoOut(t *testing.T) {
	s := start(t)
	_, made := s.ask("POST", "/api/projects", []byte(`{"name":"Drawn","width":400,"height":300}`))
	id := made["id"].(string)
	pack := func(text string, n int64) []byte {
		var b bytes.Buffer
		z := gzip.NewWriter(&b)
		io.Copy(z, io.LimitReader(&endless{begin: strings.NewReader(text)}, n))
		z.Close()
		return b.Bytes()
	}
	const small = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><rect id="Sail" width="40" height="30" fill="#d8573a"/></svg>`
	for name, of := range map[string]struct {
		body []byte
		code string
	}{
		"packed":      {pack(small, int64(len(small))), "<nil>"},
		"as it is":    {[]byte(small), "<nil>"},
		"a bomb":      {pack(`<svg xmlns="http://www.w3.org/2000/svg"><!--`, 1<<30), "drawing.large"},
		"half packed": {pack(small, int64(len(small)))[:40], "drawing.damaged"},
		"no SVG":      {[]byte("hello"), "drawing.none"},
	} {
		at := time.Now()
		status, v := s.ask("POST", "/api/projects/"+id+"/drawings?name=Sail", of.body)
		if code(v) != of.code || of.code != "<nil>" && status != http.StatusUnprocessableEntity && status != http.StatusRequestEntityTooLarge {
			t.Errorf("%s: %d %s, %v", name, status, code(v), v)
		}
		if took := time.Since(at); took > 5*time.Second {
			t.Errorf("%s takes %v", name, took)
		}
	}
	out := func(ask string) (int, string) {
		r, err := s.c.Post(s.url+"/api/projects/"+id+"/svg", "application/json", strings.NewReader(ask))
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		raw, _ := io.ReadAll(r.Body)
		if r.StatusCode == http.StatusOK && (r.Header.Get("Content-Type") != "image/svg+xml" || !strings.HasPrefix(r.Header.Get("Content-Disposition"), "attachment")) {
			t.Errorf("it comes as %s, %s", r.Header.Get("Content-Type"), r.Header.Get("Content-Disposition"))
		}
		var v map[string]any
		json.Unmarshal(raw, &v)
		if c := code(v); c != "<nil>" {
			return r.StatusCode, c
		}
		return r.StatusCode, string(raw)
	}
	for ask, want := range map[string]string{
		`{"scene":0}`:                      `viewBox="0 0 400 300"`,
		`{"scene":0,"at":-5}`:              `viewBox="0 0 400 300"`,
		`{"scene":0,"at":999999999999}`:    `viewBox="0 0 400 300"`,
		`{"scene":7}`:                      "scene.gone",
		`{"scene":-1}`:                     "scene.gone",
		`{"scene":0,"threads":["nobody"]}`: "drawing.unseen",
	} {
		if status, is := out(ask); !strings.Contains(is, want) || (status == 200) != strings.Contains(want, "viewBox") {
			t.Errorf("%s: %d %.200s", ask, status, is)
		}
	}
}
