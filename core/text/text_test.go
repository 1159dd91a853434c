package text_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io/fs"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/library"

	"github.com/go-text/typesetting/font"
)

// HarfBuzz's own hb-shape is the reference: the same glyphs in the same order, advances within one unit.
func TestShapingAgreesWithHarfBuzz(t *testing.T) {
	latin := []string{"Kite", "Day", "AVATAR", "To Fennel", "first", "office", "affluent", "quay", "WAVE", "Ty", "“ten”", "o’clock", "fi", "1/2", "£12", "Vo,", "tail.", "-", "(LT)"}
	type sample struct {
		file, script string
		words        []string
	}
	var files []sample
	// One file of every family that ships, and one of each script that the family of many has.
	seen := map[string]bool{}
	for _, f := range library.FontFiles() {
		if !seen[f.Family] && strings.Contains(f.File, "-latin-") && !strings.Contains(f.File, "-ext-") {
			seen[f.Family] = true
			files = append(files, sample{f.File, "latn", latin})
		}
	}
	if len(files) < 14 {
		t.Fatalf("only %d families", len(files))
	}
	files = append(files,
		sample{"archivo-latin-500-normal.woff", "latn", latin},
		sample{"noto-sans-latin-ext-400-normal.woff", "latn", []string{"ŁŃŚ", "řšžň", "ġħż", "āēī"}},
		sample{"noto-sans-cyrillic-400-normal.woff", "cyrl", []string{"змей", "Ветер", "ХВОСТ", "йод"}},
		sample{"noto-sans-greek-400-normal.woff", "grek", []string{"άνεμος", "ΟΥΡΑ", "χαρταετός", "Ϊ"}},
		sample{"noto-sans-devanagari-400-normal.woff", "deva", []string{"पतंग", "हवा", "क्षितिज", "स्त्री", "हिन्दी", "र्क"}},
		sample{"noto-sans-hebrew-hebrew-400-normal.woff", "hebr", []string{"עפיפון", "שָׁלוֹם", "זנב"}},
		sample{"noto-sans-arabic-arabic-400-normal.woff", "arab", []string{"طائرة", "ورقية", "ذَيْل", "لا", "ﷺ"}},
		sample{"noto-sans-armenian-armenian-400-normal.woff", "armn", []string{"Օդապարիկ", "քամի", "պոչ", "և"}},
		sample{"noto-sans-georgian-georgian-400-normal.woff", "geor", []string{"ფრანი", "ქარი", "კუდი", "ᲥᲐᲠᲘ"}},
		sample{"noto-sans-bengali-bengali-400-normal.woff", "beng", []string{"ঘুড়ি", "বাতাস", "ক্ষুদ্র", "স্ত্রী", "র্ক"}},
		sample{"noto-sans-tamil-tamil-400-normal.woff", "taml", []string{"பட்டம்", "காற்று", "வால்", "க்ஷ", "ஸ்ரீ"}},
		sample{"noto-emoji-emoji-400-normal.woff", "zyyy", []string{"\U0001fa81", "\U0001f30a\U0001f32c", "\u2764\ufe0f", "\U0001f468\u200d\U0001f469\u200d\U0001f467"}},
		sample{"noto-sans-vietnamese-400-normal.woff", "latn", []string{"ẰẮ", "ộỡ", "Ỷ"}},
	)
	r := rand.New(rand.NewPCG(7, 8))
	for _, f := range files {
		name, words := f.file, f.words
		data, err := fs.ReadFile(library.Fonts(), name)
		if err != nil {
			t.Fatal(err)
		}
		face, err := font.ParseTTF(bytes.NewReader(data))
		if err != nil {
			t.Fatal(err)
		}
		text.Mend(face)
		// hb-shape reads TrueType, not WOFF: hand it the same tables unpacked.
		plain := filepath.Join(t.TempDir(), "font.ttf")
		if err := os.WriteFile(plain, unpack(t, data), 0o644); err != nil {
			t.Fatal(err)
		}
		var lines []string
		for i := 0; i < 200; i++ {
			var l []string
			for k := 0; k <= r.IntN(4); k++ {
				l = append(l, words[r.IntN(len(words))])
			}
			sep := " "
			if len(f.words) < len(latin) {
				sep = "" // the file has no space
			}
			lines = append(lines, strings.Join(l, sep))
		}
		rtl := f.script == "hebr" || f.script == "arab"
		cmd := exec.Command("hb-shape", "--output-format=json", "--no-glyph-names", "--direction="+map[bool]string{true: "rtl", false: "ltr"}[rtl], "--script="+f.script, "--language=en", plain)
		cmd.Stdin = strings.NewReader(strings.Join(lines, "\n") + "\n")
		out, err := cmd.Output()
		if err != nil {
			t.Fatalf("hb-shape (make test installs it): %v", err)
		}
		dec := json.NewDecoder(bytes.NewReader(out))
		for _, l := range lines {
			var want []struct {
				G          uint32
				Cl         int
				Ax, Dx, Dy float64
			}
			if err := dec.Decode(&want); err != nil {
				t.Fatal(err)
			}
			runes := []rune(l)
			got := text.Shape([]*font.Face{face}, runes, 0, len(runes), rtl, func(rune) {})
			if len(got) != len(want) {
				t.Errorf("%s: %q has %d glyphs, HarfBuzz makes %d", name, l, len(got), len(want))
				continue
			}
			for i := range want {
				if got[i].ID != want[i].G || math.Abs(got[i].Advance-want[i].Ax) > 1 || math.Abs(got[i].DX-want[i].Dx) > 1 || math.Abs(got[i].DY-want[i].Dy) > 1 {
					t.Errorf("%s: glyph %d of %q is %+v, HarfBuzz says %+v", name, i, l, got[i], want[i])
				}
			}
		}
	}
}

