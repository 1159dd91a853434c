package text_test

import (
	"io/fs"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/library"
)

// Whatever the bytes of a font are, it is refused in words or set in some way; nothing stumbles.
func TestDamagedFontsTakeNothingAlong(t *testing.T) {
	for _, name := range []string{"bungee-latin-400-normal.woff", "kalam-latin-400-normal.woff", "literata-latin-400-normal.woff"} {
		data, err := fs.ReadFile(library.Fonts(), name)
		if err != nil {
			t.Fatal(err)
		}
		plain := unpack(t, data)
		good, err := fs.ReadFile(library.Fonts(), "archivo-latin-400-normal.woff")
		if err != nil {
			t.Fatal(err)
		}
		for seed := range uint64(600) {
			r := rand.New(rand.NewPCG(seed, 1))
			d := slices.Clone(plain)
			for range 1 + r.IntN(8) {
				d[r.IntN(len(d))] = byte(r.IntN(256))
			}
			if seed%10 == 0 {
				d = d[:r.IntN(len(d))]
			}
			// A machine may stand still for a while; a font that takes long does so again.
			var took time.Duration
			for range 2 {
				began := time.Now()
				set(d, good)
				if took = time.Since(began); took < 5*time.Second {
					break
				}
			}
			if took >= 5*time.Second {
				t.Fatalf("%s, seed %d: took %v", name, seed, took)
			}
		}
	}
}

// set sets a few words in a font, and others in a good one, which must come out all the same.
func set(data, good []byte) (letters int) {
	b := &text.Book{}
	v := &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: "Kite fi AV אב 12", Family: "x", Weight: 400, Size: 20}, {Text: " tail", Family: "good", Weight: 400, Size: 20}}}
	if good != nil {
		b.Add("good", 400, false, good)
	}
	if b.Add("x", 400, false, data) != nil {
		return 0
	}
	return len(text.SetIn(b, v, text.Room{W: 60}, doc.ByLetter).Pieces)
}

func FuzzFont(f *testing.F) {
	for _, name := range []string{"bungee-latin-400-normal.woff", "noto-sans-hebrew-hebrew-400-normal.woff", "kalam-latin-ext-400-normal.woff"} {
		data, err := fs.ReadFile(library.Fonts(), name)
		if err != nil {
			f.Fatal(err)
		}
		plain := unpack(f, data)
		f.Add(plain)
		f.Add(plain[:len(plain)/2])
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		set(data, nil)
	})
}
