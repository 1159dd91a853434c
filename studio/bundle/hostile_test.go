package bundle_test

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/demo"
	"capstan/studio/bundle"
	"capstan/studio/media"
)

type entry struct {
	name string
	data []byte
}

// zipped packs entries as they are named, with the media type first.
func zipped(t testing.TB, entries ...entry) []byte {
	t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, e := range append([]entry{{"mimetype", []byte(bundle.MediaType)}}, entries...) {
		w, err := z.CreateHeader(&zip.FileHeader{Name: e.name, Method: zip.Deflate})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := w.Write(e.data); err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func document(t testing.TB) entry {
	t.Helper()
	raw, err := doc.NewProject("p", "Plain", 320, 240, "s").Write()
	if err != nil {
		t.Fatal(err)
	}
	return entry{"project.json", raw}
}

// refusedAs reads a bundle in a folder of its own, expects the fault of a key, and that nothing was written around it.
func refusedAs(t *testing.T, raw []byte, key string) {
	t.Helper()
	dir := t.TempDir()
	inside := filepath.Join(dir, "a", "b", "media")
	if err := os.MkdirAll(inside, 0o755); err != nil {
		t.Fatal(err)
	}
	_, err := bundle.Read(context.Background(), bytes.NewReader(raw), int64(len(raw)), media.NewFolder(inside))
	if !words.Is(err, key) {
		t.Errorf("got %v, want %s", err, key)
	}
	for _, f := range []string{dir, filepath.Join(dir, "a"), filepath.Join(dir, "a", "b")} {
		if list, _ := os.ReadDir(f); len(list) != 1 {
			t.Errorf("%s holds %v", f, list)
		}
	}
}

func TestABundleGoesRoundByteForByte(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	hash, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	var first bytes.Buffer
	if err := bundle.Write(&first, demo.Opener(hash, facts), files); err != nil {
		t.Fatal(err)
	}
	elsewhere := media.NewFolder(t.TempDir())
	p, err := bundle.Read(context.Background(), bytes.NewReader(first.Bytes()), int64(first.Len()), elsewhere)
	if err != nil {
		t.Fatal(err)
	}
	var second bytes.Buffer
	if err := bundle.Write(&second, p, elsewhere); err != nil {
		t.Fatal(err)
	}
	if !bytes.Equal(first.Bytes(), second.Bytes()) {
		t.Errorf("%d bytes became %d others", first.Len(), second.Len())
	}
}

func TestNamesThatLeadUpwardsAreRefused(t *testing.T) {
	refusedAs(t, zipped(t, document(t), entry{"media/../../escaped.png", []byte("x")}), "bundle.absolute")
}

func TestAbsoluteNamesAreRefused(t *testing.T) {
	refusedAs(t, zipped(t, document(t), entry{"/tmp/escaped.png", []byte("x")}), "bundle.absolute")
}

func TestNamesWithBackslashesAreRefused(t *testing.T) {
	refusedAs(t, zipped(t, document(t), entry{`..\escaped.png`, []byte("x")}), "bundle.absolute")
}

func TestAHundredThousandEntriesAreRefused(t *testing.T) {
	list := []entry{document(t)}
	for i := range 100_000 {
		list = append(list, entry{fmt.Sprintf("media/%d", i), nil})
	}
	refusedAs(t, zipped(t, list...), "bundle.entries")
}

func TestCutJSONIsRefused(t *testing.T) {
	whole := document(t).data
	for n := 1; n < len(whole); n += max(1, len(whole)/40) {
		refusedAs(t, zipped(t, entry{"project.json", whole[:n]}), "bundle.document")
	}
}

func TestACutBundleIsRefused(t *testing.T) {
	raw := packed(t)
	for n := 0; n < len(raw); n += len(raw)/25 + 1 {
		refusedAs(t, raw[:n], "bundle.none")
	}
}

func TestAWrongHashIsRefused(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	hash, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	p := demo.Opener(hash, facts)
	raw, _ := p.Write()
	other := strings.Repeat("0", 64)
	raw = bytes.ReplaceAll(raw, []byte(hash), []byte(other))
	refused := zipped(t, entry{"project.json", raw}, entry{"media/" + other + ".jpg", demo.Sky()})
	_, err = bundle.Read(context.Background(), bytes.NewReader(refused), int64(len(refused)), media.NewFolder(t.TempDir()))
	if !words.Is(err, "bundle.lies") {
		t.Errorf("got %v", err)
	}
}

func TestADocumentThatUnpacksWithoutEndIsRefused(t *testing.T) {
	refusedAs(t, zipped(t, entry{"project.json", bytes.Repeat([]byte(" "), bundle.MaxDocument+1)}), "bundle.part-too-large")
}

func TestADocumentThatNestsWithoutEndIsRefused(t *testing.T) {
	refusedAs(t, zipped(t, entry{"project.json", bytes.Repeat([]byte("["), 1<<20)}), "bundle.document")
}

func TestANewerDocumentIsRefusedInWords(t *testing.T) {
	d := document(t)
	d.data = bytes.Replace(d.data, []byte(`"version":2`), []byte(`"version":99`), 1)
	raw := zipped(t, d)
	if _, err := bundle.Read(context.Background(), bytes.NewReader(raw), int64(len(raw)), media.NewFolder(t.TempDir())); err == nil || !strings.Contains(err.Error(), "newer") {
		t.Errorf("got %v", err)
	}
}

// Whatever comes as a bundle is read whole or refused in words; what was read can be written and read again.
func FuzzBundle(f *testing.F) {
	f.Add(zipped(f, document(f)))
	f.Add(zipped(f, entry{"project.json", []byte(`{"version":1}`)}))
	f.Add(zipped(f, document(f), entry{"media/" + strings.Repeat("a", 64) + ".png", []byte("no picture")}))
	f.Add([]byte("PK\x05\x06" + strings.Repeat("\x00", 18)))
	f.Fuzz(func(t *testing.T, raw []byte) {
		files := media.NewFolder(t.TempDir())
		p, err := bundle.Read(context.Background(), bytes.NewReader(raw), int64(len(raw)), files)
		if err != nil {
			if err.Error() == "" {
				t.Error("refused without words")
			}
			return
		}
		var b bytes.Buffer
		if err := bundle.Write(&b, p, files); err != nil {
			t.Fatalf("what was read cannot be written: %v", err)
		}
		q, err := bundle.Read(context.Background(), bytes.NewReader(b.Bytes()), int64(b.Len()), files)
		if err != nil {
			t.Fatalf("what was written cannot be read: %v", err)
		}
		x, _ := p.Write()
		y, _ := q.Write()
		if !bytes.Equal(x, y) {
			t.Error("a round trip gives another document")
		}
	})
}
