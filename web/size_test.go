package web

import (
	"bytes"
	"compress/gzip"
	"io/fs"
	"path"
	"strings"
	"testing"
)

// What a browser loads stays small: the engine up to 2.8 MB by brotli, scripts and styles up to 0.3 MB gzipped.
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
		switch kind { // compressed when it was built
		case ".br":
			sizes[path.Ext(strings.TrimSuffix(name, ".br"))] += len(raw)
			return nil
		case ".gz": // for who does not take the other
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
	t.Logf("engine %.2f MB, scripts and styles %.2f MB", float64(sizes[".wasm"])/1e6, float64(sizes[".js"])/1e6)
	for kind, limit := range map[string]int{".wasm": 2_860_000, ".js": 300_000} {
		if n := sizes[kind]; n > limit || n == 0 {
			t.Errorf("%s files: %d bytes compressed, at most %d", kind, n, limit)
		}
	}
}
