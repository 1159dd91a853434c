package bundle_test

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"io"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/demo"
	"capstan/studio/bundle"
	"capstan/studio/media"
)

func packed(t *testing.T) []byte {
	t.Helper()
	files := media.NewFolder(t.TempDir())
	hash, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if err := bundle.Write(&b, demo.Opener(hash, facts), files); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func read(t *testing.T, raw []byte) (*doc.Project, error) {
	t.Helper()
	return bundle.Read(context.Background(), bytes.NewReader(raw), int64(len(raw)), media.NewFolder(t.TempDir()))
}

func TestABundleComesBackWhole(t *testing.T) {
	raw := packed(t)
	p, err := read(t, raw)
	if err != nil {
		t.Fatal(err)
	}
	var hash string
	var facts *doc.Media
	for hash, facts = range p.Media {
	}
	a, _ := p.Write()
	b, _ := demo.Opener(hash, facts).Write()
	if !bytes.Equal(a, b) {
		t.Error("the document has changed on the way")
	}
	// The media type stands first and uncompressed, so that the file can be told by its first bytes.
	if !bytes.Contains(raw[:80], []byte("mimetype"+bundle.MediaType)) {
		t.Errorf("it begins %q", raw[:80])
	}
}

// again writes the bundle anew with every entry passed through change; an empty result leaves it out.
func again(t *testing.T, raw []byte, change func(name string, data []byte) []byte) []byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range z.File {
		r, _ := f.Open()
		data, _ := io.ReadAll(r)
		if data = change(f.Name, data); len(data) > 0 {
			e, _ := w.Create(f.Name)
			e.Write(data)
		}
	}
	w.Close()
	return b.Bytes()
}

func TestBrokenBundlesAreRefusedInWords(t *testing.T) {
	raw := packed(t)
	for say, bad := range map[string][]byte{
		"no Capstan bundle":        []byte("hello"),
		"no project.json":          again(t, raw, func(n string, d []byte) []byte { return when(n != "project.json", d) }),
		"lacks the file “sky.jpg”": again(t, raw, func(n string, d []byte) []byte { return when(!strings.HasPrefix(n, "media/"), d) }),
		"is not the file it says it is": again(t, raw, func(n string, d []byte) []byte {
			return when(true, append(d, when(strings.HasPrefix(n, "media/"), []byte{0})...))
		}),
		"opacity": again(t, raw, func(n string, d []byte) []byte {
			return bytes.Replace(d, []byte(`"opacity":0.86`), []byte(`"opacity":8`), 1)
		}),
		"the document cannot be read": again(t, raw, func(n string, d []byte) []byte { return bytes.Replace(d, []byte(`"name":`), []byte(`"name";`), 1) }),
		"newer Capstan": again(t, raw, func(n string, d []byte) []byte {
			return bytes.Replace(d, []byte(`"version":2`), []byte(`"version":7`), 1)
		}),
	} {
		_, err := read(t, bad)
		if err == nil || !strings.Contains(err.Error(), say) {
			t.Errorf("want words about %q, got %v", say, err)
		}
		var refused *words.Fault
		var invalid *doc.Invalid
		if !errors.As(err, &refused) && !errors.As(err, &invalid) {
			t.Errorf("%v is no refusal", err)
		}
	}
}

func when(keep bool, d []byte) []byte {
	if keep {
		return d
	}
	return nil
}
