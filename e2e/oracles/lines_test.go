package oracles

import (
	"encoding/base64"
	"io/fs"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/library"
)

// Lines are broken where Chromium breaks them, in the same font at the same width: 200 paragraphs in four families, at least 95 % of
// them alike to the word (CSS Text 3 and Unicode line breaking, UAX 14, leave little open between spaces).
func TestLinesBreakWhereChromiumBreaksThem(t *testing.T) {
	type paragraph struct {
		Font  string  `json:"font"`
		Words string  `json:"words"`
		Width float64 `json:"width"`
		Size  float64 `json:"size"`
	}
	families := []struct{ name, file string }{
		{"Archivo", "archivo-latin-400-normal.woff"}, {"Literata", "literata-latin-400-normal.woff"}, {"Bitter", "bitter-latin-400-normal.woff"}, {"Caveat", "caveat-latin-400-normal.woff"},
	}
	words := strings.Fields("kite tail string quay wind AVATAR To Fennel office affluent twenty-two well-known (in brackets) “quoted” o’clock 12:30 half-way, end. why? hey! £4.50 and/or e.g. A4 Mr. first fi waving harbour boathouse somebody ten")
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	var list []paragraph
	var ours [][]int // where each line after the first begins, in characters
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 5))
		f := families[seed%uint64(len(families))]
		data, err := fs.ReadFile(library.Fonts(), f.file)
		if err != nil {
			t.Fatal(err)
		}
		var say []string
		for range 12 + r.IntN(30) {
			say = append(say, words[r.IntN(len(words))])
		}
		p := paragraph{base64.StdEncoding.EncodeToString(data), strings.Join(say, " "), float64(140 + r.IntN(400)), float64(14 + r.IntN(30))}
		list = append(list, p)
		v := &doc.Text{Align: doc.Left, Wrap: true, Runs: []doc.Run{{Text: p.Words, Family: f.name, Weight: 400, Size: p.Size}}}
		var begins []int
		for _, line := range text.SetIn(b, v, text.Room{W: p.Width}, doc.ByLine).Pieces {
			begins = append(begins, line.From.Rune)
		}
		ours = append(ours, begins[1:])
	}
	theirs := ask[[]int](t, `async (p) => {
		const name = 'f' + p.font.length
		if (![...document.fonts].some((f) => f.family === name)) {
			document.fonts.add(await new FontFace(name, 'url(data:font/woff;base64,' + p.font + ')').load())
		}
		const d = document.createElement('div')
		d.lang = 'en'
		d.style.cssText = 'position:absolute; left:0; top:0; white-space:normal; width:' + p.width + 'px; font:' + p.size + 'px ' + name + '; text-rendering:geometricPrecision'
		d.textContent = p.words
		document.body.append(d)
		const node = d.firstChild, out = [], r = document.createRange()
		let top = null
		for (let i = 0; i < p.words.length; i++) {
			if (p.words[i] === ' ') continue
			r.setStart(node, i); r.setEnd(node, i + 1)
			const y = r.getClientRects()[0].top
			if (top !== null && y > top + 2) out.push(i)
			top = y
		}
		d.remove()
		return out
	}`, list)
	same := 0
	for i := range list {
		if slices.Equal(ours[i], theirs[i]) {
			same++
			continue
		}
		t.Logf("%q at %v px, size %v: ours begin at %v, Chromium's at %v", list[i].Words, list[i].Width, list[i].Size, ours[i], theirs[i])
	}
	t.Logf("%d of %d paragraphs break alike", same, len(list))
	if same < len(list)*95/100 {
		t.Error("too many paragraphs break elsewhere")
	}
}