func book(t *testing.T) *text.Book {
	t.Helper()
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func words(s, align string) *doc.Text {
	return &doc.Text{Align: align, Runs: []doc.Run{{Text: s, Family: "Archivo", Weight: 400, Size: 50}}}
}

func TestAlignmentHangsTheTextFromItsOrigin(t *testing.T) {
	b := book(t)
	for align, want := range map[string]float64{doc.Left: 0, doc.Centre: 0.5, doc.Right: 1} {
		l := text.Set(b, words("long first line\nshort", align), text.Room{})
		if got := -l.Box.Min.X / l.Box.W(); math.Abs(got-want) > 1e-9 {
			t.Errorf("%s: the origin lies at %.3f of the width", align, got)
		}
		short := l.Lines[1]
		if got := (short.Min.X - l.Box.Min.X) / (l.Box.W() - short.W()); math.Abs(got-want) > 1e-9 {
			t.Errorf("%s: the short line lies at %.3f of its room", align, got)
		}
	}
}

func TestLinesBreakBetweenWords(t *testing.T) {
	w := words("Bring a long tail to the quay", doc.Left)
	w.Wrap = true
	b := book(t)
	l := text.Set(b, w, text.Room{W: 300})
	if len(l.Lines) < 3 {
		t.Fatalf("%d lines", len(l.Lines))
	}
	for _, line := range l.Lines {
		if line.W() > 300 {
			t.Errorf("a line is %v wide", line.W())
		}
	}
	if one := text.Set(b, words("Bring a long tail to the quay", doc.Left), text.Room{W: 300}); len(one.Lines) != 1 {
		t.Errorf("a text that grows has %d lines", len(one.Lines))
	}
	// A word that is too long stays whole, alone on its line.
	w = words("a Windsocksandpinwheels b", doc.Left)
	w.Wrap = true
	if l := text.Set(b, w, text.Room{W: 100}); len(l.Lines) != 3 {
		t.Errorf("%d lines around a long word", len(l.Lines))
	}
}

// Letter spacing goes between letters (motion.md, section 11): four letters have three gaps.
func TestLetterSpacingGoesBetweenLetters(t *testing.T) {
	b := book(t)
	a, w := text.Set(b, words("Kite", doc.Left), text.Room{}), words("Kite", doc.Left)
	w.LetterSpacing = 10
	if got := text.Set(b, w, text.Room{}).Box.W() - a.Box.W(); math.Abs(got-30) > 1e-6 {
		t.Errorf("spacing four letters by 10 px adds %v", got)
	}
	// With space between them letters do not join (CSS Text 3, section 8.2).
	for spacing, want := range map[float64]int{0: 4, 2: 6} {
		w := words("office", doc.Left)
		w.Runs[0].Family, w.LetterSpacing = "Noto Sans", spacing
		if n := len(text.SetIn(b, w, text.Room{}, doc.ByLetter).Pieces); n != want {
			t.Errorf("with %v px between, “office” has %d letters, want %d", spacing, n, want)
		}
	}
}

// What is read as one letter is set in one face, and what a face has composed is not missing: keycaps, letters with marks of their own.
func TestLettersStayInOneFace(t *testing.T) {
	for say, want := range map[string]int{"1\ufe0f\u20e3": 1, "e\u0301": 1, "Z\u030c 2\ufe0f\u20e3": 2, "o\u031b\u0301": 1} {
		l := text.SetIn(book(t), one(say, nil), text.Room{}, doc.ByLetter)
		if len(l.Missing) > 0 || len(l.Pieces) != want {
			t.Errorf("%+q: %d letters, want %d; missing %+q", say, len(l.Pieces), want, l.Missing)
		}
	}
}

func TestMissingGlyphsAreReported(t *testing.T) {
	l := text.Set(book(t), words("Kite 風", doc.Left), text.Room{})
	if string(l.Missing) != "風" {
		t.Errorf("missing %q", string(l.Missing))
	}
	if l := text.Set(book(t), words("Łódź", doc.Left), text.Room{}); len(l.Missing) != 0 {
		t.Errorf("the latin-ext subset has all of it, yet %q is missing", string(l.Missing))
	}
}

func TestAnEmptyTextHasTheHeightOfALine(t *testing.T) {
	l := text.Set(book(t), words("", doc.Left), text.Room{})
	if l.Box.H() < 40 || len(l.Lines) != 1 {
		t.Errorf("box %v, %d lines", l.Box, len(l.Lines))
	}
}

// The server sets texts for several exports and pictures at a time, with one book.
func TestTextsAreSetBySeveralAtATime(t *testing.T) {
	b := book(t)
	want := text.Set(b, words("Saturday at Fennel Quay", doc.Left), text.Room{}).Box
	var all sync.WaitGroup
	for k := range 8 {
		all.Go(func() {
			for i := range 60 {
				if got := text.Set(b, words("Saturday at Fennel Quay", doc.Left), text.Room{}).Box; got != want {
					t.Errorf("set beside others it is %v, alone %v", got, want)
					return
				}
				text.SetIn(b, words(fmt.Sprint("Kite Day ", k, i), doc.Left), text.Room{W: 100}, doc.ByLetter)
			}
		})
	}
	all.Wait()
}

// Pictures among letters come from a family that ships, one letter each, also where several characters make one.
func TestPicturesStandAmongLetters(t *testing.T) {
	say := "Kite \U0001fa81 \u2764\ufe0f \U0001f468\u200d\U0001f469\u200d\U0001f467 \U0001f1eb\U0001f1ee Day"
	l := text.SetIn(book(t), one(say, nil), text.Room{}, doc.ByLetter)
	if len(l.Missing) > 0 {
		t.Errorf("missing %q", l.Missing)
	}
	if n := len(l.Pieces); n != 11 {
		t.Errorf("%d letters, want 11", n)
	}
	c := text.CellsOf(book(t), one(say, nil), text.Room{})
	if n := len(c.Cells); n != 16 { // with the spaces
		t.Errorf("a caret finds %d letters, want 16", n)
	}
}
