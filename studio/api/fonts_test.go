package api_test

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"io/fs"
	"net/http"
	"testing"

	"capstan/demo/fonttest"
	"capstan/library"
)

// thumbnail reads the picture of a project.
func (s *site) thumbnail(id string) image.Image {
	s.t.Helper()
	r, err := s.c.Get(s.url + "/api/projects/" + id + "/thumbnail.png")
	if err != nil {
		s.t.Fatal(err)
	}
	defer r.Body.Close()
	img, err := png.Decode(r.Body)
	if err != nil {
		s.t.Fatal(err)
	}
	// Asked for again with what came with it, it is not sent again.
	again, err := http.NewRequest("GET", r.Request.URL.String(), nil)
	if err != nil {
		s.t.Fatal(err)
	}
	again.Header.Set("If-None-Match", r.Header.Get("ETag"))
	if same, err := s.c.Do(again); err != nil || same.StatusCode != http.StatusNotModified {
		s.t.Errorf("a thumbnail that is there is sent again: %v %v", same, err)
	}
	return img
}

func unlike(a, b image.Image) (n int) {
	for y := range a.Bounds().Dy() {
		for x := range a.Bounds().Dx() {
			if a.At(x, y) != b.At(x, y) {
				n++
			}
		}
	}
	return n
}

// A font that is taken in sets the words of its project, here and when its bundle is brought in elsewhere: as the family does whose letters
// it has. Another project with a font of the same name keeps its own.
func TestAFontOfOnesOwnSetsItsProject(t *testing.T) {
	s := start(t)
	status, v := s.ask("POST", "/api/fonts?name=quill.ttf", fonttest.Quill(t, 0))
	if status != 201 {
		t.Fatalf("%d %v", status, v)
	}
	hash := v["hash"].(string)
	facts := v["media"].(map[string]any)
	if facts["family"] != "Quilly" || facts["weight"] != 400.0 || facts["type"] != "font/ttf" || facts["stays"] != nil {
		t.Fatalf("taken in as %v", facts)
	}
	made := func(family string, own bool) string {
		id := s.project(t)
		media := ""
		if own {
			media = fmt.Sprintf(`{"op":"media.add","hash":%q,"media":{"name":"quill.ttf","type":"font/ttf","bytes":1,"family":"Quilly","weight":400}},`, hash)
		}
		add := fmt.Sprintf(`{"base":0,"id":"a","window":"w","command":{"op":"batch","commands":[%s{"op":"layer.add","scene":%q,"layers":[
			{"id":"a","thread":"a","name":"a","kind":"text","opacity":1,"fill":{"kind":"colour","colour":"#ff0000"},"place":{"x":300,"y":200},
			"text":{"align":"centre","runs":[{"text":"Kite Day","family":%q,"weight":400,"size":120}]}}]}]}}`, media, s.scene(id), family)
		if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(add)); status != 200 {
			t.Fatalf("%d %v", status, v)
		}
		return id
	}
	mine := made("Quilly", true)
	like, other := s.thumbnail(made("Bungee", false)), s.thumbnail(made("Quilly", false))
	if n := unlike(s.thumbnail(mine), like); n > 0 {
		t.Errorf("%d pixels are not as the same letters make them", n)
	}
	if n := unlike(s.thumbnail(mine), other); n < 500 {
		t.Error("a project without the font has it, too")
	}
	r, err := s.c.Get(s.url + "/api/projects/" + mine + "/bundle")
	if err != nil {
		t.Fatal(err)
	}
	var bundle bytes.Buffer
	if _, err := bundle.ReadFrom(r.Body); err != nil {
		t.Fatal(err)
	}
	r.Body.Close()
	elsewhere := start(t)
	status, v = elsewhere.ask("POST", "/api/bundles", bundle.Bytes())
	if status != 201 {
		t.Fatalf("%d %v", status, v)
	}
	if n := unlike(elsewhere.thumbnail(v["id"].(string)), like); n > 0 {
		t.Errorf("elsewhere, %d pixels differ", n)
	}
	font, err := elsewhere.c.Get(elsewhere.url + "/api/media/" + hash + "/font")
	if err != nil {
		t.Fatal(err)
	}
	defer font.Body.Close()
	if font.StatusCode != http.StatusOK || font.Header.Get("Content-Type") != "font/ttf" || font.Header.Get("X-Content-Type-Options") != "nosniff" {
		t.Errorf("%d %v", font.StatusCode, font.Header)
	}
}

