package typeface_test

import (
	"bytes"
	"encoding/binary"
	"io/fs"
	"math/rand/v2"
	"slices"
	"testing"

	"capstan/core/typeface"
	"capstan/core/words"
	"capstan/library"

	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
)

func shipped(t testing.TB, name string) []byte {
	t.Helper()
	data, err := fs.ReadFile(library.Fonts(), name)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

func taken(t testing.TB, data []byte) *typeface.File {
	t.Helper()
	f, err := typeface.Take(data)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// Written anew a font has the letters, advances and name it had; taken in again it stays the same to the byte.
func TestFontsKeepTheirLetters(t *testing.T) {
	seen := map[string]bool{}
	for _, s := range library.FontFiles() {
		if seen[s.Family] {
			continue
		}
		seen[s.Family] = true
		data := shipped(t, s.File)
		f := taken(t, data)
		if f.Weight != s.Weight || f.Italic || f.Stays || f.Type != "font/ttf" && f.Type != "font/otf" {
			t.Errorf("%s: taken in as %s %d, italic %v, stays %v", s.File, f.Type, f.Weight, f.Italic, f.Stays)
		}
		if again := taken(t, f.Data); !bytes.Equal(again.Data, f.Data) || again.Family != f.Family {
			t.Errorf("%s: another file when it is taken in again", s.File)
		}
		was, err := font.ParseTTF(bytes.NewReader(data))
		if err != nil {
			t.Fatal(err)
		}
		now, err := font.ParseTTF(bytes.NewReader(f.Data))
		if err != nil {
			t.Fatal(err)
		}
		for r := rune(0x20); r < 0x250; r++ {
			a, ok := was.NominalGlyph(r)
			b, there := now.NominalGlyph(r)
			if ok != there || a != b || was.HorizontalAdvance(a) != now.HorizontalAdvance(b) {
				t.Fatalf("%s: %q is another letter", s.File, r)
			}
			x, _ := was.GlyphDataOutline(a)
			y, _ := now.GlyphDataOutline(b)
			if !slices.Equal(x.Segments, y.Segments) {
				t.Fatalf("%s: %q has another outline", s.File, r)
			}
		}
	}
}

// table returns where a table of a file written here lies.
func table(t testing.TB, data []byte, name string) []byte {
	t.Helper()
	for e := 12; e+16 <= len(data); e += 16 {
		if string(data[e:e+4]) == name {
			at := binary.BigEndian.Uint32(data[e+8:])
			return data[at : at+binary.BigEndian.Uint32(data[e+12:])]
		}
	}
	t.Fatalf("no table %q", name)
	return nil
}

// What a font allows is honoured (OpenType 1.9, OS/2, fsType: the least restrictive bit counts).
func TestWhatAFontAllows(t *testing.T) {
	plain := taken(t, shipped(t, "archivo-latin-400-normal.woff")).Data
	for allows, want := range map[uint16]string{0: "", 8: "", 4: "stays", 2: "font.restricted", 12: "", 0x200: "font.restricted", 0x208: "font.restricted", 0x100: ""} {
		data := bytes.Clone(plain)
		binary.BigEndian.PutUint16(table(t, data, "OS/2")[8:], allows)
		f, err := typeface.Take(data)
		switch {
		case want == "font.restricted":
			if !words.Is(err, want) {
				t.Errorf("fsType %#x: %v", allows, err)
			}
		case err != nil || f.Stays != (want == "stays"):
			t.Errorf("fsType %#x: %v", allows, err)
		}
	}
}

// composite is a glyph made of others.
func composite(parts ...int) []byte {
	g := binary.BigEndian.AppendUint16(nil, 0xffff)
	g = append(g, make([]byte, 8)...)
	for i, p := range parts {
		flags := uint16(0x0002)
		if i < len(parts)-1 {
			flags |= typeface.MoreParts
		}
		g = binary.BigEndian.AppendUint16(g, flags)
		g = binary.BigEndian.AppendUint16(g, uint16(p))
		g = append(g, 0, 0)
	}
	return g
}

// with puts other glyphs into a font, from the first on.
func with(t testing.TB, data []byte, glyphs ...[]byte) []byte {
	t.Helper()
	ld, err := ot.NewLoader(bytes.NewReader(data))
	if err != nil {
		t.Fatal(err)
	}
	tables := map[string][]byte{}
	for _, tag := range ld.Tables() {
		if tables[tag.String()], err = ld.RawTable(tag); err != nil {
			t.Fatal(err)
		}
	}
	n := int(binary.BigEndian.Uint16(tables["maxp"][4:]))
	var glyf, loca []byte
	for i := range n + 1 {
		loca = binary.BigEndian.AppendUint32(loca, uint32(len(glyf)))
		if i < len(glyphs) {
			glyf = append(glyf, glyphs[i]...)
		}
	}
	tables["head"] = bytes.Clone(tables["head"])
	binary.BigEndian.PutUint16(tables["head"][50:], 1)
	tables["glyf"], tables["loca"] = glyf, loca
	return typeface.Written("font/ttf", tables)
}

func TestFontsThatWouldDoHarmAreRefused(t *testing.T) {
	woff := shipped(t, "nunito-latin-400-normal.woff")
	plain := taken(t, woff).Data
	changed := func(data []byte, f func(d []byte)) []byte {
		d := bytes.Clone(data)
		f(d)
		return d
	}
	tower := [][]byte{}
	for i := range 18 { // ten of the next, each of ten of the next, …
		parts := make([]int, 10)
		for k := range parts {
			parts[k] = i + 1
		}
		tower = append(tower, composite(parts...))
	}
	dot := binary.BigEndian.AppendUint16(nil, 1)
	dot = append(dot, make([]byte, 8)...)
	dot = append(dot, 0, 2, 0, 0, 1, 1, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 0, 1)
	for name, c := range map[string]struct {
		data []byte
		want string
	}{
		"nothing":                  {nil, "font.kind"},
		"words":                    {[]byte("Kite Day at Fennel Quay, bring a long tail"), "font.kind"},
		"a picture":                {[]byte("\x89PNG\r\n\x1a\n0000000000000"), "font.kind"},
		"WOFF2":                    {[]byte("wOF2aaaaaaaaaaaaaaaaaaaaaaaa"), "font.woff2"},
		"several in one":           {[]byte("ttcf\x00\x01\x00\x00\x00\x00\x00\x02aaaaaaaa"), "font.collection"},
		"cut short":                {plain[:len(plain)/2], "font.damaged"},
		"cut short, WOFF":          {woff[:len(woff)/2], "font.damaged"},
		"a head alone":             {plain[:12], "font.damaged"},
		"a huge table":             {changed(plain, func(d []byte) { binary.BigEndian.PutUint32(d[12+12:], 0xfffffff0) }), "font.damaged"},
		"a table that unpacks big": {changed(woff, func(d []byte) { binary.BigEndian.PutUint32(d[44+12:], 0xf0000000) }), "font.too-large"},
		"too many tables":          {changed(plain, func(d []byte) { binary.BigEndian.PutUint16(d[4:], 0xffff) }), "font.damaged"},
		"no letters":               {changed(plain, func(d []byte) { copy(d[bytes.Index(d, []byte("glyf")):], "gone") }), "font.no-outlines"},
		"empty letters":            {with(t, plain), "font.no-outlines"},
		"a letter of itself":       {with(t, plain, composite(0)), "font.loop"},
		"letters of each other":    {with(t, plain, composite(1), composite(2), composite(0)), "font.loop"},
		"a tower of letters":       {with(t, plain, append(tower, dot)...), "font.points"},
		"a part beyond the font":   {with(t, plain, composite(65000)), "font.damaged"},
		"parts without end":        {with(t, plain, composite(1, 1)[:16]), "font.damaged"},
		"too large":                {append(bytes.Clone(plain), make([]byte, typeface.MaxBytes)...), "font.too-large"},
	} {
		if _, err := typeface.Take(c.data); !words.Is(err, c.want) {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
	if _, err := typeface.Take(with(t, plain, composite(1, 1), dot)); err != nil {
		t.Errorf("a letter of two others: %v", err)
	}
}

// Whatever bytes come in, nothing falls over, and what is taken in is taken in again as it is.
func TestDamagedFontsAreRefusedOrMended(t *testing.T) {
	for _, name := range []string{"bungee-latin-400-normal.woff", "literata-latin-400-normal.woff", "kalam-latin-ext-400-normal.woff"} {
		plain := taken(t, shipped(t, name)).Data
		for seed := range uint64(150) {
			r := rand.New(rand.NewPCG(seed, 3))
			d := bytes.Clone(plain)
			for range 1 + r.IntN(10) {
				d[r.IntN(len(d))] = byte(r.IntN(256))
			}
			unharmed(t, d)
		}
	}
}

func unharmed(t *testing.T, data []byte) {
	t.Helper()
	f, err := typeface.Take(data)
	if err != nil {
		return
	}
	if again, err := typeface.Take(f.Data); err != nil || !bytes.Equal(again.Data, f.Data) {
		t.Errorf("what was taken in is refused or changed: %v", err)
	}
}

func FuzzTake(f *testing.F) {
	for _, name := range []string{"bungee-latin-400-normal.woff", "noto-sans-hebrew-hebrew-400-normal.woff"} {
		data := shipped(f, name)
		f.Add(data)
		f.Add(taken(f, data).Data)
	}
	f.Fuzz(unharmed)
}
