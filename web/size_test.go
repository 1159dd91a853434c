package web

import (
	"io/fs"
	"path"
	"strings"
	"testing"
)

// What a browser loads stays small: by brotli the engine up to 2.95 MB (65 KB of which are sound), scripts and styles up to 0.28 MB.
func TestWhatIsLoadedStaysSmall(t *testing.T) {
	sizes := map[string]int{}
	err := fs.WalkDir(Files(), ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		raw, err := fs.ReadFile(Files(), name)
		if err != nil {
			return err
		}
		if kind := path.Ext(name); kind == ".br" { // all of it was compressed when it was built
			kind = path.Ext(strings.TrimSuffix(name, kind))
			if kind == ".css" {
				kind = ".js"
			}
			sizes[kind] += len(raw)
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	t.Logf("engine %.2f MB, scripts and styles %.2f MB", float64(sizes[".wasm"])/1e6, float64(sizes[".js"])/1e6)
	for kind, limit := range map[string]int{".wasm": 2_950_000, ".js": 280_000} {
		if n := sizes[kind]; n > limit || n == 0 {
			t.Errorf("%s files: %d bytes compressed, at most %d", kind, n, limit)
		}
	}
}