// A font whose maker allows that it is shown alone is used here and left out of bundles; one that may not be in documents is refused.
func TestWhatAMakerAllowsIsKept(t *testing.T) {
	s := start(t)
	if status, v := s.ask("POST", "/api/fonts?name=quill.ttf", fonttest.Quill(t, 2)); status != 422 || code(v) != "font.restricted" {
		t.Errorf("%d %v", status, v)
	}
	_, v := s.ask("POST", "/api/fonts?name=quill.ttf", fonttest.Quill(t, 4))
	hash := v["hash"].(string)
	if v["media"].(map[string]any)["stays"] != true {
		t.Fatalf("taken in as %v", v)
	}
	id := s.project(t)
	add := fmt.Sprintf(`{"base":0,"id":"a","window":"w","command":{"op":"media.add","hash":%q,"media":{"name":"quill.ttf","type":"font/ttf","bytes":1,"family":"Quilly","weight":400,"stays":true}}}`, hash)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(add)); status != 200 {
		t.Fatalf("%d %v", status, v)
	}
	r, err := s.c.Get(s.url + "/api/projects/" + id + "/bundle")
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	var bundle bytes.Buffer
	if _, err := bundle.ReadFrom(r.Body); err != nil {
		t.Fatal(err)
	}
	if bytes.Contains(bundle.Bytes(), []byte("media/"+hash)) {
		t.Error("the bundle has the font")
	}
	elsewhere := start(t)
	if status, v := elsewhere.ask("POST", "/api/bundles", bundle.Bytes()); status != 201 {
		t.Errorf("without it, it is refused: %d %v", status, v)
	}
	if status, v := elsewhere.ask("GET", "/api/media/"+hash+"/font", nil); status != 404 || code(v) != "font.gone" {
		t.Errorf("%d %v", status, v)
	}
}

// One that is called as a family that ships stands beside it.
func TestAFontCalledAsOneThatShips(t *testing.T) {
	s := start(t)
	data, err := fs.ReadFile(library.Fonts(), "bungee-latin-400-normal.woff")
	if err != nil {
		t.Fatal(err)
	}
	if status, v := s.ask("POST", "/api/fonts?name=b.woff", data); status != 201 || v["media"].(map[string]any)["family"] != "Bungee, own" {
		t.Errorf("%d %v", status, v)
	}
}

func TestWhatIsNoFontIsRefusedInWords(t *testing.T) {
	s := start(t)
	quill := fonttest.Quill(t, 0)
	for name, c := range map[string]struct {
		data []byte
		code string
		want int
	}{
		"words":     {[]byte("bring a long tail to the quay"), "font.kind", 422},
		"cut short": {quill[:len(quill)/2], "font.damaged", 422},
		"WOFF2":     {append([]byte("wOF2"), quill...), "font.woff2", 422},
		"endless":   {make([]byte, 31<<20), "font.too-large", 413},
	} {
		if status, v := s.ask("POST", "/api/fonts?name=x.ttf", c.data); status != c.want || code(v) != c.code {
			t.Errorf("%s: %d %v", name, status, v)
		}
	}
	if status, v := s.ask("POST", "/api/media?name=x.ttf", quill); status != 422 || code(v) != "picture.kind" {
		t.Errorf("as a picture: %d %v", status, v)
	}
	_, v := s.ask("POST", "/api/fonts?name=x.ttf", quill)
	if status, v := s.ask("GET", "/api/media/"+v["hash"].(string)+"/0.png", nil); status != 404 {
		t.Errorf("a font as a picture: %d %v", status, v)
	}
}
