package web

import (
	"bytes"
	"compress/gzip"
	"io/fs"
	"path"
	"strings"
	"testing"
)

// What a browser loads stays small: the engine up to 2.6 MB gzipped, scripts and styles up to 0.4 MB.
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
		kind := path.Ext(name)
		if kind == ".gz" { // compressed when it was built
			sizes[path.Ext(strings.TrimSuffix(name, ".gz"))] += len(raw)
			return nil
		}
		if kind == ".css" {
			kind = ".js"
		}
		var b bytes.Buffer
		z, err := gzip.NewWriterLevel(&b, gzip.BestCompression)
		if err != nil {
			return err
		}
		z.Write(raw)
		if err := z.Close(); err != nil {
			return err
		}
		sizes[kind] += b.Len()
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	t.Logf("engine %.2f MB, scripts and styles %.2f MB gzipped", float64(sizes[".wasm"])/1e6, float64(sizes[".js"])/1e6)
	for kind, limit := range map[string]int{".wasm": 2_600_000, ".js": 400_000} {
		if n := sizes[kind]; n > limit || n == 0 {
			t.Errorf("%s files: %d bytes gzipped, at most %d", kind, n, limit)
		}
	}
}
