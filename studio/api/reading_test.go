package api_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/frame"
	"capstan/core/text"
	"capstan/studio/api"
	"capstan/studio/store"
)

// A data folder that may not be written to is looked at: what is there opens, what would change it is refused in words, and no file of it changes.
func TestAFolderThatIsOnlyRead(t *testing.T) {
	s := start(t)
	id := s.project(t)
	command := []byte(`{"base":0,"id":"a","window":"w","command":{"op":"project.rename","name":"Written"}}`)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", command); status != 200 {
		t.Fatal(status, v)
	}
	files := func() string {
		var b strings.Builder
		filepath.WalkDir(s.dir, func(path string, d os.DirEntry, err error) error {
			if info, e := d.Info(); err == nil && e == nil && !strings.HasSuffix(path, "-shm") {
				b.WriteString(path + info.ModTime().String() + "\n")
			}
			return err
		})
		return b.String()
	}
	before := files()
	r, err := store.OpenToRead(s.dir, frame.Assets{Fonts: &text.Book{}})
	if err != nil {
		t.Fatal(err)
	}
	defer r.Close()
	server, err := api.New(r, api.Options{})
	if err != nil {
		t.Fatal(err)
	}
	only := served(t, server, s.dir, "")
	if status, v := only.ask("GET", "/api/projects/"+id, nil); status != 200 || v["revision"] != 1.0 {
		t.Errorf("reading: %d %v", status, v)
	}
	if status, _ := only.ask("GET", "/api/projects/"+id+"/thumbnail.png", nil); status != 200 {
		t.Errorf("a thumbnail: %d", status)
	}
	if status, _ := only.ask("GET", "/api/projects/"+id+"/bundle", nil); status != 200 {
		t.Errorf("a bundle: %d", status)
	}
	for path, body := range map[string]string{"/api/projects": `{"name":"x","width":320,"height":240}`, "/api/projects/" + id + "/commands": strings.Replace(string(command), `"base":0`, `"base":1`, 1), "/api/media?name=x": "x"} {
		if status, v := only.ask("POST", path, []byte(body)); status != 503 || code(v) != "data.read-only" {
			t.Errorf("%s: %d %v", path, status, v)
		}
	}
	if after := files(); after != before {
		t.Errorf("files changed:\n%s\n%s", before, after)
	}
}
